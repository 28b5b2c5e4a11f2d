// What part of the world is shown.
//
//   camera.bounds = {{0, 0}, level_size};
//   camera.follow(vole_position, 1.0f / 60);     // each tick
//   list.start_view(camera.view(between, {{0, 0}, canvas}));
//   list.add_layer(camera.corner(parallax, between));
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"
#include "vole/draw/view.hpp"

namespace vole {

class Camera {
 public:
  static constexpr float least_zoom = 1.0f / 8, most_zoom = 16;

  IVec2 canvas{320, 180};
  Rect bounds;          // what is shown stays inside; empty: it may be anywhere
  Vec2 offset{0, 0};    // added to what is followed
  float smoothing = 0;  // seconds in which it closes in on half of the distance; 0: at once
  Vec2 slack{0, 0};     // the target may be this far from the middle before the camera moves (dead zone)
  float zoom = 1;       // pixels of the canvas for one of the level's: 2 is near, 0.5 far

  // Puts the middle here at once, also for interpolation.
  void jump_to(Vec2 middle);
  // One tick: remembers where it was and closes in on the target.
  void follow(Vec2 target, float seconds);
  // One tick without anything to follow.
  void stay();
  // Another zoom, with this point of the level where it was on the canvas.
  void zoom_about(Vec2 point, float zoom);

  Vec2 middle() const { return middle_; }
  // The part of the level that the last tick shows.
  Rect seen() const;
  // The level's point under one of the canvas, and back, as of the last tick.
  Vec2 to_level(Vec2 on_canvas) const {
    return middle_ + (on_canvas - Vec2(canvas) * 0.5f) / usable_zoom(zoom);
  }
  Vec2 to_canvas(Vec2 in_level) const {
    return (in_level - middle_) * usable_zoom(zoom) + Vec2(canvas) * 0.5f;
  }

  // What is drawn on a part of the canvas, `share` of the way from the last tick to this one.
  View view(float share, const IRect& part) const;
  // The world's point on the view's top left, `share` of the way from the last tick's place to this
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
    v.state("zoom", camera.zoom);
    v.state("zoom_before", camera.zoom_before_);
    v.state("middle", camera.middle_, position());
    v.state("before", camera.before_, position());
  }

 private:
  float usable_zoom(float wanted) const;
  float zoom_at(float share) const;
  Vec2 kept_inside(Vec2 middle) const;
  void remember();

  Vec2 middle_{0, 0};
  Vec2 before_{0, 0};
  float zoom_now_ = 1;  // of the last tick
  float zoom_before_ = 1;
};

}  // namespace vole
