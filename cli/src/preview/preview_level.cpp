#include "preview_level.hpp"

#include <fmt/core.h>

#include "preview_kinds.hpp"
#include "preview_page.hpp"
#include "vole/draw/mark_colours.hpp"
#include "vole/draw/raster.hpp"
#include "vole/scene/pictures/level_drawing.hpp"
#include "vole/scene/pictures/shape_drawing.hpp"
#include "written_things.hpp"

namespace {

using namespace paper;

// What is solid.
void draw_solids(DrawList& list, LayerId layer, const vole::Level& level) {
  for (int y = 0; y < level.cells.y; ++y)
    for (int x = 0; x < level.cells.x; ++x)
      if (const vole::CellForm* const form = level.solid.form(x, y))
        vole::draw_cell(
            list, layer, level.solid, {x, y},
            form->one_way == vole::OneWay::no ? vole::mark_colours::solid_tile : vole::mark_colours::one_way);
}

void draw_zones(DrawList& list, LayerId layer, const vole::Level& level) {
  for (const vole::LevelZone& zone : level.zones) {
    if (zone.corners.empty()) list.outline(layer, zone.area, vole::mark_colours::zone);
    for (std::size_t i = 0; i < zone.corners.size(); ++i)
      vole::draw_line(list, layer, zone.corners[i], zone.corners[(i + 1) % zone.corners.size()],
                      vole::mark_colours::zone);
    vole::draw_text(list, layer, vole::plain_font(), zone.name, zone.area.at + Vec2{2, 2}, {.colour = ink});
  }
  for (const vole::LevelPath& path : level.paths) {
    for (std::size_t i = 1; i < path.line().size(); ++i)
      vole::draw_line(list, layer, path.line()[i - 1], path.line()[i], vole::mark_colours::path);
    vole::draw_text(list, layer, vole::plain_font(), path.name, path.line()[0] + Vec2{2, 2}, {.colour = ink});
  }
}

// A bar along the cell's side where the next piece joins.
void draw_openings(DrawList& list, LayerId layer, const vole::Level& level) {
  constexpr float thick = 3;
  const Vec2 tile(level.tile_size()), size(level.size());
  for (const vole::LevelOpening& opening : level.openings) {
    const auto at = static_cast<float>(opening.at);
    const bool across = vole::is_across(opening.side), far = vole::is_forward(opening.side);
    const vole::Rect bar = across ? vole::Rect{{far ? size.x - thick : 0, at * tile.y}, {thick, tile.y}}
                                  : vole::Rect{{at * tile.x, far ? size.y - thick : 0}, {tile.x, thick}};
    list.fill(layer, bar, mark);
    vole::draw_text(
        list, layer, vole::plain_font(), opening.name,
        {far && across ? bar.left() - 2 : bar.left() + 4, far && !across ? bar.top() - 10 : bar.top() + 2},
        {.anchor = far && across ? vole::Anchor::top_right : vole::Anchor::top_left, .colour = mark});
  }
}

void draw_body(DrawList& list, LayerId layer, const vole::CollisionBody& body, Vec2 at) {
  if (!body.shapes) return list.outline(layer, body.box.moved_by(at), mark_of(body, 0));
  for (std::uint32_t i = 0; i < body.shapes->size(); ++i)
    vole::draw_shape(list, layer, (*body.shapes)[i], at, mark_of(body, i));
}

void draw_probes(DrawList& list, LayerId layer, const vole::Probes& probes, Vec2 at) {
  for (const auto& item : probes.all) {
    const vole::Probe& probe = item.value;
    if (probe.is_ray())
      vole::draw_line(list, layer, at + *probe.from, at + *probe.to, vole::mark_colours::probe_found);
    else
      list.outline(layer, probe.box({at}), vole::mark_colours::probe_found);
  }
}

// The way of a platform, from where it begins.
void draw_way(DrawList& list, LayerId layer, const vole::AlongPath& mover, Vec2 at) {
  for (std::size_t i = 1; i < mover.points.size(); ++i)
    vole::draw_line(list, layer, at + mover.points[i - 1], at + mover.points[i], vole::mark_colours::path);
}

}  // namespace

IVec2 size_of_picture(const vole::Level& level) {
  constexpr int longest = 4096;
  if (level.cells.x == 0)
    throw vole::Error(vole::FilePosition::whole_file("levels/" + level.name + ".level.toml"), "the level has no rows of tiles to show");
  const IVec2 size = level.size();
  if (size.x > longest || size.y > longest)
    throw vole::Error(vole::FilePosition::whole_file("levels/" + level.name + ".level.toml"),
                      fmt::format("the level is {} x {} pixels; a preview is at most {} along a side", size.x,
                                  size.y, longest));
  return size;
}

void save_level(const Image& image, const std::string& output, const paper::Legend& legend) {
  const IVec2 size = image.size();
  const int factor = std::max(1, std::min(page_size.x / size.x, page_size.y / size.y));
  const Image enlarged = vole::enlarged(image, factor);
  save_preview(output, legend.empty() ? enlarged : with_legend(enlarged, legend));
}

void preview_level(vole::Catalog& catalog, const vole::Level& level, bool with_shapes,
                   const std::string& output) {
  const IVec2 size = size_of_picture(level);
  Image image(size, level.sky);
  DrawList list;
  list.start(size);
  for (const vole::LevelLayer& layer : level.layers)
    vole::draw_level_layer(list, list.add_layer({0, 0}), level, layer);
  const LayerId marks = list.add_layer({0, 0});
  const WrittenThings things(catalog);
  if (with_shapes) {
    draw_solids(list, marks, level);
    draw_zones(list, marks, level);
    draw_openings(list, marks, level);
  }
  for (const vole::LevelPlace& place : level.places) {
    const WrittenThing thing = things.at_place(place);
    if (const auto frame = thing.frame()) list.add(marks, vole::show(*frame, place.at));
    if (with_shapes && thing.way) draw_way(list, marks, *thing.way, place.at);
    if (with_shapes && thing.body) draw_body(list, marks, *thing.body, place.at);
    if (with_shapes && thing.probes) draw_probes(list, marks, *thing.probes, place.at);
    list.fill(marks, {{place.at.x - 2, place.at.y - 1}, {5, 2}}, vole::mark_colours::position);
    // Among shapes the kinds would hide more than they tell.
    const std::string& label = place.name.empty() && !with_shapes ? place.kind : place.name;
    vole::draw_text(list, marks, vole::plain_font(), label, {place.at.x, place.at.y + 2},
                    {.anchor = vole::Anchor::top});
  }
  list.sort();
  vole::Raster().draw(list, image);
  paper::Legend legend;
  if (with_shapes)
    legend = {{"solid tile", vole::mark_colours::solid_tile},
              {"one-way", vole::mark_colours::one_way},
              {"solid body", vole::mark_colours::solid_body},
              {"sensor", vole::mark_colours::sensor},
              {"off", vole::mark_colours::off},
              {"zone", vole::mark_colours::zone},
              {"path", vole::mark_colours::path},
              {"probe", vole::mark_colours::probe_found}};
  legend.emplace_back("position", vole::mark_colours::position);
  save_level(image, output, legend);
}
