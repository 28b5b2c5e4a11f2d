// What a game sets of a camera, and may keep: in a scene's state, or in a file of its own.
//
//   [camera]
//   smoothing = 0.1
//   slack = [16, 12]
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"

namespace vole {

struct CameraSettings {
  static constexpr float least_zoom = 1.0f / 8, most_zoom = 16;

  Vec2 offset{0, 0};     // added to what is followed
  float smoothing = 0;   // seconds in which it closes in on half of the distance; 0: at once
  Vec2 slack{0, 0};      // the target may be this far from the middle before the camera moves (dead zone)
  float ahead = 0;       // seconds of the target's speed by which it looks ahead
  float face_ahead = 0;  // pixels by which it looks to where the target faces
  float ahead_seconds = 0.2f;  // seconds in which what it looks ahead by goes half of its way
  float zoom = 1;              // pixels of the canvas for one of the level's: 2 is near, 0.5 far
  float margin = 24;           // pixels of the level around several things that are followed
  float farthest = 0.5f;       // the least zoom that keeps them in view
};
template <class V>
void describe(V& v, CameraSettings& camera) {
  v("offset", camera.offset, within(-65536, 65536));
  v("smoothing", camera.smoothing, within(0, 60));
  v("slack", camera.slack, within(0, 4096));
  v("ahead", camera.ahead, within(-60, 60));
  v("face_ahead", camera.face_ahead, within(-4096, 4096));
  v("ahead_seconds", camera.ahead_seconds, within(0, 60));
  v("zoom", camera.zoom, within(CameraSettings::least_zoom, CameraSettings::most_zoom));
  v("margin", camera.margin, within(0, 4096));
  v("farthest", camera.farthest, within(CameraSettings::least_zoom, CameraSettings::most_zoom));
}

}  // namespace vole
