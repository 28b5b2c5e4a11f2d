#include "vole/draw/draw_list.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "vole/asset/tile_cell.hpp"
#include "vole/base/block_grid.hpp"

namespace vole {
namespace {

float finite_within(float value, float least, float most, float otherwise) {
  return std::isfinite(value) ? std::clamp(value, least, most) : otherwise;
}

float usable_scale(float scale) {
  return finite_within(scale, 1.0f / 64, 1024.0f, 1.0f);
}

// Sorting needs an order between any two depths, which "not a number" has not.
float usable_depth(float depth) {
  return depth == depth ? depth : 0.0f;
}

bool shares_run(const DrawItem& a, const DrawItem& b) {
  return a.type == b.type && a.layer == b.layer && a.picture.picture == b.picture.picture &&
         a.picture.blend == b.picture.blend;
}

}  // namespace

int to_pixel(float position) {
  constexpr float most = 16'000'000;  // up to there a float holds each whole number
  return static_cast<int>(std::floor(finite_within(position, -most, most, 0.0f) + 0.5f));
}

PictureItem show(const Frame& frame, Vec2 at) {
  PictureItem item;
  item.picture = frame.area.empty() ? nullptr : frame.picture;
  item.from = frame.area;
  item.alpha = frame.alpha;
  item.at = at;
  // Seen from the part that is left of the frame; holds for what is mirrored and turned as well, which go round it.
  item.pivot = frame.pivot - frame.offset;
  return item;
}

void DrawList::start(IVec2 canvas) {
  canvas_ = canvas;
  views_.clear();
  views_.push_back({{{0, 0}, canvas}, 1, canvas, {0, 0}, clear});
  view_ = 0;
  layers_.clear();
  items_.clear();
  runs_.clear();
  clip_to_canvas();
}

void DrawList::start_view(const View& view) {
  view_ = views_.size();
  views_.push_back(view);
}

void DrawList::end_view() {
  view_ = 0;
}

LayerId DrawList::add_layer(IVec2 corner) {
  layers_.push_back({corner, view_});
  return static_cast<LayerId>(layers_.size() - 1);
}

void DrawList::clip_to(const IRect& part) {
  clip_ = part;
}

IRect DrawList::clip(LayerId layer) const {
  const IRect all{{0, 0}, size(layer)};
  return clip_ ? clip_->shared_with(all) : all;
}

DrawItem& DrawList::append(DrawItem::Type type, LayerId layer) {
  DrawItem& item = items_.emplace_back();
  item.type = type;
  item.layer = layer;
  item.order = static_cast<std::uint32_t>(items_.size());
  item.clip = clip(layer);
  return item;
}

IRect DrawList::on_canvas(LayerId layer, const Rect& box) const {
  const IVec2 corner = this->corner(layer);
  const IVec2 start{to_pixel(box.left()), to_pixel(box.top())};
  const IVec2 end{to_pixel(box.right()), to_pixel(box.bottom())};
  return {{start.x - corner.x, start.y - corner.y},
          {std::max(end.x - start.x, 0), std::max(end.y - start.y, 0)}};
}

void DrawList::add(LayerId layer, const PictureItem& item) {
  const IVec2 corner = this->corner(layer);
  if (!item.picture || !(item.opacity > 0) || item.tint.a == 0) return;  // so written for "not a number" too
  const IVec2 at{to_pixel(item.at.x) - corner.x, to_pixel(item.at.y) - corner.y};
  const Vec2 scale{usable_scale(item.scale.x), usable_scale(item.scale.y)};
  // Far from the canvas whatever the rotation: nothing to draw.
  const float reach = static_cast<float>(std::max(item.from.size.x, item.from.size.y) +
                                         std::max(std::abs(item.pivot.x), std::abs(item.pivot.y))) *
                      std::max(scale.x, scale.y) * 2.0f;
  const auto off = [reach](int position, int length) {
    return static_cast<float>(position) + reach < 0 ||
           static_cast<float>(position) - reach > static_cast<float>(length);
  };
  const IVec2 shown = size(layer);
  if (off(at.x, shown.x) || off(at.y, shown.y)) return;
  DrawItem& added = append(DrawItem::Type::picture, layer);
  added.picture = item;
  added.picture.at = {static_cast<float>(at.x), static_cast<float>(at.y)};
  added.picture.scale = scale;
  added.picture.rotation = finite_within(item.rotation, -1e6f, 1e6f, 0.0f);
  added.picture.opacity = std::min(item.opacity, 1.0f);
  added.picture.depth = usable_depth(item.depth);
}

void DrawList::add(LayerId layer, const TilesItem& tiles) {
  if (!tiles.cells || tiles.cells->empty() || !tiles.frames || !(tiles.opacity > 0) || tiles.tint.a == 0)
    return;
  append(DrawItem::Type::tiles, layer).tiles = tiles;
}

void DrawList::add(LayerId layer, const Lighting& lighting) {
  DrawItem& item = append(DrawItem::Type::lighting, layer);
  item.lighting = &lighting;
  item.picture.depth = std::numeric_limits<float>::infinity();
}

void DrawList::fill(LayerId layer, const Rect& box, Colour colour, float depth) {
  if (colour.a == 0) return;
  const IRect on = on_canvas(layer, box);
  DrawItem& item = append(DrawItem::Type::fill, layer);
  item.box = on;
  item.picture.tint = colour;
  item.picture.depth = usable_depth(depth);
}

void DrawList::outline(LayerId layer, const Rect& box, Colour colour, float depth) {
  fill(layer, box, colour, depth);
  if (colour.a != 0) items_.back().type = DrawItem::Type::outline;
}

void DrawList::blur(LayerId layer, const IRect& box, int pixels) {
  DrawItem& item = append(DrawItem::Type::blur, layer);
  item.box = box;
  item.blur = pixels;
}

void DrawList::sort() {
  // The order makes each key unique, so the result does not depend on the sort being stable.
  std::sort(items_.begin(), items_.end(), [](const DrawItem& a, const DrawItem& b) {
    if (a.layer != b.layer) return a.layer < b.layer;
    if (a.picture.depth != b.picture.depth) return a.picture.depth < b.picture.depth;
    return a.order < b.order;
  });
  runs_.clear();
  for (std::size_t i = 0; i < items_.size(); ++i) {
    if (i == 0 || !shares_run(items_[i - 1], items_[i])) runs_.push_back({i, 0});
    ++runs_.back().count;
  }
}

}  // namespace vole
