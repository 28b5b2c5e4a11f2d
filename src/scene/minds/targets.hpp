// The things of a kind or tag that minds are about: found once a tick, however many minds ask.
#pragma once

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "vole/scene/stage.hpp"

namespace vole {

struct Target {
  Entity thing;
  Vec2 at{0, 0};  // the middle of its body, or its position
};

class Targets {
 public:
  // For another tick.
  void forget() { by_name_.clear(); }
  // The nearest that is less than so many pixels away, and is not the one that asks; of several at once the one with the smallest
  // index.
  std::optional<Target> nearest(const Stage& stage, const std::string& kind_or_tag, Entity asking, Vec2 from,
                                float within);

 private:
  // All of a name, in rows of so many pixels, each from left to right.
  struct Rows {
    std::vector<Target> all;
    std::vector<std::size_t> begins;  // of each row, and the end of the last
    std::int64_t first = 0;           // the number of the first

    // The place of the row in which something at this height is; below 0 for what is above all.
    std::int64_t place(float y) const;
    void put(const std::vector<Target>& found);
  };
  const Rows& rows(const Stage& stage, const std::string& kind_or_tag);

  std::map<std::string, Rows, std::less<>> by_name_;
  std::vector<Target> found_;  // memory that is used again
};

}  // namespace vole
