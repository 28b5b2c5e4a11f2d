#include <fmt/core.h>

#include "sheet_file.hpp"

namespace vole {

CutFrames cut_frames(IVec2 picture_size, const FrameCut& cut, const FilePosition& where,
                     std::string_view picture_name, bool allowed) {
  IRect part{{0, 0}, picture_size};
  if (cut.area) {
    if (!(cut.area->value.shared_with(part) == cut.area->value) || cut.area->value.empty())
      throw Error(cut.area->where, fmt::format("this part is not inside \"{}\", which is {} x {}",
                                               picture_name, picture_size.x, picture_size.y));
    part = cut.area->value;
  }
  const auto along = [&](int length, int size, std::string_view side) {
    const int inner = length - 2 * cut.margin + cut.spacing;
    const int step = size + cut.spacing;
    if (inner < step || (inner % step != 0 && !allowed))
      throw Error(
          where,
          fmt::format("frames of {} pixels {} (margin {}, spacing {}) do not fill \"{}\", which is {} {}",
                      size, side, cut.margin, cut.spacing, picture_name, length, side),
          inner < step ? "" : "or allow = { uneven-frames = \"why\" } under [check]");
    return inner / step;
  };
  const int columns = along(part.size.x, cut.size.x, "wide");
  const int rows = along(part.size.y, cut.size.y, "high");
  if (static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows) > most_frames)
    throw Error(where, fmt::format("{} x {} frames are more than the {} that a sheet may have", columns, rows,
                                   most_frames));
  CutFrames frames;
  frames.columns = columns;
  const IVec2 step{cut.size.x + cut.spacing, cut.size.y + cut.spacing};
  const IVec2 start{part.left() + cut.margin, part.top() + cut.margin};
  for (int row = 0; row < rows; ++row)
    for (int column = 0; column < columns; ++column)
      frames.areas.push_back({{start.x + column * step.x, start.y + row * step.y}, cut.size});
  return frames;
}

}  // namespace vole
