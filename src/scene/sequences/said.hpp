// What sequences say at the moment.
#pragma once

#include "step_deeds.hpp"
#include "vole/scene/stage_sequences.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Calls visit(said) for each text, as far as it is shown by now; all: as it will be.
template <class Visit>
void visit_said(const World& world, int ticks_per_second, const Visit& visit) {
  const RunningSequences& running = world.sequences;
  for (std::size_t i = 0; i < running.size(); ++i)
    for (const SequenceBranch& branch : running.at(i).branches) {
      const SequenceStep* const step =
          branch.over || !branch.begun ? nullptr : step_of(world.entities, running.at(i), branch);
      if (!step || step->does != StepDoes::say) continue;
      const std::int64_t ticks = branch.ticks + running.slept(i);
      visit(Said{branch.thing, shown_letters(step->text, ticks, ticks_per_second), step->text});
    }
}

}  // namespace vole
