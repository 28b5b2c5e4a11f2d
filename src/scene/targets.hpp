// The things of a kind or tag that minds are about: found once a tick, however many minds ask.
#pragma once

#include <cstdint>
#include <map>
#include <optional>
#include <string>
#include <utility>
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
  struct Placed {
    std::int32_t row = 0;
    Target target;
  };
  // All of a name, row by row, each from left to right; and where each row that has some begins.
  struct Rows {
    std::vector<Placed> all;
    std::vector<std::pair<std::int32_t, std::size_t>> begins;

    std::size_t end(std::size_t row) const {
      return row + 1 < begins.size() ? begins[row + 1].second : all.size();
    }
  };
  const Rows& rows(const Stage& stage, const std::string& kind_or_tag);

  std::map<std::string, Rows, std::less<>> by_name_;
};

}  // namespace vole
