#include <fmt/format.h>
#include <unistd.h>

#include <filesystem>

#include "build.hpp"
#include "commands.hpp"
#include "other_system.hpp"
#include "process.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"

namespace {

namespace fs = std::filesystem;
using vole::Error;
using vole::FilePosition;

// Libraries of headers, and the Debian packages they come in.
struct Needed {
  const char* header;  // a folder of /usr/include
  const char* package;
};
constexpr Needed needed_headers[] = {{"glm", "libglm-dev"},
                                     {"fmt", "libfmt-dev"},
                                     {"toml++", "libtomlplusplus-dev"},
                                     {"stb", "libstb-dev"},
                                     {"CLI", "libcli11-dev"}};

bool there_is(const std::string& program) {
  return run_process({"sh", "-c", fmt::format("command -v {}", program)}, Complaints::dropped).code == 0;
}

std::vector<std::string> missing_packages() {
  std::vector<std::string> packages;
  if (!there_is("em++")) packages.emplace_back("emscripten");
  if (!there_is("node")) packages.emplace_back("nodejs");
  if (!vole::folder_exists("/usr/share/nodejs/acorn")) packages.emplace_back("node-acorn");
  if (!there_is("cmake")) packages.emplace_back("cmake");
  for (const Needed& needed : needed_headers)
    if (!vole::folder_exists(fmt::format("/usr/include/{}", needed.header)))
      packages.emplace_back(needed.package);
  return packages;
}

void install(const std::vector<std::string>& packages) {
  if (packages.empty()) return;
  std::string list;
  for (const std::string& package : packages) list += " " + package;
  if (!there_is("apt-get"))
    throw Error(FilePosition{}, fmt::format("these are missing here:{}", list),
                "install them, and run this again");
  fmt::print(stderr, "installing{} ...\n", list);
  std::vector<std::string> words{"apt-get", "install", "-y", "-qq", "--no-install-recommends"};
  if (geteuid() != 0) words.insert(words.begin(), "sudo");
  words.insert(words.end(), packages.begin(), packages.end());
  must_run(words, "installing packages");
}

// A folder of the headers alone: the system's other headers are not for this target.
void link_headers(const std::string& folder) try {
  fs::create_directories(folder);
  for (const Needed& needed : needed_headers) {
    const fs::path link = fs::path(folder) / needed.header;
    if (!fs::exists(link)) {
      fs::remove(link);
      fs::create_directory_symlink(fs::path("/usr/include") / needed.header, link);
    }
  }
} catch (const fs::filesystem_error& error) {
  throw Error(FilePosition::whole_file(folder), "cannot be made: " + error.code().message(),
              "set XDG_CACHE_HOME to a folder that may be written");
}

}  // namespace

int setup(const SetupOptions& options, const std::string& tool) {
  const OtherSystem system = other_system(options.target, tool);
  install(missing_packages());
  set_up_environment();
  const std::string ready = vole::join_path(system.folder, "ready");
  std::error_code ignored;  // most often there is none
  fs::remove(ready, ignored);
  const std::string headers = vole::join_path(system.folder, "headers"),
                    build = vole::join_path(system.folder, "build");
  link_headers(headers);
  std::vector<std::string> words = system.configure;
  for (const std::string& word :
       {std::string("-S"), system.source, std::string("-B"), build, "-DVOLE_HEADERS=" + headers,
        std::string("-DVOLE_TOOL=OFF"), std::string("-DVOLE_EXAMPLES=OFF"), std::string("-DVOLE_TESTS=OFF")})
    words.push_back(word);
  fmt::print(stderr, "building Vole for \"{}\"; this takes some minutes, once ...\n", system.name);
  must_run(words, "configuring the library");
  must_build(build, "building the library");
  vole::write_whole(ready, std::string_view("whole\n"));
  fmt::print("{}\n", system.folder);
  return 0;
}
