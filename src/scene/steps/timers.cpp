// Names whose time has come, and what happens every so often.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <utility>

#include "scene/cue_call.hpp"

namespace vole {
namespace {

// Whether a whole number of intervals ends with this tick: worked out from the time alone, so that there is nothing to
// keep and nothing drifts.
bool is_due(float seconds, std::int64_t ticks, int ticks_per_second) {
  const double interval = std::max(static_cast<double>(seconds) * ticks_per_second, 1.0);
  const auto passed = [interval](std::int64_t at) { return std::floor(static_cast<double>(at) / interval); };
  return passed(ticks + 1) > passed(ticks);
}

}  // namespace

void hear_told(Tick& tick) {
  tick.memory.told.swap(tick.world.told);
  tick.world.told.clear();
  for (const Told& told : tick.memory.told) {
    if (told.entity && tick.stage.removed(told.entity)) continue;
    hear_sequences(tick, told);
    for (std::size_t i = 0; i < tick.cues.names().size(); ++i)
      if (tick.cues.names()[i].name == told.name)
        call_cue(
            tick,
            [&] {
              return told.entity ? fmt::format("when \"{}\" was told about {}", told.name,
                                               described_thing(tick.stage, told.entity))
                                 : fmt::format("when \"{}\" was told", told.name);
            },
            [&] { tick.cues.names()[i].handler(tick.stage, told.entity); });
  }
  tick.memory.told.clear();
}

namespace {

void hear_answers(Tick& tick) {
  const std::vector<SaveAnswer> answers = std::exchange(tick.world.answers, {});
  for (const SaveAnswer& answer : answers)
    for (std::size_t i = 0; i < tick.cues.saved().size(); ++i)
      call_cue(
          tick,
          [&] {
            return fmt::format("when \"{}\" was {}", answer.name,
                               enum_names(answer.done)[static_cast<std::size_t>(answer.done)]);
          },
          [&] { tick.cues.saved()[i](tick.stage, answer); });
}

}  // namespace

void run_timers(Tick& tick) {
  if (!tick.world.answers.empty()) hear_answers(tick);
  tick.world.timers.pass(tick.world.random, tick.world.told);
  hear_told(tick);
  for (const Cues::Interval& interval : tick.cues.intervals())
    if (is_due(interval.seconds, tick.world.ticks, tick.setting.ticks_per_second))
      call_cue(
          tick, [&] { return fmt::format("in what is done every {} seconds", interval.seconds); },
          [&] { interval.handler(tick.stage); });
}

}  // namespace vole
