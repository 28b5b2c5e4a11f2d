// Files of cli/ inside the program.
#pragma once

#include <cstddef>
#include <span>
#include <string_view>

struct EmbeddedFile {
  std::string_view path;
  const unsigned char* bytes;
  std::size_t size;
};

// What `vole new` writes, as it lies in cli/template.
std::span<const EmbeddedFile> embedded_template();
// The page of a game, as it lies in hosts/web/page.
std::span<const EmbeddedFile> embedded_page();
