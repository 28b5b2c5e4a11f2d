#include "taking_steps.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "scene/cue_call.hpp"
#include "step_deeds.hpp"
#include "vole/base/error.hpp"

namespace vole {

TakingSteps::TakingSteps(Tick& tick, std::size_t place) : tick_(tick), place_(place) {}

std::int64_t TakingSteps::go_on() {
  const std::int64_t slept = tick_.world.sequences.slept(place_);
  for (SequenceBranch& branch : running().branches)
    if (!branch.over) branch.ticks = std::min(branch.ticks + slept, static_cast<std::int64_t>(most_ticks));
  visit(0, 0);
  if (running().branches[0].over) return 0;
  running().listens = false;
  std::int64_t least = no_wake;
  for (const SequenceBranch& branch : running().branches) {
    if (branch.over || branch.waits_for > 0) continue;
    const SequenceStep* const step = step_of(tick_.world.entities, running(), branch);
    if (!step) continue;
    least = std::min(least, ticks_until_due(*step, branch, tick_.setting.ticks_per_second));
    if (step->does == StepDoes::wait_for) running().listens = true;
  }
  return least;
}

// Those that a branch waits for go on before it, so that it can go on in the tick in which they are over.
void TakingSteps::visit(std::uint32_t branch, int within) {
  if (running().branches[branch].waits_for > 0)
    for (std::uint32_t other = 1; other < running().branches.size(); ++other) {
      const SequenceBranch& inner = running().branches[other];
      if (!inner.over && other != branch && inner.parent == static_cast<std::int32_t>(branch) &&
          within < most_branches_within)
        visit(other, within + 1);
    }
  take_steps(branch, within);
}

void TakingSteps::take_steps(std::uint32_t branch, int within) {
  for (;;) {
    at_ = branch;
    if (++taken_ > most_steps_in_a_tick)
      throw Error(FilePosition{},
                  fmt::format("it takes more than {} steps in one tick", most_steps_in_a_tick),
                  "have it wait somewhere in what it repeats");
    SequenceBranch& now = running().branches[branch];
    if (now.begun && now.waits_for > 0) return;
    const Sequence* const sequence = sequence_of(tick_.world.entities, running(), now.list);
    if (sequence && now.step >= sequence->steps.size() && now.rounds != 1 && !sequence->steps.empty()) {
      if (now.rounds > 0) --now.rounds;
      now.step = 0;
    }
    const SequenceStep* const step = step_of(tick_.world.entities, running(), now);
    if (!step) break;
    if (!now.begun) {
      now.begun = true;
      now.heard = now.hurried = false;
      now.ticks = 0;
      if (step->deed().takes_sequences())
        add_branches(branch, *step, within);
      else
        StepWork(tick_, running(), now, *step).begin();
    }
    // By its place: branches may have been added.
    SequenceBranch& same = running().branches[branch];
    if (same.waits_for > 0 || !StepWork(tick_, running(), same, *step).is_over()) return;
    same.begun = false;
    ++same.step;
  }
  SequenceBranch& done = running().branches[branch];
  done.over = true;
  if (branch == 0 || done.parent < 0 || static_cast<std::size_t>(done.parent) >= running().branches.size())
    return;
  SequenceBranch& parent = running().branches[static_cast<std::size_t>(done.parent)];
  if (parent.waits_for > 0) --parent.waits_for;
}

void TakingSteps::add_branches(std::uint32_t branch, const SequenceStep& step, int within) {
  std::vector<SequenceBranch>& branches = running().branches;
  if (within + 1 >= most_branches_within)
    throw Error(FilePosition{},
                fmt::format("sequences are more than {} deep in one another", most_branches_within));
  const std::int64_t rounds = step.does == StepDoes::repeat ? step.times : 1;
  branches[branch].waits_for = static_cast<std::uint32_t>(step.lists.size());
  for (const std::uint32_t list : step.lists) {
    const auto free = std::find_if(branches.begin() + 1, branches.end(),
                                   [](const SequenceBranch& other) { return other.over; });
    const auto place = static_cast<std::uint32_t>(free - branches.begin());
    if (place >= most_branches)
      throw Error(FilePosition{}, fmt::format("more than {} sequences go on side by side", most_branches));
    if (free == branches.end()) branches.emplace_back();
    branches[place] = {.list = list, .rounds = rounds, .parent = static_cast<std::int32_t>(branch)};
    take_steps(place, within + 1);
  }
}

std::string TakingSteps::where() const {
  const SequenceBranch& branch = running().branches[at_];
  const SequenceStep* const step = step_of(tick_.world.entities, running(), branch);
  const std::string named = step && !step->name.empty() ? fmt::format(" \"{}\"", step->name) : std::string();
  const std::string owner =
      running().owner ? fmt::format(" of {}", described_thing(tick_.stage, running().owner)) : std::string();
  return fmt::format("in step {}{} of the sequence \"{}\"{}", branch.step + 1, named, running().name, owner);
}

}  // namespace vole
