#include "vole/draw/box.hpp"

#include <algorithm>
#include <array>

#include "vole/asset/sheet.hpp"

namespace vole {
namespace {

// One of the three parts of a side: from where in the frame, to where in the box.
struct Span {
  int from = 0, from_size = 0;
  int to = 0, to_size = 0;
};

std::array<Span, 3> spans(int frame_size, int near, int far, int box_size) {
  near = std::min(near, frame_size);
  far = std::min(far, frame_size - near);
  // Too small for both borders: they share what there is.
  const int near_shown =
      std::min(near, box_size > near + far ? near : box_size * near / std::max(near + far, 1));
  const int far_shown = std::min(far, box_size - near_shown);
  return {{{0, near_shown, 0, near_shown},
           {near, frame_size - near - far, near_shown, std::max(box_size - near_shown - far_shown, 0)},
           {frame_size - far_shown, far_shown, box_size - far_shown, far_shown}}};
}

class BoxPainter {
 public:
  BoxPainter(DrawList& list, LayerId layer, const Frame& frame, IVec2 corner, const BoxStyle& style)
      : list_(list), layer_(layer), frame_(frame), corner_(corner), style_(style) {}

  void piece(const Span& across, const Span& down, bool stretch) const {
    if (across.from_size <= 0 || down.from_size <= 0) return;
    if (stretch)
      stretched(across, down);
    else
      repeated(across, down);
  }

 private:
  void repeated(const Span& across, const Span& down) const {
    for (int y = 0; y < down.to_size; y += down.from_size)
      for (int x = 0; x < across.to_size; x += across.from_size)
        add({{across.from, down.from},
             {std::min(across.from_size, across.to_size - x), std::min(down.from_size, down.to_size - y)}},
            {across.to + x, down.to + y}, {1, 1});
  }

  // A little larger than it must be, and cut off: what is stretched far is not a pixel short at its end.
  void stretched(const Span& across, const Span& down) const {
    if (across.to_size <= 0 || down.to_size <= 0) return;
    const std::optional<IRect> before = list_.clip();
    const IVec2 on_canvas = corner_ - list_.corner(layer_);
    list_.clip_to(IRect{on_canvas + IVec2{across.to, down.to}, {across.to_size, down.to_size}}.shared_with(
        list_.clip(layer_)));
    const auto scale = [](const Span& span) {
      return static_cast<float>(span.to_size) / static_cast<float>(span.from_size) * 1.0005f;
    };
    add({{across.from, down.from}, {across.from_size, down.from_size}}, {across.to, down.to},
        {scale(across), scale(down)});
    list_.set_clip(before);
  }

  // A part of the whole frame, of which the borders may have been cut away.
  void add(const IRect& part, IVec2 to, Vec2 scale) const {
    const IRect there = part.shared_with({frame_.offset, frame_.area.size});
    if (there.empty()) return;
    PictureItem item;
    item.picture = frame_.picture;
    item.from = {frame_.area.at + there.at - frame_.offset, there.size};
    item.alpha = frame_.alpha;
    item.at = Vec2(corner_ + to);
    item.pivot = part.at - there.at;
    item.scale = scale;
    item.tint = style_.tint;
    item.opacity = style_.opacity;
    item.depth = style_.depth;
    list_.add(layer_, item);
  }

  DrawList& list_;
  LayerId layer_;
  const Frame& frame_;
  IVec2 corner_;
  const BoxStyle& style_;
};

}  // namespace

void draw_box(DrawList& list, LayerId layer, const Sheet& sheet, const Rect& box, const BoxStyle& style) {
  const auto last = static_cast<int>(sheet.frames.size()) - 1;
  const Frame& frame = sheet.frames.at(static_cast<std::size_t>(std::clamp(style.frame, 0, last)));
  const IVec2 corner{to_pixel(box.left()), to_pixel(box.top())};
  const IVec2 size{to_pixel(box.right()) - corner.x, to_pixel(box.bottom()) - corner.y};
  const Borders& borders = sheet.borders;
  const BoxPainter painter(list, layer, frame, corner, style);
  const auto columns = spans(frame.size.x, borders.left, borders.right, size.x);
  const auto rows = spans(frame.size.y, borders.top, borders.bottom, size.y);
  for (std::size_t row = 0; row < 3; ++row)
    for (std::size_t column = 0; column < 3; ++column)
      painter.piece(columns[column], rows[row], borders.stretch && (row == 1 || column == 1));
}

}  // namespace vole
