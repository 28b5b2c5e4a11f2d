// Writing a .tar.gz that depends on nothing but what goes in: same files, same bytes.
#pragma once

#include <string>
#include <vector>

#include "vole/base/files.hpp"

struct PackedFile {
  std::string path;  // inside the archive
  vole::Bytes content;
  bool runs = false;  // may be started as a program
};

// Sorts the files by path. Throws vole::Error when the archive cannot be written.
void write_tarball(const std::string& path, std::vector<PackedFile> files);
