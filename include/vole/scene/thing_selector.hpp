// Which things are meant, and which tiles, of all that there are: for cues (cues.hpp), and for a stage.
//
//   cues.when_meet("vole", vole::tagged("seed"), ...);
//   stage.set_time_rate("tagged wasp", 0.25f);
#pragma once

#include <cstdint>
#include <string>
#include <string_view>

#include "vole/asset/names.hpp"

namespace vole {

// Those of a kind, those that have a tag, those whose body is of a category, those that have a shape of a
// name (then only that shape counts), or a zone of the level.
struct ThingSelector {
  enum class What : std::uint8_t { kind, tag, category, shape, zone };

  std::string name;
  What what = What::kind;

  // As in files (meant_things in level/kinds.hpp): "crow", those of a kind; "tagged seed", those with a tag.
  ThingSelector(const char* text);         // NOLINT: a text stands for the things that it is about
  ThingSelector(std::string_view text);    // NOLINT
  ThingSelector(const std::string& text);  // NOLINT
  ThingSelector(KindName kind);            // NOLINT
};
ThingSelector tagged(std::string_view tag);
ThingSelector of_category(std::string_view category);
ThingSelector with_shape(std::string_view name);
ThingSelector zone(std::string_view name);

// Solid tiles: all of them, and the walls that the level has around it; those with a tag; those of a tile's or a
// material's name.
//   cues.when_meet("dart", vole::any_tile(), [](vole::Stage& stage, vole::Entity dart) { stage.remove(dart); });
struct TileSelector {
  enum class What : std::uint8_t { all, tag, name };

  What what = What::all;
  std::string name;
};
TileSelector any_tile();
TileSelector tile_tagged(std::string_view tag);
TileSelector tile_of(std::string_view tile_or_material);

}  // namespace vole
