#include "preview_level.hpp"

#include <fmt/format.h>

#include "preview_kinds.hpp"
#include "preview_page.hpp"
#include "vole/draw/raster.hpp"
#include "vole/scene/level_drawing.hpp"
#include "vole/scene/shape_drawing.hpp"
#include "written_things.hpp"

namespace {

using namespace paper;

// What is solid, and the zones.
void draw_solids(DrawList& list, LayerId layer, const vole::Level& level) {
  for (int y = 0; y < level.cells.y; ++y)
    for (int x = 0; x < level.cells.x; ++x)
      if (const vole::CellForm* const form = level.solid.form(x, y))
        vole::draw_cell(list, layer, level.solid, {x, y},
                        form->one_way == vole::OneWay::no ? solid_mark : mark);
  for (const vole::LevelZone& zone : level.zones) {
    list.outline(layer, zone.area, zone_mark);
    vole::draw_text(list, layer, vole::plain_font(), zone.name, zone.area.at + Vec2{2, 2}, {.colour = ink});
  }
}

void draw_body(DrawList& list, LayerId layer, const vole::CollisionBody& body, Vec2 at) {
  if (!body.shapes) return list.outline(layer, body.box.moved_by(at), mark_of(body, 0));
  for (std::uint32_t i = 0; i < body.shapes->size(); ++i)
    vole::draw_shape(list, layer, (*body.shapes)[i], at, mark_of(body, i));
}

void draw_checks(DrawList& list, LayerId layer, const vole::Checks& checks, Vec2 at) {
  for (const auto& item : checks.all) {
    const vole::Check& check = item.value;
    if (check.is_ray())
      vole::draw_line(list, layer, at + *check.from, at + *check.to, check_mark);
    else
      list.outline(layer, check.box(at, false), check_mark);
  }
}

// The way of a platform, from where it begins.
void draw_way(DrawList& list, LayerId layer, const vole::PathMover& mover, Vec2 at) {
  for (std::size_t i = 1; i < mover.points.size(); ++i)
    vole::draw_line(list, layer, at + mover.points[i - 1], at + mover.points[i], ink);
}

}  // namespace

void preview_level(vole::Catalog& catalog, const vole::Level& level, bool with_shapes,
                   const std::string& output) {
  constexpr int longest = 4096;
  if (level.cells.x == 0)
    throw vole::Error(vole::FilePosition::whole_file(level.name), "the level has no rows of tiles to show");
  const IVec2 size = level.size();
  if (size.x > longest || size.y > longest)
    throw vole::Error(vole::FilePosition::whole_file(level.name),
                      fmt::format("the level is {} x {} pixels; a preview is at most {} along a side", size.x,
                                  size.y, longest));
  Image image(size, level.sky);
  DrawList list;
  list.start(size);
  for (const vole::LevelLayer& layer : level.layers)
    vole::draw_level_layer(list, list.add_layer({0, 0}), level, layer);
  const LayerId marks = list.add_layer({0, 0});
  const WrittenThings things(catalog);
  if (with_shapes) draw_solids(list, marks, level);
  for (const vole::LevelPlace& place : level.places) {
    const WrittenThing thing = things.at_place(place);
    if (const auto frame = thing.frame()) list.add(marks, vole::show(*frame, place.at));
    if (with_shapes && thing.way) draw_way(list, marks, *thing.way, place.at);
    if (with_shapes && thing.body) draw_body(list, marks, *thing.body, place.at);
    if (with_shapes && thing.checks) draw_checks(list, marks, *thing.checks, place.at);
    list.fill(marks, {{place.at.x - 2, place.at.y - 1}, {5, 2}}, mark);
    // Among shapes the kinds would hide more than they tell.
    const std::string& label = place.name.empty() && !with_shapes ? place.kind : place.name;
    vole::draw_text(list, marks, vole::plain_font(), label, {place.at.x, place.at.y + 2},
                    {.anchor = vole::Anchor::top});
  }
  list.sort();
  vole::Raster().draw(list, image);
  const int factor = std::max(1, std::min(page_size.x / size.x, page_size.y / size.y));
  vole::write_png(output, vole::enlarged(image, factor));
}
