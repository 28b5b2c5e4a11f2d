// The point of a frame that sits on a sprite's position: one of nine words, or a pixel.
#pragma once

#include <optional>

#include "vole/base/anchor.hpp"
#include "vole/base/describe.hpp"

namespace vole {

struct Pivot {
  std::optional<Anchor> word = Anchor::bottom;
  IVec2 pixel{0, 0};  // when there is no word

  IVec2 in(IVec2 size) const { return word ? spot_in(*word, size) : pixel; }
};

// "bottom left", or [8, 16].
void read_field(const TomlValue& toml, Pivot& pivot, const FieldRule& rule, Report& report);
TomlValue schema_field(const Pivot& pivot, const FieldRule& rule);

}  // namespace vole
