// What NAME.level.toml says, before it becomes a Level.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "vole/base/anchor.hpp"
#include "vole/base/check_notes.hpp"
#include "vole/level/level.hpp"

namespace vole {

// "earth", or ["earth", "cellar"].
struct TilesetNames {
  std::vector<Located<std::string>> all;
};
void read_field(const TomlValue& toml, TilesetNames& names, const FieldRule& rule, Report& report);
TomlValue schema_field(const TilesetNames& names, const FieldRule& rule);

struct LayerText {
  Located<std::string> name;
  Vec2 parallax{1, 1};
  LayerLook look;
  bool solid = true;
  bool lit = true;
  std::vector<Located<std::string>> rows;
  Located<std::string> csv;
  Located<std::string> picture;
  Repeat repeat = Repeat::across;
  LayerEdge edge = LayerEdge::bottom;
  bool cover = false;
  Vec2 offset{0, 0};
  LayerOrder order = LayerOrder::depth;
};
template <class V>
void describe(V& v, LayerText& layer) {
  v("name", layer.name, needed());
  v("parallax", layer.parallax, within(0, 4));
  describe(v, layer.look);
  v("solid", layer.solid);
  v("lit", layer.lit);
  v("rows", layer.rows);
  v("csv", layer.csv);
  v("picture", layer.picture);
  v("repeat", layer.repeat);
  v("edge", layer.edge);
  v("cover", layer.cover);
  v("offset", layer.offset);
  v("order", layer.order);
}

struct PlaceText {
  Located<std::string> kind;
  std::optional<IVec2> cell;
  std::optional<Vec2> at;
  Anchor pivot = Anchor::bottom;
  Vec2 offset{0, 0};
  bool mirrored = false;
  Located<std::string> name;
  bool keep = false;
  TomlValue overrides;
  FilePosition where;
};
void read_field(const TomlValue& toml, PlaceText& place, const FieldRule& rule, Report& report);
TomlValue schema_field(const PlaceText& place, const FieldRule& rule);

struct ScatterText {
  Located<std::string> kind;
  int count = 1;
  Located<std::string> zone;
  std::vector<Located<std::string>> on;
  std::int64_t seed = 0;
  float apart = 0;
  TomlValue overrides;
  FilePosition where;
};
void read_field(const TomlValue& toml, ScatterText& scatter, const FieldRule& rule, Report& report);
TomlValue schema_field(const ScatterText& scatter, const FieldRule& rule);

constexpr FieldRule level_pixels = within(-longest_level, longest_level);

struct ZoneText {
  Located<std::string> name;
  std::optional<Rect> area;
  std::optional<Located<std::vector<Vec2>>> points;
  std::optional<float> darkness;
  Located<int> fade;
};
template <class V>
void describe(V& v, ZoneText& zone) {
  v("name", zone.name, needed());
  v("area", zone.area, level_pixels);
  v("points", zone.points, level_pixels.items(64));
  v("darkness", zone.darkness, within(0, 1));
  v("fade", zone.fade, within(0, 4096));
}

struct PathText {
  Located<std::string> name;
  std::optional<Located<std::vector<Vec2>>> points;
  std::optional<Located<std::vector<IVec2>>> cells;
  bool closed = false;
  bool curved = false;
};
template <class V>
void describe(V& v, PathText& path) {
  v("name", path.name, needed());
  v("points", path.points, level_pixels.items(1000));
  v("cells", path.cells, level_pixels.items(1000));
  v("closed", path.closed);
  v("curved", path.curved);
}

enum class SideIs { open, solid };
constexpr auto enum_names(SideIs) {
  return std::array<std::string_view, 2>{"open", "solid"};
}

// What lies beyond each side of a level with tiles.
struct SidesText {
  SideIs left = SideIs::solid;
  SideIs right = SideIs::solid;
  SideIs top = SideIs::open;
  SideIs bottom = SideIs::open;
};
template <class V>
void describe(V& v, SidesText& sides) {
  v("left", sides.left);
  v("right", sides.right);
  v("top", sides.top);
  v("bottom", sides.bottom);
}

struct OpeningText {
  Located<std::string> name;
  Located<LevelSide> side;
  Located<int> at;
};
template <class V>
void describe(V& v, OpeningText& opening) {
  v("name", opening.name, needed());
  v("side", opening.side, needed());
  v("at", opening.at, needed().within(0, longest_level));
}

// "lock", or { piece = "lock", weight = 0.3 }.
struct PieceText {
  Located<std::string> piece;
  double weight = 1;
};
void read_field(const TomlValue& toml, PieceText& piece, const FieldRule& rule, Report& report);
TomlValue schema_field(const PieceText& piece, const FieldRule& rule);

struct EndlessText {
  LevelSide side = LevelSide::right;
  Located<std::string> pieces;
  std::optional<int> ahead, behind;
  std::optional<std::int64_t> seed;
};
template <class V>
void describe(V& v, EndlessText& endless) {
  v("side", endless.side);
  v("pieces", endless.pieces, needed());
  v("ahead", endless.ahead, within(0, most_pixels_ahead));
  v("behind", endless.behind, within(0, most_pixels_ahead));
  v("seed", endless.seed);
}

struct LevelText {
  Colour sky{0, 0, 0, 255};
  LevelLight light;
  TilesetNames tileset;
  Named<Located<std::string>> letters;
  std::optional<Located<IVec2>> cells;
  SidesText sides;
  std::vector<LayerText> layers;
  std::vector<PlaceText> places;
  std::vector<ScatterText> scattered;
  std::vector<ZoneText> zones;
  std::vector<PathText> paths;
  std::vector<OpeningText> openings;
  Named<std::vector<PieceText>> pieces;
  std::optional<Located<EndlessText>> endless;
  CheckNotes check;
};
template <class V>
void describe(V& v, LevelText& level) {
  v("sky", level.sky);
  v("light", level.light);
  v("tileset", level.tileset);
  v("letters", level.letters, may_be_empty().items(20'000));
  v("cells", level.cells, within(1, 1e9));
  v("sides", level.sides);
  v("layers", level.layers, needed().items(256));
  v("places", level.places);
  v("scattered", level.scattered, items(1000));
  v("zones", level.zones, items(10'000));
  v("paths", level.paths, items(1000));
  v("openings", level.openings, items(1000));
  v("pieces", level.pieces, items(1000));
  v("endless", level.endless);
  v("check", level.check);
}

}  // namespace vole
