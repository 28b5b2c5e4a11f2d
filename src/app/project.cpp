#include "vole/app/project.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <iterator>

#include "vole/base/files.hpp"
#include "vole/base/paths.hpp"
#include "vole/base/reading.hpp"

namespace vole {

namespace {

bool is_small_letter(char c) {
  return c >= 'a' && c <= 'z';
}
bool is_digit(char c) {
  return c >= '0' && c <= '9';
}

// Names that a build, a package or a system keeps for itself.
constexpr std::string_view taken_ids[] = {
    "all",    "assets", "build",    "clean", "edit-cache", "game",       "help",    "install", "kinds",
    "levels", "lib",    "licences", "test",  "package",    "recordings", "schemas", "src"};

}  // namespace

std::string wrong_with_title(std::string_view title) {
  constexpr std::size_t longest = 200;
  const auto breaks = [](char c) { return static_cast<unsigned char>(c) < 0x20 || c == 0x7f || c == '\\'; };
  if (title.find_first_not_of(' ') == std::string_view::npos) return "a title is not empty";
  if (title.size() > longest) return fmt::format("a title has at most {} bytes", longest);
  if (std::any_of(title.begin(), title.end(), breaks))
    return "a title has no backslashes, line breaks or other control characters";
  return {};
}

std::string wrong_with_id(std::string_view id) {
  constexpr std::size_t longest = 64;
  const auto fits = [](char c) { return is_small_letter(c) || is_digit(c) || c == '-'; };
  if (id.empty() || !is_small_letter(id.front()) || !std::all_of(id.begin(), id.end(), fits))
    return "an id has small letters, digits and '-', and begins with a letter";
  if (id.size() > longest) return fmt::format("an id has at most {} letters", longest);
  if (is_windows_device(id) ||
      std::find(std::begin(taken_ids), std::end(taken_ids), id) != std::end(taken_ids))
    return fmt::format(
        "\"{}\" is taken: builds and systems have that name for something else; \"{}-game\" would do", id,
        id);
  return {};
}

std::string wrong_with_version(std::string_view version) {
  constexpr std::size_t longest = 32;
  const auto fits = [](char c) {
    return is_small_letter(c) || (c >= 'A' && c <= 'Z') || is_digit(c) || c == '.' || c == '-' || c == '+';
  };
  if (version.empty() || version.size() > longest || !is_digit(version.front()) ||
      !std::all_of(version.begin(), version.end(), fits))
    return fmt::format("a version begins with a digit and has letters, digits, '.', '-' and '+', at most {}",
                       longest);
  return {};
}

Project read_project(const std::string& file) {
  Report report;
  Project project;
  project.root = folder_of(file).empty() ? "." : folder_of(file);
  read(read_toml(file), project, report);
  const bool all_read = !report.has_errors();
  const auto expect = [&](const Located<std::string>& name, std::string_view what, const std::string& wrong) {
    // What is not a text at all is reported already.
    if (name.where.file && !wrong.empty() && (all_read || !name.value.empty()))
      report.error(name.where, fmt::format("\"{}\" cannot be the game's {}", name.value, what), wrong);
  };
  expect(project.title, "title", wrong_with_title(project.title.value));
  expect(project.id, "id", wrong_with_id(project.id.value));
  expect(project.version, "version", wrong_with_version(project.version.value));
  report.gather([&] {
    if (!project.icon.value.empty()) expect_inside(project.root, project.icon.value, project.icon.where);
  });
  project.categories = Categories(project.written_categories, report);
  report.throw_if_errors();
  return project;
}

std::string find_project(const std::string& file, const std::string& program) {
  std::vector<std::string> candidates{join_path(folder_of(program), file)};
  if (const std::string pointer = program + ".folder"; file_exists(pointer)) {
    std::string folder = read_text(pointer, 65536);
    folder.erase(std::find(folder.begin(), folder.end(), '\n'), folder.end());
    candidates.push_back(join_path(folder, file));
  }
  candidates.push_back(file);
  for (std::string& candidate : candidates)
    if (file_exists(candidate)) return std::move(candidate);
  throw Error(FilePosition::whole_file(file), "no such file here nor beside the program",
              "start it in the game's folder");
}

}  // namespace vole
