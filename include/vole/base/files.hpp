// Reading and writing whole files, and listing folders. Every failure is an Error that names the file and,
// when a file is missing, the nearest name in its folder.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/error.hpp"

namespace vole {

using Bytes = std::vector<unsigned char>;

// The whole file. Throws Error when it is missing, not a file, unreadable or larger than `most_bytes`.
std::string read_text(const std::string& path, std::size_t most_bytes);
Bytes read_bytes(const std::string& path, std::size_t most_bytes);

// Writes the whole file or nothing: the old content stays until the new one is complete. Makes missing folders. See
// file_set.hpp, also for several files that belong together.
void write_whole(const std::string& path, std::string_view content);
void write_whole(const std::string& path, const Bytes& content);

bool file_exists(const std::string& path);
bool folder_exists(const std::string& path);

// Paths of the files below a folder, relative to it, with '/' between names, sorted by their bytes. Hidden
// files and folders, and links to folders, are left out. Throws Error when the folder cannot be read and when it
// holds more than 100,000.
std::vector<std::string> list_files(const std::string& folder);

// Throws Error at `asked` unless `name` is a path below the folder that does not lead out of it, neither by ".." nor by
// a link.
void expect_inside(const std::string& folder, std::string_view name, const FilePosition& asked = {});

// A number that changes when the file is written again; 0 when there is no such file.
std::uint64_t file_stamp(const std::string& path);

// "a" and "b/c.png" make "a/b/c.png"; an absolute second part stands alone.
std::string join_path(std::string_view folder, std::string_view name);
// "a/b/c.png" gives "a/b"; "c.png" gives "".
std::string folder_of(std::string_view path);

}  // namespace vole
