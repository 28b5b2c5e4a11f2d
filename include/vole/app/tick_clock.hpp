// Turns the time that has passed into whole ticks: the same number a second on every machine, without drift.
#pragma once

#include <cstdint>

namespace vole {

class TickClock {
 public:
  // At most `most_at_once` ticks are caught up after a pause; the time beyond is dropped.
  explicit TickClock(int ticks_per_second, int most_at_once = 6);

  // Adds time in nanoseconds and returns how many ticks are due now. Time that runs backwards counts as none.
  int add(std::int64_t nanoseconds);
  // How far the time is between the last tick and the next, in [0, 1).
  float share_of_tick() const;

 private:
  std::int64_t rate_;
  std::int64_t most_;
  std::int64_t gathered_ =
      0;  // nanoseconds times rate: a tick is due for each 10^9, so nothing is ever rounded
};

}  // namespace vole
