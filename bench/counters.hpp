// What timers and sequences are measured against: counters that are all counted down in each tick.
#pragma once

#include <cstdint>
#include <vector>

#include "vole/base/random.hpp"

class Counters {
 public:
  // Each comes again after a second to eleven.
  explicit Counters(int count) {
    vole::Random chance(1);
    for (int i = 0; i < count; ++i) {
      const std::int64_t every = ticks_of_counter(chance);
      all_.push_back({every, every});
    }
  }
  static std::int64_t ticks_of_counter(vole::Random& chance) {
    constexpr std::uint32_t spread = 600;
    return 60 + chance.below(spread);
  }

  // One tick; returns how many have come since the beginning.
  std::int64_t pass() {
    for (Counter& counter : all_)
      if (--counter.left == 0) {
        counter.left = counter.every;
        ++told_;
      }
    return told_;
  }

 private:
  struct Counter {
    std::int64_t left, every;
  };
  std::vector<Counter> all_;
  std::int64_t told_ = 0;
};
