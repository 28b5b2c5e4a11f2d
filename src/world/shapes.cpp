#include "vole/world/shapes.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/catalog.hpp"
#include "vole/asset/outline.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/names.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/physics/shape.hpp"
#include "vole/world/component_hooks.hpp"

namespace vole {
namespace {

// What the description in shapes.hpp says without including where it is from.
static_assert(Shape::most_corners == 16 && least_outline_error == 0.25f);

// Of all but an outline.
Shape plain_shape(const ShapeText& text) {
  const bool at = text.at.has_value(), area = text.area.has_value(), radius = text.radius.has_value();
  const bool ends = text.from || text.to, corners = text.corners.has_value();
  if (corners && !at && !area && !radius && !ends) return Shape::polygon(*text.corners);
  if (text.from && text.to && radius && !at && !area && !corners)
    return Shape::capsule(*text.from, *text.to, *text.radius);
  if (area && !at && !radius && !ends && !corners) {
    if (text.area->size.x < 0 || text.area->size.y < 0)
      throw Error(FilePosition{}, "this area has no size", "it is written [x, y, width, height]");
    return Shape::box(*text.area);
  }
  if (at && radius && !area && !ends && !corners) return Shape::circle(*text.at, *text.radius);
  throw Error(FilePosition{}, "this is no shape",
              "a box has an area, a circle at and radius, a capsule from, to and radius, a polygon "
              "corners, an outline a sheet's name");
}

// By its name, or by its number where frames have none.
int frame_named(const Sheet& sheet, const Located<std::string>& written) {
  if (!sheet.frame_names.empty()) return sheet.frame(written.value, written.where);
  const std::string& text = written.value;
  const bool is_number = text.size() < 7 && text.find_first_not_of("0123456789") == std::string::npos;
  const int number = is_number ? std::stoi(text) : -1;
  if (number >= 0 && number < static_cast<int>(sheet.frames.size())) return number;
  throw Error(written.where, fmt::format("no frame \"{}\" in \"{}\"", text, sheet.name),
              fmt::format("it has {}, counted from 0", sheet.frames.size()));
}

// Throws Error, with a place only where a name is wrong.
ShapeList outline_shapes(const ShapeText& text, Catalog& catalog) {
  if (text.at || text.area || text.from || text.to || text.radius || text.corners)
    throw Error(FilePosition{}, "an outline has no other form besides");
  if (!text.frame.value.empty() && !text.clip.value.empty())
    throw Error(text.clip.where, "an outline is of a \"frame\" or of a \"clip\", not of both");
  const Asset<Sheet> sheet = catalog.get<Sheet>(text.outline->value, text.outline->where);
  // Shown in place of one that cannot be had, it has no clips and no frames by name.
  const bool by_clip = !text.clip.value.empty() && !sheet->missing;
  const Clip* const clip = by_clip ? &sheet->clip(text.clip.value, text.clip.where) : nullptr;
  const bool by_frame = !text.frame.value.empty() && !sheet->missing;
  const int frame = clip ? clip->frames[0] : by_frame ? frame_named(*sheet, text.frame) : 0;
  const Vec2 pivot(sheet->posed(frame, clip).pivot);
  ShapeList shapes;
  for (std::vector<Vec2> corners : sheet->outline(frame, text.error)) {
    for (Vec2& corner : corners) corner -= pivot;
    shapes.push_back(Shape::polygon(corners));
  }
  return shapes;
}

}  // namespace

bool ShapeText::same_form(const ShapeText& other) const {
  const auto sheet = [](const ShapeText& text) {
    return text.outline ? std::string_view(text.outline->value) : std::string_view();
  };
  return at == other.at && area == other.area && from == other.from && to == other.to &&
         radius == other.radius && corners == other.corners && sheet(*this) == sheet(other) &&
         frame.value == other.frame.value && clip.value == other.clip.value && error == other.error &&
         mirrors == other.mirrors;
}

std::size_t Shapes::find(std::string_view name) const {
  std::size_t place = 0;
  while (place < list.size() && (name.empty() || list[place].value.name != name)) ++place;
  return place;
}

std::vector<std::string> Shapes::names() const {
  std::vector<std::string> names;
  for (const Located<ShapeText>& shape : list)
    if (!shape.value.name.empty()) names.push_back(shape.value.name);
  return names;
}

ShapeText& Shapes::named(std::string_view name) {
  if (const std::size_t place = find(name); place < list.size()) return list[place].value;
  throw Error(FilePosition{}, fmt::format("no shape \"{}\"", name), did_you_mean(name, names()));
}

ShapeList shapes_of(const Located<ShapeText>& shape, Catalog& catalog) {
  try {
    if (shape.value.outline) return outline_shapes(shape.value, catalog);
    return {plain_shape(shape.value)};
  } catch (const Error& error) {
    std::vector<Problem> problems = error.problems();
    for (Problem& problem : problems)
      if (!problem.where.file) problem.where = shape.where;
    throw Error(problems);
  }
}

ShapeList shapes_of(const Shapes& shapes, Catalog& catalog) {
  ShapeList all;
  for (const Located<ShapeText>& shape : shapes.list) {
    const ShapeList more = shapes_of(shape, catalog);
    all.insert(all.end(), more.begin(), more.end());
    if (all.size() > most_body_shapes)
      throw Error(shape.where,
                  fmt::format("these are {} convex shapes or more, and a body has at most {}", all.size(),
                              most_body_shapes),
                  shape.value.outline ? "a larger \"error\" makes an outline simpler" : "");
  }
  return all;
}

void need(Shapes& shapes, const OfKind& kind) {
  kind.report().gather([&] { shapes_of(shapes, kind.catalog()); });
}

}  // namespace vole
