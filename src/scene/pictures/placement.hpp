// Where a thing is drawn and how it is turned: its pose, its sprite, the point it is attached to, and tracks.
#pragma once

#include "vole/world/world.hpp"

namespace vole {

struct Placement {
  Vec2 at{0, 0};
  Vec2 scale{1, 1};
  float rotation = 0;
  bool mirrored = false;
  bool upside_down = false;
  Colour tint = white;
  float opacity = 1;
};

// Tracks change what is shown and never where a thing is.
enum class Tracks : std::uint8_t { shown, left_out };

Placement placement(const World& world, Entity entity, float share, Tracks tracks, int ticks_per_second);

// Of a point of its sprite as it is shown, and some pixels off it; of the thing itself when it has no such point.
Placement placement_of_point(const World& world, Entity of, std::string_view point, Vec2 offset, float share,
                             int ticks_per_second);

}  // namespace vole
