#include "vole/app/tick_clock.hpp"

#include <algorithm>

namespace vole {
namespace {

constexpr std::int64_t nanoseconds_a_second = 1'000'000'000;

}  // namespace

TickClock::TickClock(int ticks_per_second, int most_at_once)
    : rate_(std::clamp(ticks_per_second, 1, 1000)), most_(std::max(most_at_once, 1)) {}

int TickClock::add(std::int64_t nanoseconds) {
  gathered_ += std::clamp<std::int64_t>(nanoseconds, 0, 60 * nanoseconds_a_second) * rate_;
  const std::int64_t due = gathered_ / nanoseconds_a_second;
  gathered_ %= nanoseconds_a_second;
  return static_cast<int>(std::min(due, most_));
}

float TickClock::share_of_tick() const {
  const float share = static_cast<float>(gathered_) / static_cast<float>(nanoseconds_a_second);
  return std::min(share, 0.999999f);
}

}  // namespace vole
