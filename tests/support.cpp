#include "support.hpp"

#include <sys/wait.h>

#include <algorithm>
#include <array>
#include <cstdio>
#include <cstdlib>

#include "vole/base/program.hpp"

std::string source_folder() {
  const char* folder = std::getenv("VOLE_SOURCE");
  return folder ? folder : ".";
}

std::string allotment_folder() {
  return source_folder() + "/examples/allotment";
}

int below(vole::Random& chance, int count) {
  return static_cast<int>(chance.below(static_cast<std::uint32_t>(count)));
}

vole::IVec2 some_sides(vole::Random& chance) {
  if (chance.chance(0.5f)) return vole::IVec2(16);
  const int width = 5 + below(chance, 28);
  return {width, 5 + below(chance, 28)};
}

int cases(int usual, int sanitized) {
#ifdef VOLE_SANITIZED
  usual = sanitized;
#else
  static_cast<void>(sanitized);
#endif
  const char* const times = std::getenv("VOLE_TIMES");
  return times ? usual * std::max(std::atoi(times), 1) : usual;
}

TempFolder::TempFolder() {
  std::string pattern = (std::filesystem::temp_directory_path() / "vole-test-XXXXXX").string();
  const char* made = mkdtemp(pattern.data());
  REQUIRE(made != nullptr);
  folder_ = made;
}

TempFolder::~TempFolder() {
  std::error_code ignored;
  std::filesystem::remove_all(folder_, ignored);
}

std::string TempFolder::path(const std::string& name) const {
  return name.empty() ? folder_.string() : (folder_ / name).string();
}

void TempFolder::write(const std::string& name, std::string_view content) const {
  vole::write_whole(path(name), content);
}

void TempFolder::write_picture(const std::string& name, vole::IVec2 size, vole::Colour colour) const {
  vole::write_png(path(name), vole::Image(size, colour));
}

void write_small_game(const TempFolder& folder) {
  folder.write("game.toml",
               "title = \"Small\"\nid = \"small\"\ncanvas = [64, 32]\nfirst_scene = \"patch\"\n");
  folder.write("controls.toml",
               "[actions]\njump = [\"key Space\", \"pad south\"]\n"
               "[axes.walk]\nless = [\"key ArrowLeft\"]\nmore = [\"key ArrowRight\"]\nstick = [\"pad stick "
               "left x\"]\n");
  folder.write("kinds.toml",
               "[mouse]\nsprite = { sheet = \"mouse\", clip = \"run\" }\nbody = { size = [6, 6] }\n"
               "side_mover = {}\nplayer = {}\n\n[crumb]\nbody = { size = [4, 4] }\n");
  folder.write_picture("assets/mouse.png", {32, 16}, {0x7a, 0x4a, 0x33, 0xff});
  folder.write(
      "assets/mouse.sheet.toml",
      "frame = { size = [8, 8] }\npivot = \"bottom\"\n\n[clips.run]\nframes = [0, 1, 2]\nfps = 12\n\n"
      "[clips.idle]\nframes = [3]\n");
  folder.write_picture("assets/soil.png", {16, 8}, {0x4a, 0x30, 0x26, 0xff});
  folder.write("assets/soil.tileset.toml",
               "frame = { size = [8, 8] }\n\n[tiles.soil]\ncell = [0, 0]\nsolid = "
               "true\n\n[tiles.grass]\ncell = [1, 0]\n");
  folder.write("levels/patch.level.toml",
               "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\", \",\" = \"grass\" }\n\n"
               "[[layers]]\nname = \"ground\"\nrows = [\n  \"..........\",\n  \"..........\",\n  "
               "\"...,......\",\n  \"##########\",\n]\n\n"
               "[[layers]]\nname = \"things\"\n\n[[places]]\nkind = \"mouse\"\ncell = [1, "
               "2]\n\n[[places]]\nkind = \"crumb\"\ncell = [6, 2]\n");
}

Ran run_command(const std::string& command) {
  FILE* const pipe = popen(("( " + command + " ) 2>&1").c_str(), "r");
  REQUIRE(pipe != nullptr);
  Ran ran;
  std::array<char, 4096> part{};
  for (std::size_t count = 0; (count = std::fread(part.data(), 1, part.size(), pipe)) > 0;)
    ran.output.append(part.data(), count);
  const int status = pclose(pipe);
  ran.code = WIFEXITED(status) ? WEXITSTATUS(status) : 128;
  return ran;
}

std::string variable(const char* name) {
  const char* value = std::getenv(name);
  REQUIRE(value != nullptr);
  return value;
}

Ran vole_in(const TempFolder& folder, const std::string& words) {
  return run_command("cd " + as_word(folder.path()) + " && " + as_word(variable("VOLE_TOOL")) + " " + words);
}

std::string checked_with(const TempFolder& folder, const std::string& file, const std::string& what,
                         const std::string& by) {
  const std::string text = vole::read_text(folder.path(file), 1 << 20);
  std::string changed = text;
  folder.write(file, changed.replace(changed.find(what), what.size(), by));
  const Ran ran = vole_in(folder, "check");
  folder.write(file, text);
  CAPTURE(file, what, by, ran.output);
  CHECK(ran.code == 1);
  return ran.output;
}

std::string program_of_test() {
  return vole::program_path("");
}

std::string as_word(const std::string& text) {
  std::string word = "'";
  for (const char c : text) word += c == '\'' ? std::string("'\''") : std::string(1, c);
  return word + "'";
}
