// What part of the world the canvas shows.
//
//   camera.bounds = {{0, 0}, level_size};
//   camera.follow(vole_position, 1.0f / 60);     // each tick
//   list.add_layer(camera.corner(parallax, between));
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"

namespace vole {

class Camera {
 public:
  IVec2 canvas{320, 180};
  Rect bounds;          // the camera stays inside; empty: it goes anywhere
  Vec2 offset{0, 0};    // added to what is followed
  float smoothing = 0;  // seconds in which it closes in on half of the distance; 0: at once
  Vec2 slack{0, 0};     // the target may be this far from the middle before the camera moves (dead zone)

  // Puts the middle here at once, also for interpolation.
  void jump_to(Vec2 middle);
  // One tick: remembers where it was and closes in on the target.
  void follow(Vec2 target, float seconds);

  Vec2 middle() const { return middle_; }
  // The world's point on the canvas's top left, `share` of the way from the last tick's place to this
  // one's, in whole pixels, for a layer that goes along with the camera by `parallax`. `origin`: how far the world's origin has
  // moved; a layer of another parallax than 1 has its own, which stays.
  IVec2 corner(Vec2 parallax, float share, Vec2 origin = {0, 0}) const;

  template <class V>
  friend void describe(V& v, Camera& camera) {
    v.state("canvas", camera.canvas);
    v.state("bounds", camera.bounds, position());
    v.state("offset", camera.offset);
    v.state("smoothing", camera.smoothing);
    v.state("slack", camera.slack);
    v.state("middle", camera.middle_, position());
    v.state("before", camera.before_, position());
  }

 private:
  Vec2 kept_inside(Vec2 middle) const;

  Vec2 middle_{0, 0};
  Vec2 before_{0, 0};
};

}  // namespace vole
