// Files that a run writes at a tick or at its end, as its options ask: pictures, or states.
#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/app/options.hpp"

namespace vole {

class Shots {
 public:
  // Writes the game as it stands to a file.
  using Save = std::function<void(const std::string& file)>;

  Shots(std::vector<Shot> shots, Save save);

  // Writes those of this tick.
  void save_due(std::int64_t ticks, std::string_view scene) const;
  // Writes those of the end, and reports which were not reached. Whether all were.
  bool save_last(std::int64_t ticks, std::string_view scene) const;

 private:
  void save(const Shot& shot, std::int64_t ticks, std::string_view scene) const;

  std::vector<Shot> shots_;
  Save save_;
};

}  // namespace vole
