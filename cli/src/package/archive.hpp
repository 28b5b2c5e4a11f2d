// Writing archives that depend on nothing but what goes in: same files, same bytes.
#pragma once

#include <string>
#include <vector>

#include "vole/base/files.hpp"

struct PackedFile {
  std::string path;  // inside the archive
  vole::Bytes content;
  bool runs = false;  // may be started as a program
};

// All sort the files by path, and throw vole::Error when the archive cannot be written.
void write_tarball(const std::string& path, std::vector<PackedFile> files);  // .tar.gz
void write_zip(const std::string& path, std::vector<PackedFile> files);
// Whether it is an archive that holds what every package of ours holds: the licence of Vole.
bool is_package(const std::string& path);
// POSIX "ustar", not compressed. `path`: for messages.
vole::Bytes tar_of(const std::string& path, std::vector<PackedFile> files);

// How many bytes are left of these when a server packs them with gzip.
std::size_t gzipped_size(const vole::Bytes& bytes);
