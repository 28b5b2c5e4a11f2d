// Paints text grids:  paint_grids FOLDER_OF_GRIDS FOLDER_FOR_PNGS
#include <fmt/core.h>

#include <cstdio>

#include "grid.hpp"

int main(int argc, char** argv) {
  if (argc != 3) {
    fmt::print(stderr, "usage: paint_grids FOLDER_OF_GRIDS FOLDER_FOR_PNGS\n");
    return 2;
  }
  try {
    for (const std::string& file : vole::list_files(argv[1])) {
      if (!file.ends_with(".txt")) continue;
      const std::string picture = file.substr(0, file.size() - 4) + ".png";
      vole::write_png(vole::join_path(argv[2], picture),
                      paint::paint_grid(paint::read_grid(vole::join_path(argv[1], file))));
    }
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 1;
  }
  return 0;
}
