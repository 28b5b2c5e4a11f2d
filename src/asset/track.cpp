#include "vole/asset/track.hpp"

#include <algorithm>

namespace vole {
namespace {

// The slope at a keyframe: from the one before to the one after, in value for each microsecond.
template <class T>
T slope(const std::vector<Keyframe<T>>& keys, std::size_t i) {
  const Keyframe<T>& before = keys[i == 0 ? 0 : i - 1];
  const Keyframe<T>& after = keys[std::min(i + 1, keys.size() - 1)];
  const auto span = static_cast<float>(after.at - before.at);
  return span > 0 ? (after.value - before.value) / span : T{};
}

// Through the keyframes without a corner: the cubic of E. Catmull, R. Rom, "A class of local interpolating
// splines", 1974, for keyframes at any distance from each other.
template <class T>
T smooth_between(const std::vector<Keyframe<T>>& keys, std::size_t i, float share) {
  const auto span = static_cast<float>(keys[i + 1].at - keys[i].at);
  const float s2 = share * share, s3 = s2 * share;
  return keys[i].value * (2 * s3 - 3 * s2 + 1) + slope(keys, i) * (span * (s3 - 2 * s2 + share)) +
         keys[i + 1].value * (3 * s2 - 2 * s3) + slope(keys, i + 1) * (span * (s3 - s2));
}

template <class T>
T value_at(const std::vector<Keyframe<T>>& keys, std::int64_t time) {
  const auto after = std::upper_bound(keys.begin(), keys.end(), time,
                                      [](std::int64_t t, const Keyframe<T>& key) { return t < key.at; });
  if (after == keys.begin()) return keys.front().value;
  if (after == keys.end()) return keys.back().value;
  const auto i = static_cast<std::size_t>(after - keys.begin()) - 1;
  const float share = static_cast<float>(time - keys[i].at) / static_cast<float>(keys[i + 1].at - keys[i].at);
  if (keys[i].ease == Ease::smooth) return smooth_between(keys, i, share);
  return keys[i].value + (keys[i + 1].value - keys[i].value) * eased(keys[i].ease, share);
}

// The value at a time, drawn towards `rest` where the track is played weakly.
template <class T>
void apply(const std::vector<Keyframe<T>>& keys, std::int64_t time, float strength, T& value) {
  if (!keys.empty()) value = value + (value_at(keys, time) - value) * strength;
}

template <class T>
void lengthen(const std::vector<Keyframe<T>>& keys, std::int64_t& length) {
  if (!keys.empty()) length = std::max(length, keys.back().at);
}

std::int64_t microseconds(std::int64_t ticks, int ticks_per_second) {
  return std::max<std::int64_t>(ticks, 0) * 1'000'000 / ticks_per_second;
}

}  // namespace

Colour TrackPose::tinted(Colour own) const {
  const auto part = [](std::uint8_t value, float share) {
    const float lit = static_cast<float>(value) * share;
    return static_cast<std::uint8_t>(lit > 0 ? std::min(lit, 255.0f) + 0.5f
                                             : 0.0f);  // 0 for "not a number" too
  };
  return {part(own.r, tint.x), part(own.g, tint.y), part(own.b, tint.z), own.a};
}

void TrackPose::add(const TrackPose& other) {
  offset += other.offset;
  rotation += other.rotation;
  scale *= other.scale;
  opacity *= other.opacity;
  tint *= other.tint;
  alpha *= other.alpha;
}

Vec4 TrackField::at(std::int64_t time) const {
  return keys.empty() ? Vec4(0) : value_at(keys, time);
}

std::int64_t Track::length() const {
  std::int64_t length = 0;
  lengthen(offset, length);
  lengthen(rotation, length);
  lengthen(scale, length);
  lengthen(opacity, length);
  lengthen(tint, length);
  for (const TrackField& field : fields) lengthen(field.keys, length);
  return length;
}

bool Track::over_at(std::int64_t ticks, int ticks_per_second) const {
  return !loop && microseconds(ticks, ticks_per_second) >= length();
}

std::int64_t Track::time_at(std::int64_t ticks, int ticks_per_second) const {
  const std::int64_t time = microseconds(ticks, ticks_per_second), whole = length();
  return loop && whole > 0 ? time % whole : time;
}

TrackPose Track::at(std::int64_t ticks, int ticks_per_second, float strength) const {
  TrackPose pose;
  const std::int64_t time = time_at(ticks, ticks_per_second);
  apply(offset, time, strength, pose.offset);
  apply(rotation, time, strength, pose.rotation);
  apply(scale, time, strength, pose.scale);
  apply(opacity, time, strength, pose.opacity);
  Vec4 colour{pose.tint, pose.alpha};
  apply(tint, time, strength, colour);
  pose.tint = {colour.x, colour.y, colour.z};
  pose.alpha = colour.w;
  return pose;
}

}  // namespace vole
