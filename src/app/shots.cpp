#include "vole/app/shots.hpp"

#include <fmt/core.h>

#include <cstdio>

namespace vole {

Shots::Shots(std::vector<Shot> shots, Save save) : shots_(std::move(shots)), save_(std::move(save)) {}

void Shots::save_due(std::int64_t ticks, std::string_view scene) const {
  for (const Shot& shot : shots_)
    if (shot.tick == ticks) save(shot, ticks, scene);
}

bool Shots::save_last(std::int64_t ticks, std::string_view scene) const {
  bool all_saved = true;
  for (const Shot& shot : shots_) {
    if (!shot.tick) save(shot, ticks, scene);
    if (!shot.tick || *shot.tick <= ticks) continue;
    all_saved = false;
    fmt::print(stderr, "{}: error: not saved: the run ended at tick {}, before {}\n", shot.file, ticks,
               *shot.tick);
  }
  return all_saved;
}

void Shots::save(const Shot& shot, std::int64_t ticks, std::string_view scene) const {
  save_(shot.file);
  fmt::print("{}: {} at tick {}\n", shot.file, scene, ticks);
}

}  // namespace vole
