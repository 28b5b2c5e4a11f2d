// Sequences (sequence.hpp) that are under way, as state.
//
// One that waits for its time costs as much as a counter that is counted down.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "vole/world/sequence.hpp"

namespace vole {

class Entities;

// Where a list of steps is: of the sequence itself, or of one that it does together with others or repeats.
struct SequenceBranch {
  std::uint32_t list = 0;  // which sequence, by its place among those of the thing or of the code
  std::uint32_t step = 0;
  std::int64_t rounds = 1;      // that are left, with this one; 0: without end
  std::int64_t ticks = 0;       // of the step
  std::int32_t parent = -1;     // the branch that waits for it
  std::uint32_t waits_for = 0;  // branches
  bool begun = false;           // the step
  bool heard = false;           // the name that the step waits for was told
  bool hurried = false;
  bool over = false;
  Entity thing = {};           // that the step is about
  std::uint32_t starts = 0;    // of the clip that the step plays
  float nearest = 0;           // pixels to where the step goes to
  std::int64_t no_nearer = 0;  // ticks in which it has come no nearer
};
template <class V>
void describe(V& v, SequenceBranch& branch) {
  v.state("list", branch.list);
  v.state("step", branch.step);
  v.state("rounds", branch.rounds, within(0, most_ticks));
  v.state("ticks", branch.ticks, within(0, most_ticks));
  v.state("parent", branch.parent);
  v.state("waits_for", branch.waits_for);
  v.state("begun", branch.begun);
  v.state("heard", branch.heard);
  v.state("hurried", branch.hurried);
  v.state("over", branch.over);
  v.state("thing", branch.thing);
  v.state("starts", branch.starts);
  v.state("nearest", branch.nearest);
  v.state("no_nearer", branch.no_nearer, within(0, most_ticks));
}

struct RunningSequence {
  std::vector<SequenceBranch> branches;  // the first is the sequence itself
  std::vector<Sequence>
      own;                 // what code has written, the one that was begun first; empty: those of the thing
  Entity owner;            // none: the scene
  std::int64_t slept = 1;  // ticks for which it is left alone, when it has something to do the next time
  bool takes_over = false;
  bool listens = false;    // a step waits for a name
  std::string hurried_by;  // an action; empty: none
  std::string name;
};
template <class V>
void describe(V& v, RunningSequence& running) {
  v.state("name", running.name);
  v.state("owner", running.owner);
  v.state("own", running.own);
  v.state("branches", running.branches);
  v.state("hurried_by", running.hurried_by);
  v.state("takes_over", running.takes_over);
  v.state("listens", running.listens);
  v.state("slept", running.slept, within(0, most_ticks));
}

class RunningSequences {
 public:
  // There must be none of the same name and owner.
  void add(RunningSequence sequence);
  void remove(std::string_view name, Entity owner);
  // Takes away those for which gone(entity) is true of their owner.
  template <class Gone>
  void remove_of(const Gone& gone) {
    for (std::size_t i = all_.size(); i-- > 0;)
      if (all_[i].owner && gone(all_[i].owner)) remove_at(i);
  }
  // Hands those over whose owner is such a thing.
  template <class Which>
  std::vector<RunningSequence> hand_over(const Which& which) {
    std::vector<RunningSequence> handed;
    for (std::size_t i = 0; i < all_.size();)
      if (all_[i].owner && which(all_[i].owner)) {
        wake(i);
        count(all_[i], -1);
        handed.push_back(std::move(all_[i]));
        all_.erase(all_.begin() + static_cast<std::ptrdiff_t>(i));
        left_.erase(left_.begin() + static_cast<std::ptrdiff_t>(i));
      } else {
        ++i;
      }
    return handed;
  }
  bool empty() const { return all_.empty(); }
  std::size_t size() const { return all_.size(); }
  RunningSequence& at(std::size_t place) { return all_[place]; }
  const RunningSequence& at(std::size_t place) const { return all_[place]; }
  // nullptr when there is none.
  RunningSequence* find(std::string_view name, Entity owner);
  const RunningSequence* find(std::string_view name, Entity owner) const;
  void remove_at(std::size_t place);

  // One tick for the one at this place: whether it has something to do.
  bool wakes(std::size_t place) { return --left_[place] <= 0; }
  // The same for all from this place on, up to the first that has; size() when none has.
  std::size_t wake_next(std::size_t place) {
    while (place < left_.size() && --left_[place] > 0) ++place;
    return place;
  }
  // It has nothing to do for so many ticks.
  void sleep(std::size_t place, std::int64_t ticks);
  // Has it do something in its next tick, however long it would have slept.
  void wake(std::size_t place);
  // Ticks that it has slept for until now.
  std::int64_t slept(std::size_t place) const { return all_[place].slept - left_[place]; }
  // How many can be hurried, and how many take things over.
  int hurried() const { return hurried_; }
  int taking_over() const { return taking_over_; }

  template <class V>
  friend void describe(V& v, RunningSequences& sequences) {
    v.state("all", sequences.all_);
    v.state("left", sequences.left_);
  }
  // After reading: what was written by a hand need not fit together.
  void make_fit();

 private:
  void count(const RunningSequence& running, int by);

  std::vector<RunningSequence> all_;
  std::vector<std::int32_t>
      left_;  // ticks until each has something to do; beside them, so that they are counted down at once
  int hurried_ = 0, taking_over_ = 0;  // counted, so no state
};

// The sequence that a branch is in, of the running one's own or its owner's; nullptr where it is not there any more.
const Sequence* sequence_of(const Entities& entities, const RunningSequence& running, std::uint32_t list);
// The step that a branch is at; nullptr at its end.
const SequenceStep* step_of(const Entities& entities, const RunningSequence& running,
                            const SequenceBranch& branch);

// Lets go of what the step of a branch holds, where that ends in the middle: a clip, and the way that a thing is steered.
void let_go(Entities& entities, const SequenceBranch& branch, const SequenceStep& step);
// The same of all its branches.
void let_go(Entities& entities, const RunningSequence& running);

}  // namespace vole
