#include "vole/base/file_set.hpp"

#include <fmt/core.h>

#include <filesystem>

#include "partial_file.hpp"
#include "vole/base/error.hpp"
#include "vole/base/paths.hpp"

namespace vole {
namespace {

namespace fs = std::filesystem;

// Where links lead to, whether there is something or not.
fs::path behind_links(fs::path path, const std::string& asked) {
  for (int links = 0; links < 40; ++links) {
    std::error_code failed;
    if (!fs::is_symlink(fs::symlink_status(path, failed))) return path;
    const fs::path next = fs::read_symlink(path, failed);
    if (failed) break;
    path = path.parent_path() / next;
  }
  throw Error(FilePosition::whole_file(asked), "cannot be written: its links lead nowhere");
}

}  // namespace

FileSet::~FileSet() {
  std::error_code failed;
  for (const Part& part : parts_) {
    if (part.part.empty()) continue;
    fs::remove(to_path(part.part), failed);
    forget_partial(part.part);
  }
  // Only those that are empty can be removed.
  for (auto folder = made_folders_.rbegin(); folder != made_folders_.rend(); ++folder)
    fs::remove(to_path(*folder), failed);
}

void FileSet::make_folders(const std::string& folder, const std::string& asked) {
  if (folder.empty() || folder_exists(folder)) return;
  make_folders(folder_of(folder), asked);
  std::error_code failed;
  if (fs::create_directory(to_path(folder), failed)) made_folders_.push_back(folder);
  if (failed)
    throw Error(FilePosition::whole_file(asked),
                fmt::format("cannot be written: the folder {} cannot be made: {}", folder, to_text(failed)));
}

void FileSet::add(const std::string& path, std::string_view content) {
  const FilePosition where = FilePosition::whole_file(path);
  if (path.empty()) throw Error(where, "an empty text is no name of a file");
  const std::string place = to_utf8(behind_links(to_path(path), path));
  std::error_code failed;
  const fs::file_status status = fs::status(to_path(place), failed);
  if (fs::is_directory(status)) throw Error(where, "cannot be written: there is a folder of this name");
  if (fs::exists(status) && !may_write(place)) throw Error(where, "cannot be written: it is write-protected");
  if (fs::exists(status) && !fs::is_regular_file(status)) {
    parts_.push_back({path, place, {}, std::string(content)});
    return;
  }
  const std::string folder = folder_of(place);
  make_folders(folder, path);
  parts_.push_back({path, place, write_partial(folder, content, place, path), {}});
}

void FileSet::add(const std::string& path, const Bytes& content) {
  add(path, std::string_view(reinterpret_cast<const char*>(content.data()), content.size()));
}

void FileSet::put_in_place() {
  for (Part& part : parts_) {
    if (part.part.empty()) {
      write_into(part.place, part.content, part.asked);
      continue;
    }
    std::error_code failed;
    fs::rename(to_path(part.part), to_path(part.place), failed);
    if (failed)
      throw Error(FilePosition::whole_file(part.asked),
                  fmt::format("cannot be written: {}", to_text(failed)));
    forget_partial(part.part);
    part.part.clear();
  }
  parts_.clear();
  made_folders_.clear();
}

void expect_writable(const std::string& path) {
  FileSet files;
  files.add(path, std::string_view());
}

void refuse_to_replace(const std::string& output, const std::vector<std::string>& inputs,
                       std::string_view why) {
  for (const std::string& input : inputs) {
    std::error_code failed;
    if (fs::equivalent(to_path(output), to_path(input), failed))
      throw Error(FilePosition::whole_file(output), std::string(why), "give the output another name");
  }
}

std::string expect_made_by_vole(const std::string& path, std::string_view mark) {
  if (!file_exists(path)) return {};
  constexpr std::size_t most_bytes = std::size_t{64} << 20;
  std::string content = read_text(path, most_bytes);
  if (!content.starts_with(mark))
    throw Error(FilePosition::whole_file(path), "is there already, and was not made by this command",
                "give the output another name, or remove the file");
  return content;
}

}  // namespace vole
