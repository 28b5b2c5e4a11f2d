#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <optional>

#include "build.hpp"
#include "command.hpp"
#include "commands.hpp"
#include "embedded.hpp"
#include "fill_in.hpp"
#include "process.hpp"
#include "vole/app/project.hpp"
#include "vole/app/schemas.hpp"
#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/writing.hpp"

namespace {

namespace fs = std::filesystem;

struct NewOptions {
  std::string folder;
  std::string title;          // empty: made from the folder's name
  std::string view = "side";  // or "top"
};

// "My first game" -> "my-first-game".
std::string id_from(const std::string& name) {
  std::string id;
  for (const char c : name) {
    if (c >= 'A' && c <= 'Z')
      id += static_cast<char>(c - 'A' + 'a');
    else if ((c >= 'a' && c <= 'z') || (c >= '0' && c <= '9'))
      id += c;
    else if (!id.empty() && id.back() != '-')
      id += '-';
  }
  while (!id.empty() && id.back() == '-') id.pop_back();
  if (id.empty()) return "my-game";
  if (id[0] >= '0' && id[0] <= '9') id = fmt::format("game-{}", id);
  return vole::wrong_with_id(id).empty() ? id : fmt::format("{}-game", id);
}

// "my-first-game" -> "My First Game".
std::string title_from(const std::string& id) {
  std::string title;
  bool starts = true;
  for (const char c : id) {
    title += c == '-' ? ' ' : starts && c >= 'a' && c <= 'z' ? static_cast<char>(c - 'a' + 'A') : c;
    starts = c == '-';
  }
  return title;
}

// Where a file of the template goes; nothing for one of the other view. What lies in no view's folder is for all.
std::optional<std::string> place_in_game(std::string_view file, std::string_view view) {
  if (file == "gitignore") return ".gitignore";
  for (const std::string_view each : {"side/", "top/"}) {
    if (!file.starts_with(each)) continue;
    if (each.substr(0, each.size() - 1) != view) return std::nullopt;
    return std::string(file.substr(each.size()));
  }
  return std::string(file);
}

void expect_usable(std::string_view name, std::string_view what, const std::string& wrong) {
  if (!wrong.empty())
    throw vole::Error(vole::FilePosition{}, fmt::format("\"{}\" cannot be the game's {}", name, what), wrong);
}

void new_game(const NewOptions& options, const std::string& tool) {
  if (options.folder.empty())
    throw vole::Error(vole::FilePosition{}, "a new game needs a folder with a name");
  const vole::FilePosition where = vole::FilePosition::whole_file(options.folder);
  std::error_code failed;
  if (fs::exists(options.folder, failed) && !fs::is_empty(options.folder, failed))
    throw vole::Error(where, "is there already and is not empty", "name a folder that is not there yet");
  const std::string name = fs::absolute(options.folder).lexically_normal().filename().string();
  const std::string id =
      id_from(name.empty() ? fs::absolute(options.folder).lexically_normal().parent_path().filename().string()
                           : name);
  const std::string title = options.title.empty() ? title_from(id) : options.title;
  expect_usable(title, "title", vole::wrong_with_title(title));
  expect_usable(id, "id", vole::wrong_with_id(id));
  const std::string title_in_toml = vole::in_quotes(title);
  vole::FileSet files;
  for (const EmbeddedFile& file : embedded_template()) {
    const std::optional<std::string> place = place_in_game(file.path, options.view);
    if (!place) continue;
    std::string content(reinterpret_cast<const char*>(file.bytes), file.size);
    if (!file.path.ends_with(".png")) {
      content = filled_in(content,
                          {{"@KEYS@", options.view == "top" ? "Arrow keys (or W, A, S and D) walk."
                                                            : "Arrow keys (or A and D) walk, Space jumps."},
                           {"@ID@", id},
                           {"\"@TITLE@\"", title_in_toml},
                           {"@TITLE@", title}});
    }
    files.add(vole::join_path(options.folder, *place), content);
  }
  // Beside the files they are about, so that editors find them on any machine.
  for (const vole::SchemaFile& schema : vole::all_schemas(vole::ComponentTypes()))
    files.add(vole::join_path(options.folder, "schemas/" + schema.name + ".schema.json"), schema.text);
  files.put_in_place();
  const std::string found = vole_cmake_folder(tool);
  // A name that begins with a dash would be taken for an option.
  const std::string folder = options.folder.starts_with('-') ? "./" + options.folder : options.folder;
  const std::string dir = shell_word(folder), build = shell_word(vole::join_path(folder, "build"));
  fmt::print("{}: \"{}\" is written. Build and start it:\n", options.folder, title);
  fmt::print("  cmake -S {} -B {}{}\n", dir, build,
             found.empty() ? "" : fmt::format(" {}", shell_word(fmt::format("-Dvole_DIR={}", found))));
  fmt::print("  cmake --build {}\n  {}\n", build, shell_word(vole::join_path(folder, "build/" + id)));
}

}  // namespace

void add_new(CommandLine& line) {
  const auto options = std::make_shared<NewOptions>();
  Command command = line.add("new", "Write a small game that builds and runs",
                             "  vole new my-game\n"
                             "  vole new my-game --title \"The Long Way Home\" --view top",
                             [&line, options] {
                               new_game(*options, line.tool());
                               return 0;
                             });
  command.word("DIR", options->folder, "The folder to make; its name becomes the game's id").needed();
  command.word("--title", options->title, "The game's title; made from the folder's name when left out")
      .value_name("TEXT");
  command.word("--view", options->view, "Whether the game is seen from the side or from the top")
      .one_of({"side", "top"})
      .shows_default();
}
