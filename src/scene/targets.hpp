// The things of a kind or tag that minds are about: found once a tick, however many minds ask.
#pragma once

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
  const std::vector<Target>& all(const Stage& stage, const std::string& kind_or_tag);

  std::map<std::string, std::vector<Target>, std::less<>> by_name_;  // each in rows, from left to right
};

}  // namespace vole
