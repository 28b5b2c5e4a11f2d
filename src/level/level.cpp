#include "vole/level/level.hpp"

#include <fmt/core.h>

#include "level_builder.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

// Of layers, zones or paths of a level, by name.
template <class Things>
std::size_t expect_named(const Things& things, std::string_view sort, std::string_view name,
                         const Level& level, const FilePosition& asked) {
  const std::size_t index = index_named(things, name);
  if (index < things.size() && !name.empty()) return index;
  std::vector<std::string> names = names_of(things);
  std::erase(names, "");
  throw Error(asked, fmt::format("no {} \"{}\" in level \"{}\"", sort, name, level.name),
              did_you_mean(name, names));
}

void add_tilesets(const TilesetNames& names, Loading& loading, Level& level, Report& report) {
  for (const Located<std::string>& name : names.all) {
    // Watched with everything it is made from, so that a changed tile picture reaches the level too.
    loading.depends_on(loading.catalog().asset_path(name.value + ".tileset.toml"));
    report.gather([&] {
      const Asset<Tileset> tileset = loading.catalog().get<Tileset>(name.value, name.where);
      loading.depends_on(tileset);
      level.tiles.add(tileset.shared(), name.where);
    });
  }
}

}  // namespace

Level::Level() = default;
Level::Level(const Level&) = default;
Level::Level(Level&&) noexcept = default;
Level& Level::operator=(Level&&) noexcept = default;
Level::~Level() = default;

std::size_t Level::layer(std::string_view layer_name, const FilePosition& asked) const {
  return expect_named(layers, "layer", layer_name, *this, asked);
}

const LevelPlace& Level::place(std::string_view place_name, const FilePosition& asked) const {
  return places[expect_named(places, "place", place_name, *this, asked)];
}

const LevelZone& Level::zone(std::string_view zone_name, const FilePosition& asked) const {
  return zones[expect_named(zones, "zone", zone_name, *this, asked)];
}

const LevelPath& Level::path(std::string_view path_name, const FilePosition& asked) const {
  return paths[expect_named(paths, "path", path_name, *this, asked)];
}

// By how often a way to the right crosses the border.
bool LevelZone::contains(Vec2 point) const {
  if (corners.empty())
    return point.x >= area.left() && point.x < area.right() && point.y >= area.top() &&
           point.y < area.bottom();
  bool inside = false;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vec2 a = corners[i], b = corners[(i + 1) % corners.size()];
    if ((a.y > point.y) == (b.y > point.y)) continue;
    const double crosses = static_cast<double>(a.x) + (static_cast<double>(point.y) - a.y) *
                                                          (static_cast<double>(b.x) - a.x) /
                                                          (static_cast<double>(b.y) - a.y);
    if (static_cast<double>(point.x) < crosses) inside = !inside;
  }
  return inside;
}

LevelZone LevelZone::moved_by(Vec2 by) const {
  LevelZone moved = *this;
  moved.area.at += by;
  for (Vec2& corner : moved.corners) corner += by;
  return moved;
}

void put_solid(SolidGrid& solid, IVec2 at, const TileTable& tiles, const TileCell& tile) {
  const CellForm* const there = solid.form(at.x, at.y);
  if (there && there->is_full()) return;
  if (const auto form = tiles.form(tile)) solid.set(at, *form);
}

Level AssetType<Level>::load(Loading& loading) {
  Report report;
  LevelText text;
  read(read_toml(loading.path()), text, report);
  Level level;
  level.name = loading.name();
  level.sky = text.sky;
  level.light = text.light;
  add_tilesets(text.tileset, loading, level, report);
  if (text.layers.empty() && !report.has_errors())
    report.error(FilePosition::whole_file(loading.path()), "a level has at least one layer");
  report.throw_if_errors();
  LevelBuilder(level, text, loading, report).build();
  report.throw_if_errors();
  return level;
}

TomlValue AssetType<Level>::schema() {
  return schema_of<LevelText>();
}

}  // namespace vole
