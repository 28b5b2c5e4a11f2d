// The files of `vole new`, as they lie in cli/template, inside the program.
#pragma once

#include <cstddef>
#include <span>
#include <string_view>

struct EmbeddedFile {
  std::string_view path;
  const unsigned char* bytes;
  std::size_t size;
};

std::span<const EmbeddedFile> embedded_files();
