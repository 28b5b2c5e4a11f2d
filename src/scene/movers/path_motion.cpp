#include "path_motion.hpp"

#include <algorithm>
#include <cmath>

#include "vole/base/vec.hpp"

namespace vole {
namespace {

std::uint32_t count_of(const AlongPath& path) {
  return static_cast<std::uint32_t>(path.points.size());
}
Vec2 point_of(const AlongPath& path, std::uint32_t index) {
  return path.start + path.points[index];
}

// The point after one, as the path's end says; the same one where the way is at its end.
struct Next {
  std::uint32_t index;
  bool goes_back;
};
Next next_after(const AlongPath& path, Next at) {
  const std::uint32_t count = count_of(path);
  if (path.end == PathEnd::loop) return {(at.index + 1) % count, at.goes_back};
  const bool at_end = at.goes_back ? at.index == 0 : at.index + 1 == count;
  if (at_end && path.end == PathEnd::stop) return at;
  if (at_end) at.goes_back = !at.goes_back;
  if (count > 1) at.index = at.goes_back ? at.index - 1 : at.index + 1;
  return at;
}
void choose_next(AlongPath& path) {
  const Next next = next_after(path, {path.next, path.goes_back});
  path.next = next.index;
  path.goes_back = next.goes_back;
}

bool is_end(const AlongPath& path, std::uint32_t index) {
  return path.end != PathEnd::loop && (index == 0 || index + 1 == count_of(path));
}
float wait_at(const AlongPath& path, std::uint32_t index) {
  if (!path.waits.empty()) return index < path.waits.size() ? path.waits[index] : 0;
  const bool counts = path.path.value.empty() || index == 0 || is_end(path, index);
  return counts ? path.pause : 0;
}

// Waits for what is left to wait; what is then left of the seconds.
float after_waiting(AlongPath& path, float seconds) {
  const float waited = std::min(path.waiting, seconds);
  path.waiting -= waited;
  return path.waiting > 0 ? 0 : seconds - waited;
}

Vec2 at_same_pace(AlongPath& path, Vec2 at, float seconds) {
  for (std::size_t points = 0; points <= path.points.size() && seconds > 0; ++points) {
    seconds = after_waiting(path, seconds);
    if (seconds <= 0) break;
    const Vec2 way = point_of(path, path.next) - at;
    const float length = length_of(way), reach = path.speed * seconds;
    if (length > reach) return at + way * (reach / length);
    at = point_of(path, path.next);
    if (path.speed > 0) seconds -= length / path.speed;
    path.waiting = wait_at(path, path.next);
    choose_next(path);
  }
  return at;
}

// From a stop through all points to the next stop.
struct Leg {
  float length = 0;
  std::uint32_t stop = 0;
};
bool is_stop(const AlongPath& path, std::uint32_t index) {
  return wait_at(path, index) > 0 || is_end(path, index);
}
Leg leg_of(const AlongPath& path) {
  Leg leg{length_of(point_of(path, path.left_for) - path.left_at), path.left_for};
  Next at{path.left_for, path.goes_back};
  for (std::uint32_t i = 0; i < count_of(path) && !is_stop(path, at.index); ++i) {
    const Next next = next_after(path, at);
    leg.length += length_of(point_of(path, next.index) - point_of(path, at.index));
    at = next;
  }
  leg.stop = at.index;
  return leg;
}
Vec2 on_leg(const AlongPath& path, float distance) {
  Vec2 from = path.left_at;
  Next at{path.left_for, path.goes_back};
  for (std::uint32_t i = 0; i <= count_of(path); ++i) {
    const Vec2 way = point_of(path, at.index) - from;
    const float length = length_of(way);
    if (distance <= length && length > 0) return from + way * (distance / length);
    distance -= length;
    from = point_of(path, at.index);
    at = next_after(path, at);
  }
  return from;
}

void leave(AlongPath& path, Vec2 at) {
  path.left_at = at;
  path.left_for = path.next;
  path.since_left = 0;
}

Vec2 with_ease(AlongPath& path, Vec2 at, float seconds) {
  if (path.speed <= 0) return at;
  if (path.since_left < 0) leave(path, at);
  for (std::size_t points = 0; points <= path.points.size() && seconds > 0; ++points) {
    seconds = after_waiting(path, seconds);
    if (seconds <= 0) break;
    path.left_for = std::min(path.left_for, count_of(path) - 1);
    const Leg leg = leg_of(path);
    const float whole = leg.length / path.speed;
    path.since_left += seconds;
    if (path.since_left < whole)
      return on_leg(path, leg.length * std::clamp(eased(path.ease, path.since_left / whole), 0.0f, 1.0f));
    seconds = path.since_left - whole;
    at = point_of(path, leg.stop);
    path.next = leg.stop;
    path.waiting = wait_at(path, path.next);
    choose_next(path);
    leave(path, at);
  }
  return at;
}

}  // namespace

Vec2 along_path(AlongPath& path, Vec2 at, float seconds) {
  return path.ease == Ease::linear ? at_same_pace(path, at, seconds) : with_ease(path, at, seconds);
}

}  // namespace vole
