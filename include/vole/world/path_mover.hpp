// Goes along a path by itself, and carries what stands on it. In kinds.toml, or for a place of a level:
//
//   path_mover = { points = [[0, 0], [0, -64]], speed = 30, pause = 0.5 }     # from where the thing was put
//   path_mover = { path = "round", speed = 30 }                               # of the level: see level_path.hpp
//
// On a path of the level it begins at the spot that is nearest to where it was put, and pauses at the path's ends alone.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// What comes at the last point: back the same way; on to the first; nothing.
enum class PathEnd : std::uint8_t { back, around, stay };
constexpr auto enum_names(PathEnd) {
  return std::array<std::string_view, 3>{"back", "around", "stay"};
}

struct PathMover {
  std::vector<Vec2> points;   // from `start`; of a path of the level too, once it is under way
  Located<std::string> path;  // of the level
  float speed = 30;           // pixels a second
  float pause = 0;            // seconds at each point
  PathEnd end = PathEnd::back;
  bool runs = true;  // may be stopped and set going at any time

  bool begun = false;
  Vec2 start{0, 0};        // where the thing was put
  std::uint32_t next = 0;  // the point that it is on its way to
  bool goes_back = false;
  float waits = 0;  // seconds yet
};
template <class V>
void describe(V& v, PathMover& path) {
  v("points", path.points, within(-65536, 65536).items(256));
  v("path", path.path);
  v("speed", path.speed, within(0, 100000));
  v("pause", path.pause, within(0, 3600));
  v("end", path.end);
  v("runs", path.runs);
  v.state("begun", path.begun);
  v.state("start", path.start, position());
  v.state("next", path.next);
  v.state("goes_back", path.goes_back);
  v.state("waits", path.waits);
}

class World;

// Takes the points of the path that it names, from the file that its thing comes from: the level's, or a piece's. Leaves it as it
// is where that is not there any more.
void take_path(PathMover& mover, Entity thing, const World& world);

}  // namespace vole
