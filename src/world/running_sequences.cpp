#include "vole/world/running_sequences.hpp"

#include <algorithm>

#include "vole/input/intent.hpp"
#include "vole/world/entities.hpp"
#include "vole/world/sprite.hpp"

namespace vole {

void RunningSequences::count(const RunningSequence& running, int by) {
  if (!running.hurried_by.empty()) hurried_ += by;
  if (running.takes_over) taking_over_ += by;
}

void RunningSequences::add(RunningSequence sequence) {
  count(sequence, 1);
  all_.push_back(std::move(sequence));
  left_.push_back(1);
}

void RunningSequences::remove_at(std::size_t place) {
  count(all_[place], -1);
  all_.erase(all_.begin() + static_cast<std::ptrdiff_t>(place));
  left_.erase(left_.begin() + static_cast<std::ptrdiff_t>(place));
}

void RunningSequences::remove(std::string_view name, Entity owner) {
  if (const RunningSequence* const found = find(name, owner))
    remove_at(static_cast<std::size_t>(found - all_.data()));
}

const RunningSequence* RunningSequences::find(std::string_view name, Entity owner) const {
  const auto found = std::find_if(all_.begin(), all_.end(), [&](const RunningSequence& running) {
    return running.owner == owner && running.name == name;
  });
  return found == all_.end() ? nullptr : &*found;
}
RunningSequence* RunningSequences::find(std::string_view name, Entity owner) {
  return const_cast<RunningSequence*>(std::as_const(*this).find(name, owner));
}

void RunningSequences::sleep(std::size_t place, std::int64_t ticks) {
  left_[place] = static_cast<std::int32_t>(std::clamp<std::int64_t>(ticks, 1, INT32_MAX));
  all_[place].slept = left_[place];
}

void RunningSequences::wake(std::size_t place) {
  all_[place].slept = slept(place) + 1;
  left_[place] = 1;
}

void RunningSequences::make_fit() {
  left_.resize(all_.size(), 1);
  hurried_ = taking_over_ = 0;
  for (RunningSequence& running : all_) {
    count(running, 1);
    if (running.branches.empty()) running.branches.resize(1);
  }
}

const Sequence* sequence_of(const Entities& entities, const RunningSequence& running, std::uint32_t list) {
  if (!running.own.empty()) return list < running.own.size() ? &running.own[list] : nullptr;
  const Sequences* const its = entities.find<Sequences>(running.owner);
  return its && list < its->all.size() ? &its->all[list].value : nullptr;
}

const SequenceStep* step_of(const Entities& entities, const RunningSequence& running,
                            const SequenceBranch& branch) {
  const Sequence* const sequence = sequence_of(entities, running, branch.list);
  return sequence && branch.step < sequence->steps.size() ? &sequence->steps[branch.step].value : nullptr;
}

void let_go(Entities& entities, const SequenceBranch& branch, const SequenceStep& step) {
  if (!branch.begun || branch.over) return;
  if (step.does == StepDoes::play)
    if (Sprite* const sprite = entities.find<Sprite>(branch.thing)) sprite->playing.let_go();
  if (step.does == StepDoes::go)
    if (Intent* const intent = entities.find<Intent>(branch.thing)) *intent = {};
}

void let_go(Entities& entities, const RunningSequence& running) {
  for (const SequenceBranch& branch : running.branches)
    if (const SequenceStep* const step = step_of(entities, running, branch)) let_go(entities, branch, *step);
}

}  // namespace vole
