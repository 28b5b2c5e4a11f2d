#include "place_builder.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/names.hpp"
#include "vole/physics/shape.hpp"

namespace vole {
namespace {

// Placed and scattered: a list in a file has no more.
constexpr std::size_t most_places = FieldRule{}.most_items;
// It is a body, with its position in the middle of its lower edge.
constexpr Vec2 largest_zone{2 * Shape::furthest, Shape::furthest};

}  // namespace

void PlaceBuilder::build() {
  for (const ZoneText& zone : text_.zones) add_zone(zone);
  for (const PathText& path : text_.paths) add_path(path);
  for (const PlaceText& place : text_.places) add_place(place);
  if (report_.has_errors()) return;
  for (const ScatterText& scatter : text_.scattered) add_scatter(scatter);
}

// In pixels, of a cell.
Vec2 PlaceBuilder::in_cell(IVec2 cell, Anchor spot) const {
  const Vec2 tile(level_.tile_size());
  const int column = static_cast<int>(spot) % 3, row = static_cast<int>(spot) / 3;
  return (Vec2(cell) + Vec2{static_cast<float>(column) / 2, static_cast<float>(row) / 2}) * tile;
}

void PlaceBuilder::add_place(const PlaceText& text) {
  const Vec2 at = (text.cell ? in_cell(*text.cell, text.pivot) : text.at.value_or(Vec2{0, 0})) + text.offset;
  if (!text.name.value.empty()) {
    const auto [first, is_new] = named_places_.try_emplace(text.name.value, text.name.where);
    if (!is_new)
      report_.error(text.name.where, fmt::format("place \"{}\" is defined twice", text.name.value),
                    "the first is at " + to_text(first->second));
  }
  level_.places.push_back(
      {text.kind.value, at, text.mirrored, text.name.value, text.overrides, text.kind.where, -1, text.keep});
}

void PlaceBuilder::add_zone(const ZoneText& text) {
  if (const LevelZone* const first = find_named(level_.zones, text.name.value))
    report_.error(text.name.where, fmt::format("zone \"{}\" is defined twice", text.name.value),
                  "the first is at " + to_text(first->where));
  LevelZone zone;
  zone.name = text.name.value;
  zone.where = text.name.where;
  if (text.area.has_value() == text.points.has_value())
    return report_.error(text.name.where,
                         fmt::format("zone \"{}\" has an \"area\", or else \"points\"", text.name.value));
  if (text.area) {
    zone.area = *text.area;
  } else {
    try {
      cut_polygon(text.points->value);  // can it be?
    } catch (const Error& error) {
      return report_.error(text.points->where, error.problems()[0].text, error.problems()[0].hint);
    }
    zone.corners = text.points->value;
    Vec2 low = zone.corners[0], high = low;
    for (const Vec2 corner : zone.corners) {
      low = {std::min(low.x, corner.x), std::min(low.y, corner.y)};
      high = {std::max(high.x, corner.x), std::max(high.y, corner.y)};
    }
    zone.area = {low, high - low};
  }
  const Vec2 size = zone.area.size;
  if (!(size.x > 0 && size.y > 0 && size.x <= largest_zone.x && size.y <= largest_zone.y))
    return report_.error(text.name.where,
                         fmt::format("zone \"{}\" is {} x {} pixels large; it may be up to {} x {}",
                                     zone.name, size.x, size.y, largest_zone.x, largest_zone.y),
                         size.x > 0 && size.y > 0 ? "several zones may lie beside each other"
                                                  : "an area is written [x, y, width, height]");
  zone.darkness = text.darkness;
  zone.fade = text.fade.value;
  if (zone.fade > 0 && (!zone.darkness || !zone.corners.empty()))
    report_.error(text.fade.where, fmt::format("zone \"{}\" cannot fade", zone.name),
                  "only what has a \"darkness\" and an \"area\"");
  level_.zones.push_back(std::move(zone));
}

void PlaceBuilder::add_path(const PathText& text) {
  if (const LevelPath* const first = find_named(level_.paths, text.name.value))
    report_.error(text.name.where, fmt::format("path \"{}\" is defined twice", text.name.value),
                  "the first is at " + to_text(first->where));
  if (text.points.has_value() == text.cells.has_value())
    return report_.error(text.name.where,
                         fmt::format("path \"{}\" has either \"points\" or \"cells\"", text.name.value));
  std::vector<Vec2> points;
  if (text.points) points = text.points->value;
  if (text.cells)
    for (const IVec2 cell : text.cells->value) points.push_back(in_cell(cell, Anchor::centre));
  const FilePosition& where = text.points ? text.points->where : text.cells->where;
  const std::size_t written = points.size();
  points.erase(std::unique(points.begin(), points.end()), points.end());
  if (points.size() < 2)
    return report_.error(where,
                         fmt::format("path \"{}\" has {} point{}{}", text.name.value, written,
                                     written == 1 ? "" : "s", written > 1 ? ", all on one spot" : ""),
                         "a path has two or more");
  level_.paths.emplace_back(text.name.value, points, text.closed, text.curved, text.name.where);
}

void PlaceBuilder::add_scatter(const ScatterText& text) {
  LevelScatter scatter{
      text.kind.value, text.count,     text.zone.value, {}, {}, static_cast<std::uint64_t>(text.seed),
      text.apart,      text.overrides, text.kind.where};
  try {
    if (!scatter.zone.empty()) level_.zone(scatter.zone, text.zone.where);
    for (const Located<std::string>& name : text.on) {
      const Paint paint = level_.tiles.paint(name.value, name.where);
      if (paint.material >= 0)
        scatter.on_materials.push_back(paint.material);
      else if (paint.cell.tile >= 0)
        scatter.on_tiles.push_back(paint.cell.tile);
    }
  } catch (const Error& error) {
    return report_.add(error);
  }
  std::sort(scatter.on_tiles.begin(), scatter.on_tiles.end());
  std::sort(scatter.on_materials.begin(), scatter.on_materials.end());
  if (level_.places.size() + static_cast<std::size_t>(scatter.count) > most_places)
    return report_.error(
        text.where,
        fmt::format("with these {} the level has more than {} things", scatter.count, most_places),
        "scatter fewer, or part the level");
  const std::vector<Vec2> spots = level_.scattered(scatter, scatter.seed);
  if (static_cast<int>(spots.size()) < scatter.count)
    report_.error(text.where,
                  fmt::format("there is room for {} of the {} \"{}\" that are to be scattered", spots.size(),
                              scatter.count, scatter.kind),
                  "fewer of them, a larger zone, or closer together");
  for (const Vec2 at : spots)
    level_.places.push_back({scatter.kind,
                             at,
                             false,
                             {},
                             scatter.overrides,
                             scatter.where,
                             static_cast<int>(level_.scatters.size())});
  level_.scatters.push_back(std::move(scatter));
}

}  // namespace vole
