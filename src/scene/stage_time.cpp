#include "vole/scene/stage_time.hpp"

#include <algorithm>

#include "vole/base/within.hpp"
#include "vole/scene/cues.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Before the scene has said its cues this is not known; RunningScene checks what waits when it has.
void StageTime::expect_cue(std::string_view name) const {
  if (cues_) cues_->expect_name(name);
}

std::int64_t StageTime::in_ticks(float seconds) const {
  const double ticks = static_cast<double>(brought_within_seconds(seconds)) * ticks_per_second_ + 0.5;
  return std::max<std::int64_t>(static_cast<std::int64_t>(ticks), 1);
}

std::int64_t StageTime::spread_in_ticks(float seconds) const {
  const float brought = brought_within_seconds(seconds);
  return brought > 0 ? in_ticks(brought) : 0;
}

void StageTime::tell(std::string_view name, Entity about) {
  expect_cue(name);
  world_.told.push_back({std::string(name), about});
}

void StageTime::after(float seconds, std::string_view name, Entity about, float spread) {
  expect_cue(name);
  const std::int64_t off = spread_in_ticks(spread);
  world_.timers.add({.name = std::string(name), .entity = about, .spread = off}, in_ticks(seconds),
                    world_.random);
}

void StageTime::every(float seconds, std::string_view name, Entity about, const Again& again) {
  expect_cue(name);
  Timer timer{.name = std::string(name), .entity = about, .every = in_ticks(seconds)};
  timer.spread = spread_in_ticks(again.spread);
  timer.times = std::max(again.times, 0);
  if (const float lasts = brought_within_seconds(again.lasts); lasts > 0) {
    const std::int64_t in_time = in_ticks(lasts) / timer.every;
    if (in_time == 0) return;
    timer.times = timer.times > 0 ? std::min(timer.times, in_time) : in_time;
  }
  const std::int64_t first = timer.every;
  world_.timers.add(std::move(timer), first, world_.random);
}

void StageTime::cancel(std::string_view name, Entity about) {
  world_.timers.cancel(name, about);
}
void StageTime::stop_timer(std::string_view name, Entity about) {
  world_.timers.stop(name, about);
}
void StageTime::start_timer(std::string_view name, Entity about) {
  world_.timers.go_on(name, about);
}
bool StageTime::has_timer(std::string_view name, Entity about) const {
  return world_.timers.has(name, about);
}
float StageTime::time_left(std::string_view name, Entity about) const {
  return static_cast<float>(world_.timers.left(name, about)) / static_cast<float>(ticks_per_second_);
}

}  // namespace vole
