// What it takes to build for browsers: emscripten.
#include <fmt/core.h>

#include <cstdlib>

#include "other_system.hpp"
#include "vole/base/files.hpp"
#include "vole/base/program.hpp"

namespace {

// Debian keeps the parser that emscripten needs where its own node looks, and other nodes do not.
void let_node_find_its_parts() {
  const std::string path = vole::environment("NODE_PATH");
  constexpr const char* debian = "/usr/share/nodejs";
  if (path.find(debian) == std::string::npos)
    setenv("NODE_PATH", (path.empty() ? std::string(debian) : fmt::format("{}:{}", debian, path)).c_str(), 1);
}

}  // namespace

OtherSystem web_system() {
  let_node_find_its_parts();
  return {"web",
          {"emcmake", "cmake", "-DCMAKE_BUILD_TYPE=Release", "-DCMAKE_CXX_FLAGS_RELEASE=-O2 -DNDEBUG"},
          {{"em++", "emscripten"}, {"node", "nodejs"}, {"/usr/share/nodejs/acorn", "node-acorn"}}};
}
