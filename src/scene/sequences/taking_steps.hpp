// A running sequence takes its steps: as many in a tick as are over in it.
#pragma once

#include "scene/tick.hpp"
#include "vole/world/running_sequences.hpp"

namespace vole {

inline constexpr int most_steps_in_a_tick = 10'000;
inline constexpr std::size_t most_branches = 1024;
inline constexpr int most_branches_within = 32;  // one in another
inline constexpr std::int64_t no_wake = INT32_MAX;

class TakingSteps {
 public:
  // Of the sequence at this place.
  TakingSteps(Tick& tick, std::size_t place);

  // Throws Error for a step that cannot be taken, and for sequences that go in a circle without waiting. Returns the ticks for which there is
  // nothing to do after this one; 0: the sequence is over.
  std::int64_t go_on();
  // Words for a message: 'the step 2 "on the way" of the sequence "arrival" of the "cart" (thing 3)'.
  std::string where() const;

 private:
  void visit(std::uint32_t branch, int within);
  void take_steps(std::uint32_t branch, int within);
  void add_branches(std::uint32_t branch, const SequenceStep& step, int within);
  RunningSequence& running() const { return tick_.world.sequences.at(place_); }

  Tick& tick_;
  std::size_t place_;
  std::uint32_t at_ = 0;  // the branch whose step is taken
  int taken_ = 0;
};

}  // namespace vole
