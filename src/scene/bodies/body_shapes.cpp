#include "vole/scene/bodies/body_shapes.hpp"

#include <algorithm>
#include <utility>

namespace vole {

bool BodyShapes::is_up_to_date(const Shapes* shapes) const {
  if (!shapes) return known_.empty();
  return std::equal(known_.begin(), known_.end(), shapes->list.begin(), shapes->list.end(),
                    [](const ShapeText& a, const Located<ShapeText>& b) { return a.same_form(b.value); }) &&
         std::all_of(sheets_.begin(), sheets_.end(),
                     [](const auto& sheet) { return sheet.first.shared() == sheet.second; });
}

void BodyShapes::follow(const Shapes* shapes, Catalog& catalog) {
  if (is_up_to_date(shapes)) return;
  const BodyShapes before = std::exchange(*this, {});
  if (!shapes) return;
  note(*shapes, catalog);
  try {
    make(*shapes, catalog);
  } catch (const Error&) {
    list_ = before.list_;
    mirrored_ = before.mirrored_;
    written_ = before.written_;
  }
}

void BodyShapes::note(const Shapes& shapes, Catalog& catalog) {
  for (const Located<ShapeText>& shape : shapes.list) {
    known_.push_back(shape.value);
    if (!shape.value.outline) continue;
    try {
      const auto sheet = catalog.get<Sheet>(shape.value.outline->value, shape.value.outline->where);
      sheets_.emplace_back(sheet, sheet.shared());
    } catch (const Error&) {
      // Then it cannot be made either.
    }
  }
}

void BodyShapes::make(const Shapes& shapes, Catalog& catalog) {
  auto list = std::make_shared<ShapeList>();
  auto mirrored = std::make_shared<ShapeList>();
  std::vector<std::uint8_t> written;
  bool any_mirrors = false;
  for (std::size_t i = 0; i < shapes.list.size(); ++i) {
    const bool mirrors = shapes.list[i].value.mirrors;
    any_mirrors = any_mirrors || mirrors;
    for (const Shape& shape : shapes_of(shapes.list[i], catalog)) {
      written.push_back(static_cast<std::uint8_t>(i));
      list->push_back(shape);
      mirrored->push_back(mirrors ? shape.mirrored() : shape);
    }
  }
  // A picture that changed may need more parts than a body has.
  if (list->size() > most_body_shapes) throw Error(FilePosition{}, "too many convex shapes for a body");
  if (list->empty()) return;
  written_ = std::move(written);
  list_ = std::move(list);
  if (any_mirrors) mirrored_ = std::move(mirrored);
}

void BodyShapes::put_uses(const Shapes& shapes, const Switches* switches, CollisionBody& body) const {
  body.sensor_shapes = body.off_shapes = 0;
  for (std::size_t i = 0; i < written_.size(); ++i) {
    if (written_[i] >= shapes.list.size()) continue;  // shapes that stayed, of a list that is another now
    const ShapeText& text = shapes.list[written_[i]].value;
    const BodyUse use = switches && !text.name.empty() ? switches->use_of(text.name, text.use) : text.use;
    if (use == BodyUse::sensor) body.sensor_shapes |= 1u << i;
    if (use == BodyUse::off) body.off_shapes |= 1u << i;
  }
}

}  // namespace vole
