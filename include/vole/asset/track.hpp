// A property that changes beside the frames: bob up and down, turn, squash, fade. In NAME.sheet.toml:
//
//   [tracks.bob]
//   loop = true
//   offset = [
//     { at = 0.0, value = [0, 0], ease = "smooth" },      # the way to the next keyframe
//     { at = 0.6, value = [0, -3], ease = "smooth" },
//     { at = 1.2, value = [0, 0] },
//   ]
//
//   fields = { "lamp.radius" = [{ at = 0, value = 0 }, { at = 1.2, value = 8 }] }
//
// `offset` and `rotation` are added, `scale`, `opacity` and `tint` multiply. Any other described field of a
// component of the thing goes by "component.field": numbers and pairs are added to it and colours take its
// place. A track changes what is shown, not what is: it is computed for each picture, fields have
// their own values again before the next tick begins, and when it stops nothing of it is left.
#pragma once

#include <cstdint>
#include <glm/ext/vector_float3.hpp>
#include <string>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/easing.hpp"
#include "vole/base/error.hpp"
#include "vole/base/vec4.hpp"

namespace vole {

template <class T>
struct Keyframe {
  std::int64_t at = 0;  // microseconds
  T value{};
  Ease ease = Ease::linear;
};

// What tracks add to how a sprite is shown. As it stands here it changes nothing.
struct TrackPose {
  Vec2 offset{0, 0};
  float rotation = 0;
  Vec2 scale{1, 1};
  float opacity = 1;
  glm::vec3 tint{1, 1, 1};  // shares of red, green and blue
  float alpha = 1;          // of the tint

  // A colour in this tint.
  Colour tinted(Colour own) const;
  // Both at once.
  void add(const TrackPose& other);
  friend bool operator==(const TrackPose&, const TrackPose&) = default;
};

// The keyframes of a field that belongs to no sprite's pose; see field.hpp for the parts of a value.
struct TrackField {
  std::string component;
  std::string field;
  int parts = 1;
  std::vector<Keyframe<Vec4>> keys;
  FilePosition where = {};

  Vec4 at(std::int64_t microseconds) const;
};

struct Track {
  std::string name;
  bool loop = false;
  std::vector<Keyframe<Vec2>> offset = {};
  std::vector<Keyframe<float>> rotation = {};
  std::vector<Keyframe<Vec2>> scale = {};
  std::vector<Keyframe<float>> opacity = {};
  std::vector<Keyframe<Vec4>> tint = {};
  std::vector<TrackField> fields = {};

  // Until the last keyframe of all, in microseconds.
  std::int64_t length() const;
  // Since its start, or, where it loops, since the current pass began; in microseconds.
  std::int64_t time_at(std::int64_t ticks, int ticks_per_second) const;
  bool over_at(std::int64_t ticks, int ticks_per_second) const;
  // `strength` 1: as it says; 0: nothing at all. Before its first keyframe a property has that one's value,
  // and after its last the last one's, until the track is over.
  TrackPose at(std::int64_t ticks, int ticks_per_second, float strength = 1) const;
};

}  // namespace vole
