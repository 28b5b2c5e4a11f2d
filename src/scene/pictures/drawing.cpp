#include "vole/scene/pictures/drawing.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/catalog.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/scene/known_saves.hpp"

namespace vole {
namespace {

// The look of `style`, of this frame at this place.
PictureItem styled(const Frame& frame, Vec2 at, const PictureItem& style) {
  const PictureItem shown = show(frame, at);
  PictureItem item = style;
  item.picture = shown.picture;
  item.from = shown.from;
  item.alpha = shown.alpha;
  item.at = shown.at;
  item.pivot = shown.pivot;
  return item;
}

}  // namespace

Drawing Drawing::on(std::string_view level_layer) const {
  if (!stage_.has_level())
    throw Error(FilePosition{}, fmt::format("no layer \"{}\": no level is loaded", level_layer));
  return {stage_, list_, static_cast<LayerId>(stage_.level().layer(level_layer)), share_};
}

const Sheet& Drawing::sheet(std::string_view name) const {
  return *stage_.catalog().get<Sheet>(name);
}

void Drawing::text(std::string_view font, std::string_view text, Vec2 at, const TextStyle& style) {
  draw_text(list_, layer_, stage_.font(font), text, at, style);
}

void Drawing::label(const Label& label, Vec2 at) {
  label.draw(list_, layer_, stage_.catalog().get<Font>(label.font()), at);
}

void Drawing::frame(std::string_view sheet_name, int index, Vec2 at, const PictureItem& style) {
  const Sheet& from = sheet(sheet_name);
  const auto last = static_cast<int>(from.frames.size()) - 1;
  list_.add(layer_, styled(from.posed(std::clamp(index, 0, last)), at, style));
}

void Drawing::frame(std::string_view sheet_name, std::string_view name, Vec2 at, const PictureItem& style) {
  const Sheet& from = sheet(sheet_name);
  list_.add(layer_, styled(from.posed(from.frame(name)), at, style));
}

void Drawing::saved_picture(std::string_view save, Vec2 at) {
  const Picture* const picture = stage_.known_saves().picture(save);
  if (picture) list_.add(layer_, show(frame_of(*picture, picture->area()), at));
}

void Drawing::box(std::string_view sheet_name, const Rect& box, const BoxStyle& style) {
  draw_box(list_, layer_, sheet(sheet_name), box, style);
}

void Drawing::repeated(std::string_view sheet_name, Vec2 at, Repeat repeat) {
  draw_repeated(list_, layer_, sheet(sheet_name).posed(0), at, repeat);
}

void Drawing::covering(std::string_view sheet_name) {
  draw_covering(list_, layer_, sheet(sheet_name).posed(0));
}

}  // namespace vole
