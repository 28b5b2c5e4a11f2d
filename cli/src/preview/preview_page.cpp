#include "preview_page.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <iterator>

#include "vole/base/output_files.hpp"
#include "vole/draw/box.hpp"
#include "vole/draw/mark_colours.hpp"
#include "vole/draw/raster.hpp"
#include "vole/scene/pictures/shape_drawing.hpp"

namespace paper {
namespace {

vole::Rect to_rect(const vole::IRect& box) {
  return {Vec2(box.at), Vec2(box.size)};
}

// The page up to where it ends, with a margin: what is below and to the right of the last thing on it shows nothing.
Image without_empty_rest(const Image& page) {
  const IVec2 size = page.size();
  IVec2 end{0, 0};
  for (int y = 0; y < size.y; ++y)
    for (int x = 0; x < size.x; ++x)
      if (page.at(x, y) != ground) end = {std::max(end.x, x + 1), y + 1};
  const IVec2 kept{std::min(end.x + margin, size.x), std::min(end.y + margin, size.y)};
  Image rest(kept);
  for (int y = 0; y < kept.y; ++y) std::copy_n(page.row(y), kept.x, rest.row(y));
  return rest;
}

}  // namespace

Page::Page(IVec2 size) : image_(size, ground) {
  list_.start(size);
  layer_ = list_.add_layer({0, 0});
}

void Page::text(IVec2 at, std::string_view text, Colour colour) {
  this->text(at, text, {.colour = colour, .scale = 2});
}

void Page::text(IVec2 at, std::string_view text, const vole::TextStyle& style) {
  this->text(vole::plain_font(), at, text, style);
}

void Page::text(const vole::Font& font, IVec2 at, std::string_view text, const vole::TextStyle& style) {
  vole::draw_text(list_, layer_, font, text, Vec2(at), style);
}

void Page::legend(IVec2 at, const Legend& legend) {
  for (const auto& [name, colour] : legend) {
    text(at, name, colour);
    at.x += 2 * vole::plain_font().measure(name).x + 20;
  }
}

void Page::fill(const vole::IRect& box, Colour colour) {
  list_.fill(layer_, to_rect(box), colour);
}

void Page::outline(const vole::IRect& box, Colour colour) {
  list_.outline(layer_, to_rect(box), colour);
}

namespace {

vole::Shape enlarged(const vole::Shape& shape, int scale) {
  const auto factor = static_cast<float>(scale);
  std::vector<Vec2> corners(shape.corners().begin(), shape.corners().end());
  for (Vec2& corner : corners) corner = corner * factor;
  const float radius = shape.radius() * factor;
  if (radius == 0) return vole::Shape::polygon(corners);
  return corners.size() == 1 ? vole::Shape::circle(corners[0], radius)
                             : vole::Shape::capsule(corners[0], corners[1], radius);
}

}  // namespace

void Page::shape(const vole::Shape& shape, IVec2 at, int scale, Colour colour) {
  const vole::Shape large = enlarged(shape, scale);
  for (const Vec2 by : {Vec2{0, 0}, Vec2{1, 0}, Vec2{0, 1}, Vec2{1, 1}})
    vole::draw_shape(list_, layer_, large, Vec2(at) + by, colour);
}

void Page::cross(IVec2 at, int arm, Colour colour) {
  fill({{at.x - arm, at.y - 1}, {2 * arm + 1, 2}}, colour);
  fill({{at.x - 1, at.y - arm}, {2, 2 * arm + 1}}, colour);
}

void Page::squares(const vole::IRect& box, int size) {
  const vole::IRect seen = box.shared_with({{0, 0}, image_.size()});
  if (seen.empty()) return;
  fill(seen, dark_square);
  const int first = (seen.left() - box.left()) / size, first_row = (seen.top() - box.top()) / size;
  for (int y = first_row; box.top() + y * size < seen.bottom(); ++y)
    for (int x = first + (first + y) % 2; box.left() + x * size < seen.right(); x += 2)
      fill(vole::IRect{box.at + IVec2{x, y} * size, {size, size}}.shared_with(seen), light_square);
}

void Page::picture(const vole::Picture& picture, IVec2 at, float scale) {
  vole::PictureItem item = vole::show(vole::frame_of(picture, picture.area()), Vec2(at));
  item.scale = {scale, scale};
  list_.add(layer_, item);
}

void Page::frame(const vole::Frame& frame, IVec2 at, int scale) {
  vole::Frame from_corner = frame;
  from_corner.pivot = {0, 0};
  posed(from_corner, at, scale, {});
}

void Page::posed(const vole::Frame& frame, IVec2 at, int scale, const vole::TrackPose& pose) {
  const auto enlarged = static_cast<float>(scale);
  vole::PictureItem item = vole::show(frame, Vec2(at) + pose.offset * enlarged);
  item.scale = pose.scale * enlarged;
  item.rotation = pose.rotation;
  item.tint = pose.tinted(vole::white);
  item.opacity = std::clamp(pose.opacity * pose.alpha, 0.0f, 1.0f);
  list_.add(layer_, item);
}

void Page::box(const vole::Sheet& sheet, IVec2 at, IVec2 size, int scale) {
  DrawList list;
  list.start(size);
  vole::draw_box(list, list.add_layer({0, 0}), sheet, {{0, 0}, Vec2(size)});
  list.sort();
  Image image(size, ground);
  vole::Raster().draw(list, image);
  pictures_.emplace_back(image);
  picture(pictures_.back(), at, static_cast<float>(scale));
}

const Image& Page::finish() {
  list_.sort();
  vole::Raster().draw(list_, image_);
  return image_;
}

void Page::save(const std::string& path) {
  save_preview(path, without_empty_rest(finish()));
}

Image with_legend(const Image& picture, const Legend& legend) {
  constexpr int scale = 2, gap = 20, line = 24;
  std::vector<IVec2> spots;
  IVec2 at{8, 0};
  for (const auto& [text, colour] : legend) {
    const int width = scale * vole::plain_font().measure(text).x;
    if (at.x > 8 && at.x + width > picture.size().x) at = {8, at.y + line};
    spots.push_back(at);
    at.x += width + gap;
  }
  const IVec2 size{picture.size().x, picture.size().y + at.y + line + 8};
  Image image(size, ground);
  for (int y = 0; y < picture.size().y; ++y) std::copy_n(picture.row(y), size.x, image.row(y));
  DrawList list;
  list.start(size);
  const LayerId layer = list.add_layer({0, 0});
  for (std::size_t i = 0; i < legend.size(); ++i)
    vole::draw_text(list, layer, vole::plain_font(), legend[i].first,
                    Vec2(spots[i] + IVec2{0, picture.size().y + 8}),
                    {.colour = legend[i].second, .scale = scale});
  list.sort();
  vole::Raster().draw(list, image);
  return image;
}

void save_preview(const std::string& path, const Image& image) {
  vole::write_whole(path, vole::marked_as_output(vole::encode_png(image)));
}

IVec2 Flow::next(int width) {
  if (at_.x + width > right_ && at_.x > left_) at_ = {left_, at_.y + step_.y};
  const IVec2 here = at_;
  at_.x += width;
  return here;
}

int fitting_scale(IVec2 cell, int count, IVec2 room, IVec2 extra) {
  for (int scale = 16; scale > 1; --scale) {
    const int columns = room.x / (cell.x * scale + extra.x);
    const int rows = room.y / (cell.y * scale + extra.y);
    if (columns * rows >= count) return scale;
  }
  return 1;
}

Colour point_mark(std::size_t index) {
  static constexpr Colour marks[] = {{0x7f, 0xb8, 0xb0, 0xff},
                                     {0xb1, 0x89, 0xb4, 0xff},
                                     {0xa9, 0xbb, 0x5c, 0xff},
                                     {0xd9, 0x72, 0x4a, 0xff},
                                     {0xe8, 0xdf, 0xc8, 0xff}};
  return marks[index % std::size(marks)];
}

void draw_frame(Page& page, const vole::Sheet& sheet, int index, IVec2 at, int scale,
                const vole::Clip* clip) {
  const vole::Frame frame = sheet.posed(index, clip);
  page.squares({at, frame.size * scale}, 4 * std::max(scale / 2, 1));
  page.frame(frame, at, scale);
  if (sheet.stand_in)
    page.text(at + frame.size * scale / 2, sheet.name,
              {.anchor = vole::Anchor::centre, .scale = std::clamp(scale / 4, 1, 2)});
  page.cross(at + frame.pivot * scale, 5, vole::mark_colours::position);
  for (std::size_t i = 0; i < sheet.points.size(); ++i)
    page.cross(at + sheet.points[i].at(index) * scale + IVec2{scale / 2, scale / 2}, 3, point_mark(i));
}

void draw_key(Page& page, const vole::Sheet& sheet, IVec2 at) {
  const auto entry = [&](const std::string& name, Colour colour) {
    page.cross(at + IVec2{6, 8}, 5, colour);
    page.text(at + IVec2{18, 0}, name, colour);
    at.x += 30 + 2 * vole::plain_font().measure(name).x;
  };
  entry("pivot", vole::mark_colours::position);
  for (std::size_t i = 0; i < sheet.points.size(); ++i) entry(sheet.points[i].name, point_mark(i));
}

std::string clip_line(const vole::Clip& clip) {
  std::string line = clip.name + " (";
  line += clip.ends.empty() ? fmt::format("{} fps", clip.millifps / 1000.0)
                            : fmt::format("{:.2f} s", static_cast<double>(clip.length()) / 1e6);
  if (!clip.loop) line += clip.times == 1 ? ", once" : fmt::format(", {} times", clip.times);
  return line + ")";
}

}  // namespace paper
