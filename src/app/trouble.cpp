#include "vole/app/trouble.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cstdio>

#include "vole/asset/font.hpp"
#include "vole/draw/text.hpp"

namespace vole {

bool Trouble::print(const std::vector<Problem>& problems, const std::string& when) {
  bool any_new = false;
  for (const Problem& problem : problems) {
    if (printed_.size() > most_lines || !printed_.insert(to_text(problem)).second) continue;
    any_new = true;
    if (printed_.size() > most_lines) {
      fmt::print(stderr, "more than {} lines: no more are printed until a file changes\n", most_lines);
      continue;
    }
    Problem shown = problem;
    if (!shown.where.file) shown.text.insert(0, when);
    fmt::print(stderr, "{}\n", to_text(shown));
  }
  return any_new;
}

void Trouble::show(const std::vector<Problem>& problems) {
  text_ = problems.empty() ? std::string() : to_text(problems.front());
  // Where the game lies says nothing to its maker, and there is little room.
  if (const std::string start = root_ + "/"; text_.starts_with(start)) text_.erase(0, start.size());
  if (problems.size() > 1) text_ += fmt::format("\nand {} more", problems.size() - 1);
}

void Trouble::draw(DrawList& list) const {
  if (text_.empty()) return;
  const Font& font = plain_font();
  const IVec2 canvas = list.canvas();
  const int width = canvas.x - 8;
  // The game stays to be seen, however much there is to say.
  const int most = std::max(canvas.y / 3, font.line_height() + 4);
  const int height = std::min(measure_text(font, text_, width).y + 4, most);
  const int top = canvas.y - height;
  const LayerId layer = list.add_layer({0, 0});
  list.clip_to({{0, top}, {canvas.x, height}});
  list.fill(layer, {{0, static_cast<float>(top)}, Vec2(canvas)}, {0x6e, 0x27, 0x41, 0xf0});
  draw_text(list, layer, font, text_, {4, static_cast<float>(top + 2)}, {.width = width});
}

void draw_progress(DrawList& list, std::size_t done, std::size_t total) {
  constexpr Colour rim{0x8d, 0x93, 0xa6, 0xff}, bar{0xed, 0xa6, 0x3f, 0xff};
  const LayerId layer = list.add_layer({0, 0});
  const Vec2 canvas(list.canvas());
  const Rect box{{canvas.x / 4, canvas.y / 2 - 4}, {canvas.x / 2, 8}};
  const float share = static_cast<float>(done) / static_cast<float>(std::max<std::size_t>(total, 1));
  list.outline(layer, box, rim);
  list.fill(layer, {box.at + Vec2{2, 2}, {(box.size.x - 4) * share, box.size.y - 4}}, bar);
}

}  // namespace vole
