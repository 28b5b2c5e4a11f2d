// What watched values have become is told when all else of the tick is done; what handlers change is told too.
#include "scene/cue_call.hpp"
#include "scene/tick.hpp"
#include "vole/scene/watched.hpp"

namespace vole {

void tell_values(Tick& tick) {
  constexpr int most_rounds = 16;
  for (int round = 0; round < most_rounds; ++round) {
    bool any = false;
    for (std::size_t i = 0; i < tick.watched.size(); ++i)
      call_cue(
          tick, [] { return std::string("when a value changed"); },
          [&] {
            const bool told = tick.watched[i]->tell(tick.stage, tick.world.watched[i]);
            any = any || told;
          });
    if (!any) return;
    remove_things(tick);
  }
  tick.problems.push_back({FilePosition{}, Severity::error,
                           "cues for changed values change values without end",
                           "they are told 16 times in a tick at most"});
}

}  // namespace vole
