// The part of a stage that is about time: names that are told now, later, or again and again.
//
//   stage.after(60, "frost");
//   stage.every(0.5f, "drip", tap, {.spread = 0.1f, .times = 20});
//   fmt::format("{:.0f} seconds", stage.time_left("frost"));   // a countdown
//
// All of it is counted in ticks of the scene, and stands still while the scene has none. What is about a thing goes with it.
#pragma once

#include <cstdint>
#include <string_view>

#include "vole/base/entity.hpp"

namespace vole {

class Cues;
class World;

// How what comes again and again does so.
struct Again {
  float spread = 0;  // seconds that each may be sooner or later, by chance
  int times = 0;     // 0: without end
  float lasts = 0;   // seconds, after which none comes; 0: without end
};

class StageTime {
 public:
  // Tells a name, about a thing or about none: its cue is called in this tick, or in the next when all names of this one have been told.
  // These throw Error when the scene has no cue for it.
  void tell(std::string_view name, Entity about = {});
  // The same after so many seconds, and up to `spread` seconds sooner or later by chance.
  void after(float seconds, std::string_view name, Entity about = {}, float spread = 0);
  // Every so many seconds, for the first time when they have passed once.
  void every(float seconds, std::string_view name, Entity about = {}, const Again& again = {});

  // These are about all timers of a name; with a thing, about those of the thing alone.
  void cancel(std::string_view name, Entity about = {});
  // They stand still, and go on with what was left.
  void stop_timer(std::string_view name, Entity about = {});
  void start_timer(std::string_view name, Entity about = {});
  bool has_timer(std::string_view name, Entity about = {}) const;
  // Seconds until the next of them is told; 0 where there is none.
  float time_left(std::string_view name, Entity about = {}) const;

 protected:
  StageTime(World& world, int ticks_per_second) : world_(world), ticks_per_second_(ticks_per_second) {}
  ~StageTime() = default;
  void expect_cue(std::string_view name) const;
  // The nearest whole number, at least 1.
  std::int64_t in_ticks(float seconds) const;

  World& world_;
  const int ticks_per_second_;

 private:
  friend class RunningScene;
  std::int64_t spread_in_ticks(float seconds) const;

  const Cues* cues_ = nullptr;  // once the scene has said them
};

}  // namespace vole
