// Pictures kept as text: a letter for each pixel, so that they can be changed by hand and compared line by
// line.
//
// A file has a line `columns N`, perhaps a line `outline LETTER` (a rim round all that is painted), and then
// cells: blocks of equal size with an empty line between them, laid out left to right. '.' is transparent; a
// line that begins with '#' is a remark.
#pragma once

#include <string>
#include <vector>

#include "vole/asset/image.hpp"

namespace paint {

using vole::Colour;
using vole::Image;

struct Grid {
  int columns = 1;
  char outline = '.';
  std::vector<std::vector<std::string>> cells;
};

// The colour of a letter in the example games' palette. Throws vole::Error for a letter it has not.
Colour ink(char letter);

Grid read_grid(const std::string& path);
Image paint_grid(const Grid& grid);

}  // namespace paint
