// A way through a level, by name: for movers, cameras and code.
//
//   [[paths]]
//   name = "round"
//   points = [[16, 40], [80, 40], [80, 90]]     # in pixels; or cells = [[1, 2], [5, 2]], by their middles
//   closed = true                               # back to the first point
//   curved = true                               # bent through all points
//
//   const LevelPath& round = stage.path("round");
//   pose.at = round.at(12.5f);                  # pixels along it
//
// Curves are centripetal (E. Catmull and R. Rom, 1974; P. Barry and R. Goldman, 1988; C. Yuksel and others, 2011), taken as
// 16 straight parts from point to point.
#pragma once

#include <string>
#include <vector>

#include "vole/base/error.hpp"
#include "vole/base/vec.hpp"

namespace vole {

class LevelPath {
 public:
  std::string name;
  FilePosition where;

  LevelPath() = default;
  // At least two points, which lie apart.
  LevelPath(std::string its_name, const std::vector<Vec2>& points, bool closed, bool is_curved,
            FilePosition at = {});

  bool closed() const { return closed_; }
  // The corners of what is gone along, the first once more at the end of a closed one.
  const std::vector<Vec2>& line() const { return line_; }
  // In pixels.
  float length() const { return along_.empty() ? 0 : along_.back(); }
  // So many pixels from the start: of a closed one on and on, of an open one no further than its ends.
  Vec2 at(float distance) const;
  // Of unit length.
  Vec2 direction(float distance) const;
  // The corner of the line that comes next after so many pixels.
  std::size_t next_corner(float distance) const { return part_at(distance) + 1; }
  // How far along it is nearest to a point: of several the first.
  float nearest(Vec2 point) const;
  // The same way, elsewhere.
  LevelPath moved_by(Vec2 by) const;

 private:
  std::size_t part_at(float& distance) const;

  bool closed_ = false;
  std::vector<Vec2> line_;
  std::vector<float> along_;  // pixels from the start, of each corner
};

}  // namespace vole
