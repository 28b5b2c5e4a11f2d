// A spot in a file, as messages name it.
#pragma once

#include <memory>
#include <string>
#include <string_view>

namespace vole {

// Line and column count from 1; 0 means the file as a whole.
struct FilePosition {
  std::shared_ptr<const std::string> file;
  int line = 0;
  int column = 0;

  static FilePosition whole_file(std::string_view path);
};

// "file:line:column", "file", or nothing for an unknown place.
std::string to_text(const FilePosition& where);

}  // namespace vole
