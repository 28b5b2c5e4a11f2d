// The layers as docs/architecture.md draws them: what a module may include, and that only hosts/ knows the
// window library.
#include <map>
#include <regex>
#include <set>
#include <sstream>

#include "support.hpp"

namespace {

using Modules = std::set<std::string>;

// What each module may include besides itself.
const std::map<std::string, Modules> allowed{
    {"base", {}},
    {"saves", {"base"}},
    {"asset", {"base"}},
    {"input", {"base"}},
    {"physics", {"base"}},
    {"animation", {"base", "asset"}},
    {"level", {"base", "asset", "physics"}},
    {"draw", {"base", "asset"}},
    {"audio", {"base", "asset"}},
    {"world", {"base", "asset", "input", "physics", "animation", "level", "draw", "audio"}},
    {"scene", {"base", "saves", "asset", "input", "physics", "animation", "level", "draw", "audio", "world"}},
    {"app",
     {"base", "saves", "asset", "input", "physics", "animation", "level", "draw", "audio", "world",
      "scene"}}};

// Libraries that are heavy to compile stay out of public headers.
const std::set<std::string> never_in_public{"toml++", "CLI", "nlohmann",  "spdlog",
                                            "fmt",    "stb", "archive.h", "SDL.h"};

struct Include {
  std::string file;
  int line = 0;
  std::string path;
};

std::vector<Include> includes_below(const std::string& folder) {
  std::vector<Include> all;
  for (const std::string& file : vole::list_files(source_folder() + "/" + folder)) {
    if (!file.ends_with(".hpp") && !file.ends_with(".cpp")) continue;
    std::istringstream lines(vole::read_text(source_folder() + "/" + folder + "/" + file, 1 << 22));
    int number = 0;
    for (std::string line; std::getline(lines, line);) {
      ++number;
      if (!line.starts_with("#include ")) continue;
      all.push_back({folder + "/" + file, number, line.substr(10, line.size() - 11)});
    }
  }
  return all;
}

// "vole/draw/camera.hpp" -> "draw"; empty for what is not a module's header.
std::string module_of(const std::string& path) {
  if (!path.starts_with("vole/")) return {};
  const std::size_t end = path.find('/', 5);
  return end == std::string::npos ? std::string() : path.substr(5, end - 5);
}

}  // namespace

TEST_CASE("no module includes what lies above or beside it") {
  int checked = 0;
  for (const auto& [module, may] : allowed) {
    for (const std::string& folder : std::vector<std::string>{"include/vole/" + module, "src/" + module}) {
      if (!vole::folder_exists(source_folder() + "/" + folder)) continue;
      for (const Include& include : includes_below(folder)) {
        const std::string other = module_of(include.path);
        if (other.empty() || other == module) continue;
        CAPTURE(include.file, include.line, include.path);
        CHECK(may.count(other) == 1);
        ++checked;
      }
    }
  }
  CHECK(checked > 50);
}

TEST_CASE("every module in the tree has its place in the layers") {
  for (const std::string& folder : std::vector<std::string>{"include/vole", "src"}) {
    for (const std::string& file : vole::list_files(source_folder() + "/" + folder)) {
      if (file.find('/') == std::string::npos) continue;
      CAPTURE(folder, file);
      CHECK(allowed.count(file.substr(0, file.find('/'))) == 1);
    }
  }
}

TEST_CASE("only hosts/ names the window library and the browser's calls, and no public header does") {
  for (const std::string& folder :
       std::vector<std::string>{"include", "src", "cli", "examples", "tools", "hosts/include"}) {
    for (const std::string& file : vole::list_files(source_folder() + "/" + folder)) {
      if (file.find("build/") != std::string::npos) continue;
      if (!file.ends_with(".hpp") && !file.ends_with(".cpp")) continue;
      CAPTURE(folder, file);
      std::string text = vole::read_text(source_folder() + "/" + folder + "/" + file, 1 << 22);
      CHECK(text.find("SDL_") == std::string::npos);
      CHECK(text.find("<SDL") == std::string::npos);
      CHECK(text.find("<emscripten") == std::string::npos);
    }
  }
}

TEST_CASE("public headers are light") {
  for (const Include& include : includes_below("include/vole")) {
    CAPTURE(include.file, include.line, include.path);
    const std::string library = include.path.substr(0, include.path.find('/'));
    CHECK(never_in_public.count(library) == 0);
  }
}

TEST_CASE("pages link to files that are there") {
  std::vector<std::string> pages{"README.md", "CONTRIBUTING.md"};
  for (const std::string& file : vole::list_files(source_folder() + "/docs"))
    if (file.ends_with(".md")) pages.push_back("docs/" + file);
  const std::regex link(R"(\]\(([^)#: ]+)(#[^)]*)?\))");
  int links = 0;
  for (const std::string& page : pages) {
    const std::string text = vole::read_text(source_folder() + "/" + page, 1 << 20);
    const std::string folder = page.starts_with("docs/") ? "docs/" : "";
    for (std::sregex_iterator each(text.begin(), text.end(), link), end; each != end; ++each, ++links) {
      CAPTURE(page, (*each)[1].str());
      CHECK(std::filesystem::exists(source_folder() + "/" + folder + (*each)[1].str()));
    }
  }
  CHECK(links > 50);
}
