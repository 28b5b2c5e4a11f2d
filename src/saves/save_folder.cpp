#include "vole/saves/save_folder.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>

#include "base/partial_file.hpp"
#include "folder_lock.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"
#include "vole/base/paths.hpp"

namespace vole {
namespace {

namespace fs = std::filesystem;
constexpr std::string_view file_ending = ".save", before_file_ending = ".before.save";

// In one sentence, without the place: players see it.
std::string sentence(const Error& error) {
  const Problem& problem = error.problems().front();
  return problem.text;
}

bool holds_whole_save(const std::string& file) {
  try {
    return file_exists(file) && is_whole_save(read_text(file, SaveFile::most_bytes));
  } catch (const Error&) {
    return false;
  }
}

void rename_file(const std::string& from, const std::string& to) {
  std::error_code failed;
  fs::rename(to_path(from), to_path(to), failed);
  if (failed)
    throw Error(FilePosition::whole_file(to), fmt::format("cannot be written: {}", to_text(failed)));
}

void remove_file(const std::string& file) {
  std::error_code failed;
  fs::remove(to_path(file), failed);
  if (failed)
    throw Error(FilePosition::whole_file(file), fmt::format("cannot be removed: {}", to_text(failed)));
}

void make_folder(const std::string& folder) {
  std::error_code failed;
  fs::create_directories(to_path(folder), failed);
  if (failed)
    throw Error(FilePosition::whole_file(folder), fmt::format("cannot be made: {}", to_text(failed)));
}

}  // namespace

void expect_save_name(std::string_view name, std::size_t longest) {
  const auto is_small = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '-' || c == '_';
  };
  const bool fits = !name.empty() && name.size() <= longest && is_small(name.front()) &&
                    is_small(name.back()) &&
                    std::all_of(name.begin(), name.end(), [&](char c) { return is_small(c) || c == ' '; });
  if (!fits)
    throw Error(FilePosition{}, fmt::format("\"{}\" is no name of a save", name),
                fmt::format("it has 1 to {} small letters, digits, -, _, and spaces between them", longest));
}

SaveFolder::SaveFolder(std::string folder, std::string game)
    : folder_(std::move(folder)), game_(std::move(game)) {}

std::string SaveFolder::file_of(std::string_view name) const {
  expect_save_name(name);
  return join_path(folder_, std::string(name) + std::string(file_ending));
}
std::string SaveFolder::before_of(std::string_view name) const {
  expect_save_name(name);
  return join_path(folder_, std::string(name) + std::string(before_file_ending));
}

// Of the save or, where that is damaged or missing, of the one before; then with a sentence. None where there is neither.
template <class Result>
std::optional<std::pair<Result, std::string>> SaveFolder::newest(
    std::string_view name, Result (*parse)(std::string_view, const std::string&, std::string_view)) const {
  const auto read_file = [&](const std::string& file) {
    return parse(read_text(file, SaveFile::most_bytes), file, game_);
  };
  if (folder_.empty()) return std::nullopt;
  const std::string file = file_of(name), before = before_of(name);
  if (!file_exists(file) && !file_exists(before)) return std::nullopt;
  std::string problem;
  try {
    if (file_exists(file)) return std::pair(read_file(file), std::string());
  } catch (const Error& error) {
    if (!file_exists(before)) throw;
    problem = sentence(error);
  }
  // Whoever was ended between two renamings has left only this one.
  Result result = read_file(before);
  if (!problem.empty()) problem = fmt::format("The newest save {}, so the one before it is used.", problem);
  return std::pair(std::move(result), std::move(problem));
}

std::optional<SaveFolder::Read> SaveFolder::read(std::string_view name) const {
  auto found = newest<SaveFile>(name, read_save);
  if (!found) return std::nullopt;
  return Read{std::move(found->first), std::move(found->second)};
}

std::vector<SaveFolder::Listed> SaveFolder::list(std::string_view begin) const {
  std::vector<std::string> names;
  std::error_code failed;
  for (fs::directory_iterator it(to_path(folder_), failed), end; !failed && it != end; it.increment(failed)) {
    std::string name = to_utf8(it->path().filename());
    const std::string_view end_of = name.ends_with(before_file_ending) ? before_file_ending : file_ending;
    if (!name.starts_with(begin) || !name.ends_with(end_of)) continue;
    name.resize(name.size() - end_of.size());
    if (std::find(names.begin(), names.end(), name) == names.end() && names.size() < most_saves)
      names.push_back(std::move(name));
  }
  std::sort(names.begin(), names.end());
  std::vector<Listed> all;
  for (const std::string& name : names) try {
      if (auto found = newest<SaveHead>(name, read_save_head))
        all.push_back({name, std::move(found->first), std::move(found->second)});
    } catch (const Error& error) {
      all.push_back({name, {}, fmt::format("This save {}.", sentence(error))});
    }
  std::stable_sort(all.begin(), all.end(),
                   [](const Listed& a, const Listed& b) { return a.head.count > b.head.count; });
  return all;
}

void SaveFolder::write(std::string_view name,
                       const std::function<std::string(const SaveHead* now)>& make) const {
  const std::string file = file_of(name), before = before_of(name);
  if (folder_.empty()) throw Error(FilePosition{}, "this system has no place where saves can be kept");
  make_folder(folder_);
  const FolderLock lock(folder_);
  std::optional<std::pair<SaveHead, std::string>> now;
  try {
    now = newest<SaveHead>(name, read_save_head);
  } catch (const Error&) {
    // What is damaged is replaced. What is whole, but of another game or from the future, is not this game's to replace.
    if (holds_whole_save(file)) throw;
  }
  const bool is_whole = now && now->second.empty() && file_exists(file);
  const std::string part = write_partial(folder_, make(now ? &now->first : nullptr), file, file);
  try {
    flush_file(part);
    // What is damaged does not take the place of the last good one.
    if (is_whole) rename_file(file, before);
    rename_file(part, file);
  } catch (const Error&) {
    std::error_code failed;
    fs::remove(to_path(part), failed);
    forget_partial(part);
    throw;
  }
  forget_partial(part);
  flush_folder(folder_);
}

void SaveFolder::remove(std::string_view name) const {
  const std::string file = file_of(name), before = before_of(name);
  if (folder_.empty() || !folder_exists(folder_)) return;
  const FolderLock lock(folder_);
  remove_file(before);
  remove_file(file);
}

}  // namespace vole
