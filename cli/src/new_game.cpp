#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "commands.hpp"
#include "embedded.hpp"
#include "vole/app/schemas.hpp"
#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"

namespace {

namespace fs = std::filesystem;

void replace_all(std::string& text, std::string_view what, std::string_view by) {
  for (std::size_t at = text.find(what); at != std::string::npos; at = text.find(what, at + by.size()))
    text.replace(at, what.size(), by);
}

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
  return id.empty() || (id[0] >= '0' && id[0] <= '9') ? "game" + (id.empty() ? "" : "-" + id) : id;
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

// The title is put between quotes in TOML and after // in C++.
void check_title(const std::string& title) {
  const bool plain = std::none_of(title.begin(), title.end(), [](char c) {
    return c == '"' || c == '\\' || static_cast<unsigned char>(c) < 0x20;
  });
  if (!plain) throw vole::Error(vole::FilePosition{}, "a title has no quotes, backslashes or line ends");
}

}  // namespace

std::string vole_cmake_folder(const std::string& program) {
  const std::string bin = vole::folder_of(program);
  for (const char* folder : {"..", "../lib/cmake/vole", "../lib64/cmake/vole",
                             "../lib/x86_64-linux-gnu/cmake/vole", "../lib/aarch64-linux-gnu/cmake/vole"}) {
    const std::string candidate = vole::join_path(bin, folder);
    if (vole::file_exists(vole::join_path(candidate, "vole-config.cmake")))
      return fs::weakly_canonical(candidate).generic_string();
  }
  return {};
}

int new_game(const NewOptions& options, const std::string& program) {
  const vole::FilePosition where = vole::FilePosition::whole_file(options.folder);
  std::error_code failed;
  if (fs::exists(options.folder, failed) && !fs::is_empty(options.folder, failed))
    throw vole::Error(where, "is there already and is not empty", "name a folder that is not there yet");
  const std::string name = fs::absolute(options.folder).lexically_normal().filename().string();
  const std::string id =
      id_from(name.empty() ? fs::absolute(options.folder).lexically_normal().parent_path().filename().string()
                           : name);
  const std::string title = options.title.empty() ? title_from(id) : options.title;
  check_title(title);
  vole::FileSet files;
  for (const EmbeddedFile& file : embedded_files()) {
    std::string content(reinterpret_cast<const char*>(file.bytes), file.size);
    if (!file.path.ends_with(".png")) {
      replace_all(content, "@ID@", id);
      replace_all(content, "@TITLE@", title);
    }
    const std::string path = file.path == "gitignore" ? ".gitignore" : std::string(file.path);
    files.add(vole::join_path(options.folder, path), content);
  }
  // Beside the files they are about, so that editors find them on any machine.
  for (const vole::SchemaFile& schema : vole::all_schemas(vole::ComponentTypes()))
    files.add(vole::join_path(options.folder, "schemas/" + schema.name + ".schema.json"), schema.text);
  files.put_in_place();
  const std::string found = vole_cmake_folder(program);
  const std::string& dir = options.folder;
  fmt::print("{}: \"{}\" is written. Build and start it:\n", dir, title);
  fmt::print("  cmake -S {0} -B {0}/build{1}\n", dir, found.empty() ? "" : " -Dvole_DIR=" + found);
  fmt::print("  cmake --build {}/build\n  {}/build/{}\n", dir, dir, id);
  return 0;
}
