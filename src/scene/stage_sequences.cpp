#include "vole/scene/stage_sequences.hpp"

#include <fmt/core.h>

#include "sequences/said.hpp"
#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/scene/steps.hpp"
#include "vole/world/binding.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/world.hpp"

namespace vole {

void StageSequences::expect_told(const Sequence& sequence) const {
  if (!sequence.hurried_by.value.empty())
    static_cast<void>(world_.input.action_state(sequence.hurried_by.value, 1, sequence.hurried_by.where));
  for (const Located<SequenceStep>& step : sequence.steps)
    if (step.value.does == StepDoes::tell) expect_cue(step.value.told.value);
}

void StageSequences::start(RunningSequence running) {
  const Sequence& first = *sequence_of(world_.entities, running, running.branches[0].list);
  running.hurried_by = first.hurried_by.value;
  running.takes_over = first.takes_over;
  cancel_sequence(running.name, running.owner);
  world_.sequences.add(std::move(running));
}

void StageSequences::start_sequence(std::string_view name, Entity thing) {
  if (world_.entities.removed(thing)) return;
  Sequences* const its = world_.entities.find<Sequences>(thing);
  const std::size_t place = its ? its->find(name) : 0;
  if (!its || place == its->all.size()) {
    const KindOf* const kind = world_.entities.find<KindOf>(thing);
    throw Error(FilePosition{},
                fmt::format("no sequence \"{}\" of \"{}\"", name, kind ? kind->name : std::string()),
                its ? did_you_mean(name, names_of(its->all)) : std::string());
  }
  for (NamedItem<Sequence>& each : its->all) {
    expect_told(each.value);
    read_conditions(each.value);
  }
  RunningSequence running;
  running.name = name;
  running.owner = thing;
  running.branches.push_back({.list = static_cast<std::uint32_t>(place)});
  start(std::move(running));
}

void StageSequences::start_sequence(std::string_view name, const Steps& steps, Entity thing) {
  if (thing && world_.entities.removed(thing)) return;
  RunningSequence running;
  running.name = name;
  running.owner = thing;
  running.own = steps.lists(binding_.types);
  for (Sequence& list : running.own) {
    expect_told(list);
    read_conditions(list);
  }
  running.branches.emplace_back();
  start(std::move(running));
}

void StageSequences::cancel_sequence(std::string_view name, Entity thing) {
  const RunningSequence* const running = world_.sequences.find(name, thing);
  if (!running) return;
  let_go(world_.entities, *running);
  world_.sequences.remove(name, thing);
}

void StageSequences::hurry_sequence(std::string_view name, Entity thing) {
  RunningSequence* const running = world_.sequences.find(name, thing);
  if (!running) return;
  for (SequenceBranch& branch : running->branches) branch.hurried = branch.begun && !branch.over;
  world_.sequences.wake(static_cast<std::size_t>(running - &world_.sequences.at(0)));
}

bool StageSequences::has_sequence(std::string_view name, Entity thing) const {
  return std::as_const(world_).sequences.find(name, thing) != nullptr;
}

std::string_view StageSequences::sequence_step(std::string_view name, Entity thing) const {
  const RunningSequence* const running = std::as_const(world_).sequences.find(name, thing);
  if (!running) return {};
  for (const SequenceBranch& branch : running->branches)
    if (const SequenceStep* const step = branch.over ? nullptr : step_of(world_.entities, *running, branch);
        step && !step->name.empty())
      return step->name;
  return {};
}

std::vector<Said> StageSequences::said() const {
  std::vector<Said> said;
  visit_said(world_, ticks_per_second_, [&said](const Said& each) { said.push_back(each); });
  return said;
}

void StageSequences::show_said(bool shows) {
  world_.shows_said = shows;
}

}  // namespace vole
