#include "vole/base/files.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>

#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/names.hpp"
#include "vole/base/paths.hpp"

namespace vole {
namespace fs = std::filesystem;
namespace {

std::string nearby_files(const std::string& path) {
  std::error_code failed;
  const fs::path wanted = to_path(path);
  const fs::path folder = wanted.has_parent_path() ? wanted.parent_path() : fs::path(".");
  std::vector<std::string> names;
  for (fs::directory_iterator it(folder, failed), end; !failed && it != end && names.size() < 1000;
       it.increment(failed))
    names.push_back(to_utf8(it->path().filename()));
  std::sort(names.begin(), names.end());
  const std::string nearest = nearest_name(to_utf8(wanted.filename()), names);
  return nearest.empty() ? std::string() : fmt::format("did you mean \"{}\"?", nearest);
}

template <class Content>
Content read_whole(const std::string& path, std::size_t most_bytes) {
  const FilePosition where = FilePosition::whole_file(path);
  std::error_code failed;
  const fs::file_status status = fs::status(to_path(path), failed);
  if (status.type() == fs::file_type::not_found) throw Error(where, "no such file", nearby_files(path));
  if (failed) throw Error(where, fmt::format("cannot be read: {}", to_text(failed)));
  if (status.type() != fs::file_type::regular) throw Error(where, "is not a file");
  const std::uintmax_t size = fs::file_size(to_path(path), failed);
  if (failed) throw Error(where, fmt::format("cannot be read: {}", to_text(failed)));
  if (size > most_bytes)
    throw Error(where,
                fmt::format("is {} bytes long; the most for a file of this type is {}", size, most_bytes));
  errno = 0;
  std::ifstream in(to_path(path), std::ios::binary);
  if (!in) throw Error(where, fmt::format("cannot be read: {}", std::strerror(errno)));
  Content content(static_cast<std::size_t>(size), {});
  in.read(reinterpret_cast<char*>(content.data()), static_cast<std::streamsize>(size));
  content.resize(static_cast<std::size_t>(in.gcount()));
  return content;
}

}  // namespace

std::string read_text(const std::string& path, std::size_t most_bytes) {
  return read_whole<std::string>(path, most_bytes);
}

Bytes read_bytes(const std::string& path, std::size_t most_bytes) {
  return read_whole<Bytes>(path, most_bytes);
}

void write_whole(const std::string& path, std::string_view content) {
  FileSet files;
  files.add(path, content);
  files.put_in_place();
}

void write_whole(const std::string& path, const Bytes& content) {
  write_whole(path, std::string_view(reinterpret_cast<const char*>(content.data()), content.size()));
}

bool file_exists(const std::string& path) {
  std::error_code failed;
  return fs::is_regular_file(to_path(path), failed);
}

bool folder_exists(const std::string& path) {
  std::error_code failed;
  return fs::is_directory(to_path(path), failed);
}

// No game has so many, but a whole disk has.
constexpr std::size_t most_files_listed = 100'000;

std::vector<std::string> list_files(const std::string& folder) {
  std::vector<std::string> files;
  std::error_code failed;
  fs::recursive_directory_iterator it(to_path(folder), failed);
  const auto check = [&failed, &folder](const std::string& where) {
    if (failed)
      throw Error(FilePosition::whole_file(where.empty() ? folder : where),
                  fmt::format("folder cannot be read: {}", to_text(failed)));
  };
  check(folder);
  for (const fs::recursive_directory_iterator end; it != end;) {
    const fs::path path = it->path();
    std::error_code unknown;
    if (to_utf8(path.filename()).starts_with('.'))
      it.disable_recursion_pending();
    else if (files.size() == most_files_listed)
      throw Error(FilePosition::whole_file(folder),
                  fmt::format("holds more than {} files", most_files_listed),
                  "is it the folder that was meant?");
    else if (it->is_regular_file(unknown))
      files.push_back(to_utf8(path.lexically_relative(to_path(folder))));
    it.increment(failed);
    check(to_utf8(path));
  }
  std::sort(files.begin(), files.end());
  return files;
}

void expect_inside(const std::string& folder, std::string_view name, const FilePosition& asked) {
  const fs::path written = to_path(name);
  const bool plain = !name.empty() && !written.is_absolute() && !written.has_root_name() &&
                     std::find(written.begin(), written.end(), "..") == written.end();
  std::error_code failed;
  const fs::path real = fs::weakly_canonical(to_path(folder) / written, failed);
  const fs::path real_folder = fs::weakly_canonical(to_path(folder.empty() ? "." : folder), failed);
  const auto [end, at] = std::mismatch(real_folder.begin(), real_folder.end(), real.begin(), real.end());
  if (plain && !failed && end == real_folder.end()) return;
  throw Error(asked, fmt::format("\"{}\" is not in the folder \"{}\"", name, folder),
              plain ? "it is a link that leads out of it"
                    : "write its path below that folder, as in \"assets/icon.png\"");
}

std::uint64_t file_stamp(const std::string& path) {
  std::error_code failed;
  const auto written = fs::last_write_time(to_path(path), failed);
  if (failed) return 0;
  const std::uintmax_t size = fs::file_size(to_path(path), failed);
  const auto ticks = static_cast<std::uint64_t>(written.time_since_epoch().count());
  return (ticks * 31 + size) | 1;  // never 0, which means "no file"
}

std::string join_path(std::string_view folder, std::string_view name) {
  return to_utf8(to_path(folder) / to_path(name));
}

std::string folder_of(std::string_view path) {
  return to_utf8(to_path(path).parent_path());
}

}  // namespace vole
