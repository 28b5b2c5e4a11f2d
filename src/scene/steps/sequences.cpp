// Sequences take their steps.
#include <fmt/core.h>

#include <utility>

#include "scene/cue_call.hpp"
#include "scene/sequences/taking_steps.hpp"
#include "vole/input/intent.hpp"
#include "vole/scene/stage_sequences.hpp"

namespace vole {
namespace {

// With the life of their things.
void begin_own(Tick& tick) {
  Entities& entities = tick.world.entities;
  if (!entities.any<Sequences>()) return;
  entities.visit<Sequences>([&](Entity thing, const Sequences& its) {
    if (entities.has<SequencesBegun>(thing) || tick.stage.removed(thing)) return;
    entities.add<SequencesBegun>(thing);
    for (const NamedItem<Sequence>& each : its.all)
      if (each.value.starts)
        call_cue(
            tick, [&] { return fmt::format("in the sequences of {}", described_thing(tick.stage, thing)); },
            [&] { tick.stage.start_sequence(each.name, thing); });
  });
}

void take_over(Tick& tick) {
  const RunningSequences& all = tick.world.sequences;
  if (all.taking_over() == 0) return;
  for (std::size_t i = 0; i < all.size(); ++i)
    if (all.at(i).takes_over && tick.goes_on(all.at(i).owner))
      if (Intent* const intent = tick.world.entities.find<Intent>(all.at(i).owner)) *intent = {};
}

// Whether it goes on after this.
bool takes_steps(Tick& tick, std::size_t place) {
  TakingSteps steps(tick, place);
  try {
    const std::int64_t ticks = steps.go_on();
    if (ticks > 0) tick.world.sequences.sleep(place, ticks);
    return ticks > 0;
  } catch (const std::exception&) {
    note_thrown(tick.problems, steps.where());
    let_go(tick.world.entities, tick.world.sequences.at(place));
    return false;
  }
}

}  // namespace

void run_sequences(Tick& tick) {
  begin_own(tick);
  RunningSequences& all = tick.world.sequences;
  if (all.empty()) return;
  take_over(tick);
  const auto next = [&](std::size_t place) {
    if (!tick.has_own_times) return all.wake_next(place);
    while (place < all.size() && !(tick.goes_on(all.at(place).owner) && all.wakes(place))) ++place;
    return place;
  };
  for (std::size_t i = next(0); i < all.size(); i = next(i))
    if (takes_steps(tick, i))
      ++i;
    else
      all.remove_at(i);
  hear_told(tick);
}

void hear_sequences(Tick& tick, const Told& told) {
  RunningSequences& all = tick.world.sequences;
  for (std::size_t i = 0; i < all.size(); ++i) {
    RunningSequence& running = all.at(i);
    if (!running.listens || (told.entity && told.entity != running.owner)) continue;
    for (SequenceBranch& branch : running.branches) {
      const SequenceStep* const step = branch.over ? nullptr : step_of(tick.world.entities, running, branch);
      if (!step || step->does != StepDoes::wait_for || step->told.value != told.name) continue;
      branch.heard = true;
      all.wake(i);
    }
  }
}

void hurry_sequences(Tick& tick) {
  RunningSequences& all = tick.world.sequences;
  if (all.hurried() == 0) return;
  for (std::size_t i = 0; i < all.size(); ++i)
    if (const RunningSequence& running = all.at(i);
        !running.hurried_by.empty() && tick.world.input.pressed(running.hurried_by))
      tick.stage.hurry_sequence(running.name, running.owner);
}

}  // namespace vole
