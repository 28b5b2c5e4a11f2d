// What part of the world is shown.
//
//   camera.bounds = {{0, 0}, level_size};
//   camera.follow({vole_at, vole_before}, 1.0f / 60);     // each tick
//   list.start_view(camera.view(between));
//   list.add_layer(camera.corner(parallax, between));
//
// What is followed and what stands still are both drawn on whole pixels. So that neither trembles against the other, the camera goes
// along with the pixels of what it follows while it moves, and rests on a pixel of the level while it does not.
#pragma once

#include "vole/draw/camera_settings.hpp"
#include "vole/draw/view.hpp"

namespace vole {

// What a camera follows in a tick: one thing, or a box around several.
struct CameraTarget {
  Vec2 at{0, 0};      // of several: the middle of the box
  Vec2 before{0, 0};  // where it was in the tick before
  Vec2 velocity{0, 0};
  float faces = 0;  // -1 to the left, 1 to the right
  Vec2 size{0, 0};  // of the box
};

class Camera : public CameraSettings {
 public:
  IVec2 at{0, 0};  // of its part of the canvas
  IVec2 canvas{320, 180};
  Rect bounds;  // what is shown stays inside; empty: it may be anywhere

  // All of the settings at once; where it is, and what it is in the middle of, stays.
  void use(const CameraSettings& settings) { static_cast<CameraSettings&>(*this) = settings; }

  // Numbers out of range are brought within it (within.hpp); what is not a number throws Error.
  // Puts the middle here at once, also for interpolation.
  void jump_to(Vec2 middle);
  // One tick: remembers where it was and closes in on the target.
  void follow(const CameraTarget& target, float seconds);
  void follow(Vec2 target, float seconds) {
    follow(CameraTarget{target, target, {0, 0}, 0, {0, 0}}, seconds);
  }
  // One tick without anything to follow.
  void stay(float seconds = 0);

  // Another zoom, with this point of the level where it was on the canvas.
  void zoom_about(Vec2 point, float zoom);
  // Another zoom, evenly within so many seconds.
  void zoom_over(float zoom, float seconds);
  // Other bounds: it goes over to them within so many seconds, starting and ending softly; at once for 0.
  void move_over(const Rect& bounds, float seconds);
  // Trembles by so many pixels of the level, and less and less. Of its own chance: the game's stays as it is.
  void shake(float pixels, float seconds);

  Vec2 middle() const { return middle_; }
  // Of the last tick: what it shows, and how large.
  Rect seen() const;
  float zoom_now() const { return usable_zoom(zoom_now_); }
  // The level's point under one of the canvas, and back, as of the last tick.
  Vec2 to_level(Vec2 on_canvas) const;
  Vec2 to_canvas(Vec2 in_level) const;

  // What is drawn, `share` of the way from the last tick to this one.
  View view(float share) const;
  // The world's point on the view's top left, in whole pixels, `share` of the way from the last tick to this one. Of a layer that goes along
  // with the camera by `parallax`. `origin`: how far the world's origin has moved; a layer of another parallax than 1 has its own, which stays.
  IVec2 corner(Vec2 parallax, float share, Vec2 origin = {0, 0}) const;

  template <class V>
  friend void describe(V& v, Camera& camera) {
    v.state("at", camera.at);
    v.state("canvas", camera.canvas, within(0, 32768));
    v.state("bounds", camera.bounds, position());
    v.state("settings", static_cast<CameraSettings&>(camera));
    v.state("middle", camera.middle_, position());
    v.state("before", camera.before_, position());
    v.state("zoom_now", camera.zoom_now_);
    v.state("zoom_before", camera.zoom_before_);
    v.state("looks", camera.looks_);
    v.state("target", camera.target_, position());
    v.state("target_before", camera.target_before_, position());
    v.state("shown", camera.shown_, position());
    v.state("from_target", camera.from_target_);
    v.state("from_before", camera.from_before_);
    v.state("goes_along_x", camera.goes_along_.x);
    v.state("goes_along_y", camera.goes_along_.y);
    v.state("move", camera.move_);
    v.state("zoom_move", camera.zoom_move_);
    v.state("shake", camera.shake_);
  }

  // How far it looks ahead of what it follows.
  Vec2 looks() const { return looks_; }

 private:
  struct Move {
    Vec2 from{0, 0};
    float left = 0, seconds = 0;

    template <class V>
    friend void describe(V& v, Move& move) {
      v.state("from", move.from, position());
      v.state("left", move.left);
      v.state("seconds", move.seconds);
    }
  };
  struct ZoomMove {
    float from = 1, to = 1, left = 0, seconds = 0;

    template <class V>
    friend void describe(V& v, ZoomMove& move) {
      v.state("from", move.from);
      v.state("to", move.to);
      v.state("left", move.left);
      v.state("seconds", move.seconds);
    }
  };
  struct Shake {
    float pixels = 0, left = 0, seconds = 0;
    std::uint32_t times = 0;  // what it draws its chance from
    Vec2 now{0, 0}, before{0, 0};

    template <class V>
    friend void describe(V& v, Shake& shake) {
      v.state("pixels", shake.pixels);
      v.state("left", shake.left);
      v.state("seconds", shake.seconds);
      v.state("times", shake.times);
      v.state("now", shake.now);
      v.state("before", shake.before);
    }
  };
  // Of each dimension.
  struct Both {
    bool x = false, y = false;
  };

  float usable_zoom(float wanted) const;
  float zoom_at(float share) const;
  float fitting_zoom(Vec2 size) const;
  Vec2 kept_inside(Vec2 middle) const;
  Vec2 along_move(Vec2 middle, float seconds);
  void remember(float seconds);
  void go_on_shaking(float seconds);
  void rest_on_pixels();
  void go_along_with_pixels(const CameraTarget& target);

  Vec2 middle_{0, 0};
  Vec2 before_{0, 0};
  float zoom_now_ = 1;  // of the last tick
  float zoom_before_ = 1;
  Vec2 looks_{0, 0};  // ahead
  Vec2 target_{0, 0}, target_before_{0, 0};
  Vec2 shown_{0, 0};                            // the pixel that is drawn in the middle
  Vec2 from_target_{0, 0}, from_before_{0, 0};  // whole pixels from the target's to that one
  Both goes_along_;                             // whether that was so in the last tick
  Move move_;
  ZoomMove zoom_move_;
  Shake shake_;
};

}  // namespace vole
