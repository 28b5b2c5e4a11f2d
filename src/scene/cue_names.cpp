#include "cue_names.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <set>
#include <string>
#include <vector>

#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/cues.hpp"
#include "vole/scene/scene_types.hpp"
#include "vole/world/level_now.hpp"

namespace vole {
namespace {

using Names = std::set<std::string>;

Names asked_of_things(const Cues& cues, ThingSelector::What what) {
  Names names;
  const auto add = [&](const ThingSelector& which) {
    if (which.what == what) names.insert(which.name);
  };
  for (const Cues::MeetingCue& cue : cues.meetings()) {
    add(cue.which);
    add(cue.other);
  }
  for (const Cues::TileCue& cue : cues.tile_meetings()) add(cue.which);
  for (const Cues::SqueezeCue& cue : cues.squeezes()) add(cue.which);
  for (const Cues::PointerCue& cue : cues.pointers()) add(cue.which);
  return names;
}

Names asked_of_tiles(const Cues& cues, TileSelector::What what) {
  Names names;
  for (const Cues::TileCue& cue : cues.tile_meetings())
    if (cue.tiles.what == what) names.insert(cue.tiles.name);
  return names;
}

// `gather(level, names)` adds what a level has. Others are looked at only where the one that is loaded lacks something.
template <class Gather>
void expect_in_some_level(Names unknown, const LevelNow& level, Catalog& catalog, std::string_view lacks,
                          Names known, const Gather& gather) {
  const auto forget_known = [&] {
    std::erase_if(unknown, [&](const std::string& name) { return known.contains(name); });
  };
  if (level) gather(level.file(), known);
  forget_known();
  if (unknown.empty()) return;
  for (const std::string& name : catalog.names<Level>()) {
    try {
      gather(*catalog.get<Level>(name), known);
    } catch (const Error&) {
      // Whoever loads it is told.
    }
  }
  forget_known();
  if (unknown.empty()) return;
  const std::string& name = *unknown.begin();
  const std::vector<std::string> names(known.begin(), known.end());
  throw Error(FilePosition{}, fmt::format("{} \"{}\", which a cue is about", lacks, name),
              name == "ground" ? "tiles are met by vole::any_tile()" : did_you_mean(name, names));
}

void gather_zones(const Level& level, Names& names) {
  for (const LevelZone& zone : level.zones) names.insert(zone.name);
}

void gather_tiles(const Level& level, Names& names) {
  for (const Tile& tile : level.tiles.tiles()) names.insert(tile.name);
  for (const TileMaterial& material : level.tiles.materials()) names.insert(material.name);
}

void gather_tile_tags(const Level& level, Names& names) {
  for (const Tile& tile : level.tiles.tiles()) names.insert(tile.tags.begin(), tile.tags.end());
}

// A body that says none is "plain".
void gather_category(const TomlValue& components, Names& names) {
  const TomlValue* const body = components.find("body");
  if (!body && !components.find("shapes")) return;
  const TomlValue* const category = body ? body->find("category") : nullptr;
  names.insert(category ? category->text : "plain");
}

void gather_place_categories(const Level& level, Names& names) {
  for (const LevelPlace& place : level.places) gather_category(place.overrides, names);
}

}  // namespace

void expect_closing_scenes(const Cues& cues, const SceneTypes& scenes) {
  for (const Cues::Closed& cue : cues.closings()) {
    if (cue.scene.empty()) continue;
    const SceneType& type = scenes.get(cue.scene);
    if (!cue.handed || type.result == cue.handed) continue;
    throw Error(
        FilePosition{},
        fmt::format("the scene \"{}\" hands back {}, and a cue for its closing takes a {}", type.name,
                    type.result ? fmt::format("a {}", type.result->name()) : "nothing", cue.handed->name()));
  }
}

void expect_arrival_levels(const Cues& cues, Catalog& catalog) {
  if (cues.arrivals().empty()) return;
  const std::vector<std::string> names = catalog.names<Level>();
  for (const Cues::Arrival& cue : cues.arrivals())
    if (std::find(names.begin(), names.end(), cue.level) == names.end())
      throw Error(FilePosition{},
                  fmt::format("no level \"{}\", in which a cue waits for an arrival", cue.level),
                  did_you_mean(cue.level, names));
}

void expect_cue_names(const Cues& cues, const Kinds& kinds, const LevelNow& level, Catalog& catalog) {
  expect_in_some_level(asked_of_things(cues, ThingSelector::What::zone), level, catalog,
                       "no level has a zone", {}, gather_zones);
  expect_in_some_level(asked_of_tiles(cues, TileSelector::What::name), level, catalog,
                       "no level has a tile or material", {}, gather_tiles);
  expect_in_some_level(asked_of_tiles(cues, TileSelector::What::tag), level, catalog,
                       "no level has a tile with the tag", {}, gather_tile_tags);
  Names of_kinds;
  for (const auto& kind : kinds.all) gather_category(kind.value, of_kinds);
  expect_in_some_level(asked_of_things(cues, ThingSelector::What::category), level, catalog,
                       "no kind has a body of the category", of_kinds, gather_place_categories);
}

}  // namespace vole
