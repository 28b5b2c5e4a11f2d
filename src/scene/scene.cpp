#include "vole/scene/scene.hpp"

#include <algorithm>

namespace vole {

void Drawing::text(std::string_view font, std::string_view text, Vec2 at, const TextStyle& style) {
  draw_text(list_, layer_, *stage_.catalog().get<Font>(font), text, at, style);
}

void Drawing::frame(std::string_view sheet_name, int index, Vec2 at) {
  const Sheet& sheet = *stage_.catalog().get<Sheet>(sheet_name);
  const auto last = static_cast<int>(sheet.frames.size()) - 1;
  const Frame& frame = sheet.frames[static_cast<std::size_t>(std::clamp(index, 0, last))];
  list_.add(layer_, {.picture = sheet.picture.get(),
                     .from = frame.area,
                     .alpha = frame.alpha,
                     .at = at,
                     .pivot = sheet.pivot});
}

}  // namespace vole
