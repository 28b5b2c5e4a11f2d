// What NAME.level.toml says, before it becomes a Level.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "vole/base/check_notes.hpp"
#include "vole/level/level.hpp"

namespace vole {

struct LayerText {
  Located<std::string> name;
  Vec2 parallax{1, 1};
  std::vector<Located<std::string>> rows;
  Located<std::string> picture;
  Repeat repeat = Repeat::across;
  LayerEdge edge = LayerEdge::bottom;
  bool cover = false;
  LayerOrder order = LayerOrder::depth;
};
template <class V>
void describe(V& v, LayerText& layer) {
  v("name", layer.name, needed());
  v("parallax", layer.parallax, within(0, 4));
  v("rows", layer.rows);
  v("picture", layer.picture);
  v("repeat", layer.repeat);
  v("edge", layer.edge);
  v("cover", layer.cover);
  v("order", layer.order);
}

struct PlaceText {
  Located<std::string> kind;
  std::optional<IVec2> cell;
  std::optional<Vec2> at;
  Located<std::string> name;
  Node overrides;
  FilePosition where;
};
void read_field(const Node& node, PlaceText& place, const FieldRule& rule, Report& report);
Node schema_field(const PlaceText& place, const FieldRule& rule);

struct ZoneText {
  Located<std::string> name;
  Vec2 at{0, 0};
  Vec2 size{16, 16};
};
template <class V>
void describe(V& v, ZoneText& zone) {
  v("name", zone.name, needed());
  v("at", zone.at, needed().within(-1e6, 1e6));
  v("size", zone.size, needed().within(1, 8192));
}

enum class LevelSide { open, solid };
constexpr auto enum_names(LevelSide) {
  return std::array<std::string_view, 2>{"open", "solid"};
}

// What lies beyond each side of a level with tiles.
struct SidesText {
  LevelSide left = LevelSide::solid;
  LevelSide right = LevelSide::solid;
  LevelSide top = LevelSide::open;
  LevelSide bottom = LevelSide::open;
};
template <class V>
void describe(V& v, SidesText& sides) {
  v("left", sides.left);
  v("right", sides.right);
  v("top", sides.top);
  v("bottom", sides.bottom);
}

struct LevelText {
  Colour sky{0, 0, 0, 255};
  Located<std::string> tileset;
  Named<Located<std::string>> letters;
  SidesText sides;
  std::vector<LayerText> layers;
  std::vector<PlaceText> places;
  std::vector<ZoneText> zones;
  CheckNotes check;
};
template <class V>
void describe(V& v, LevelText& level) {
  v("sky", level.sky);
  v("tileset", level.tileset);
  v("letters", level.letters, items(1000));
  v("sides", level.sides);
  v("layers", level.layers, needed().items(256));
  v("places", level.places);
  v("zones", level.zones, items(10'000));
  v("check", level.check);
}

}  // namespace vole
