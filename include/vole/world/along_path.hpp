// Goes along a path by itself, and carries what stands on it. In kinds.toml, or for a place of a level:
//
//   along_path = { points = [[0, 0], [0, -64]], speed = 30, pause = 0.5 }     # from where the thing was put
//   along_path = { path = "round", speed = 30 }                               # of the level: see level_path.hpp
//
//   along_path = { path = "round", ease = "sine both", waits = [1, 0, 0.5] }  # seconds at each of its points
//
// On a path of the level it begins at the spot that is nearest to where it was put, and pauses at the path's ends alone. With `ease` it
// speeds up after each stop and slows down before the next, in the time that it takes without.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/easing.hpp"
#include "vole/base/vec.hpp"

namespace vole {

class InLevel;
class OfKind;

// What comes at the last point: back the same way; on to the first; nothing.
enum class PathEnd : std::uint8_t { back, loop, stop };
constexpr auto enum_names(PathEnd) {
  return std::array<std::string_view, 3>{"back", "loop", "stop"};
}

struct AlongPath {
  std::vector<Vec2> points;   // from `start`; of a path of the level too, once it is under way
  Located<std::string> path;  // of the level
  float speed = 30;           // pixels a second
  float pause = 0;            // seconds at each point
  std::vector<float> waits;   // the same of each point by its number, in place of pause
  Ease ease = Ease::linear;   // between two stops: points at which it waits, and ends
  PathEnd end = PathEnd::back;
  bool runs = true;  // may be stopped and set going at any time

  bool begun = false;
  Vec2 start{0, 0};        // where the thing was put
  std::uint32_t next = 0;  // the point that it is on its way to
  bool goes_back = false;
  float waiting = 0;  // seconds yet
  // The stop from which it came, with `ease`: where, the point after it, and seconds since.
  Vec2 left_at{0, 0};
  std::uint32_t left_for = 0;
  float since_left = -1;  // below 0: it has not left yet
};
template <class V>
void describe(V& v, AlongPath& path) {
  v("points", path.points, within(-65536, 65536).items(256));
  v("path", path.path);
  v("speed", path.speed, within(0, 100000));
  v("pause", path.pause, within(0, 3600));
  v("waits", path.waits, within(0, 3600).items(65536));
  v("ease", path.ease);
  v("end", path.end);
  v("runs", path.runs);
  v.state("begun", path.begun);
  v.state("start", path.start, position());
  v.state("next", path.next);
  v.state("goes_back", path.goes_back);
  v.state("waiting", path.waiting);
  v.state("left_at", path.left_at, position());
  v.state("left_for", path.left_for);
  v.state("since_left", path.since_left);
}

class World;

// Takes the points of the path that it names, from the file that its thing comes from: the level's, or a piece's. Leaves it as it
// is where that is not there any more.
void take_path(AlongPath& mover, Entity thing, const World& world);

void need(AlongPath& along, const OfKind& kind);
void expect(const AlongPath& along, const InLevel& in);

}  // namespace vole
