#include "grid.hpp"

#include <fmt/core.h>

#include <array>
#include <sstream>
#include <utility>

namespace paint {

using vole::Error;
using vole::FilePosition;

namespace {

constexpr std::array<std::pair<char, std::string_view>, 24> palette{
    {{'K', "#1b1a26"}, {'N', "#2d2b45"}, {'M', "#4a4a6a"}, {'S', "#8d93a6"}, {'C', "#e8dfc8"},
     {'W', "#f7f3e3"}, {'k', "#2b1d1a"}, {'b', "#4a3026"}, {'d', "#7a4a33"}, {'t', "#c79a5b"},
     {'y', "#e6c77d"}, {'g', "#24352a"}, {'h', "#3f5a36"}, {'i', "#6d8a3f"}, {'j', "#a9bb5c"},
     {'u', "#1e3a4c"}, {'v', "#2f6b7e"}, {'w', "#7fb8b0"}, {'m', "#6e2741"}, {'r', "#b3485a"},
     {'o', "#d9724a"}, {'O', "#eda63f"}, {'p', "#7a5c8e"}, {'P', "#b189b4"}}};

// A rim of one pixel round everything that is painted.
void add_outline(Image& image, Colour colour) {
  const Image before = image;
  const auto painted = [&](int x, int y) { return before.area().contains({x, y}) && before.at(x, y).a != 0; };
  for (int y = 0; y < image.size().y; ++y)
    for (int x = 0; x < image.size().x; ++x) {
      bool near = false;
      for (int dy = -1; dy <= 1; ++dy)
        for (int dx = -1; dx <= 1; ++dx) near = near || painted(x + dx, y + dy);
      if (near && !painted(x, y)) image.at(x, y) = colour;
    }
}

}  // namespace

Colour ink(char letter) {
  if (letter == '.') return vole::clear;
  for (const auto& [key, text] : palette)
    if (key == letter) return *vole::parse_colour(text);
  throw Error(FilePosition{}, fmt::format("the palette has no '{}'", letter));
}

Grid read_grid(const std::string& path) {
  Grid grid;
  std::istringstream lines(vole::read_text(path, 1 << 20));
  bool in_cell = false;
  for (std::string line; std::getline(lines, line);) {
    if (line.starts_with('#')) continue;
    if (line.starts_with("columns ")) {
      grid.columns = std::stoi(line.substr(8));
    } else if (line.starts_with("outline ")) {
      grid.outline = line.at(8);
    } else if (line.empty()) {
      in_cell = false;
    } else {
      if (!in_cell) grid.cells.emplace_back();
      in_cell = true;
      grid.cells.back().push_back(line);
      if (line.size() != grid.cells.front().front().size())
        throw Error(FilePosition::whole_file(path),
                    fmt::format("cell {} has a row of {}: {}", grid.cells.size(), line.size(), line));
    }
  }
  for (const auto& cell : grid.cells)
    if (cell.size() != grid.cells.front().size())
      throw Error(FilePosition::whole_file(path),
                  fmt::format("a cell has {} rows, the first {}", cell.size(), grid.cells.front().size()));
  return grid;
}

Image paint_grid(const Grid& grid) {
  const auto width = static_cast<int>(grid.cells.front().front().size());
  const auto height = static_cast<int>(grid.cells.front().size());
  const int count = static_cast<int>(grid.cells.size());
  Image image({width * grid.columns, height * ((count + grid.columns - 1) / grid.columns)});
  for (int i = 0; i < count; ++i)
    for (int y = 0; y < height; ++y)
      for (int x = 0; x < width; ++x)
        image.at(i % grid.columns * width + x, i / grid.columns * height + y) =
            ink(grid.cells[static_cast<std::size_t>(i)][static_cast<std::size_t>(y)]
                          [static_cast<std::size_t>(x)]);
  if (grid.outline != '.') add_outline(image, ink(grid.outline));
  return image;
}

}  // namespace paint
