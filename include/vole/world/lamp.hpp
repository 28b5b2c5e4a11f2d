// Light around a thing, in a level that is dark (level.hpp). In kinds.toml:
//
//   lamp = { radius = 48, colour = "#ffd98a" }
//   lamp = { radius = 80, point = "flame", cone = 60, direction = 15, flicker = 0.1 }
#pragma once

#include "vole/base/describe.hpp"
#include "vole/draw/lamp_size.hpp"

namespace vole {

class OfKind;

struct Lamp {
  float radius = 48;  // pixels
  Colour colour{255, 224, 160, 255};
  float brightness = 1;
  int falloff = 1;    // 0: the same up to its radius; 1: evenly less; 2, 3, 4: soon much less
  float flicker = 0;  // by how much of its radius it becomes smaller now and then
  float cone = 360;   // degrees in which it shines
  float direction =
      0;  // of the cone's middle, clockwise from the right; it turns and is mirrored with the thing
  Located<std::string> point;  // of the thing's sprite; empty: where the thing is
  Vec2 offset{0, 0};           // pixels from there, mirrored with the thing
  bool shadows = true;         // walls are in its way
  bool shines = true;          // may be put out at any time
};
template <class V>
void describe(V& v, Lamp& lamp) {
  v("radius", lamp.radius, within(0, largest_lamp));
  v("colour", lamp.colour);
  v("brightness", lamp.brightness, within(0, 1));
  v("falloff", lamp.falloff, within(0, 4));
  v("flicker", lamp.flicker, within(0, 1));
  v("cone", lamp.cone, within(0, 360));
  v("direction", lamp.direction, within(-360, 360));
  v("point", lamp.point);
  v("offset", lamp.offset, within(-4096, 4096));
  v("shadows", lamp.shadows);
  v("shines", lamp.shines);
}

void need(Lamp& lamp, const OfKind& kind);

}  // namespace vole
