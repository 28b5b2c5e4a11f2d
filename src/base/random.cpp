#include "vole/base/random.hpp"

namespace vole {
namespace {

constexpr std::uint64_t multiplier = 6364136223846793005ull;
constexpr std::uint64_t increment = 1442695040888963407ull;

}  // namespace

Random::Random(std::uint64_t seed) : state_(seed + increment) {
  next();
}

std::uint32_t Random::next() {
  const std::uint64_t old = state_;
  state_ = old * multiplier + increment;
  const auto shifted = static_cast<std::uint32_t>(((old >> 18) ^ old) >> 27);
  const auto turn = static_cast<std::uint32_t>(old >> 59);
  return (shifted >> turn) | (shifted << ((32 - turn) & 31));
}

std::uint64_t Random::next_wide() {
  const std::uint64_t high = next();
  return high << 32 | next();
}

Random Random::from_state(std::uint64_t state) {
  Random random;
  random.state_ = state;
  return random;
}

std::uint32_t Random::below(std::uint32_t count) {
  std::uint64_t product = std::uint64_t{next()} * count;
  if (static_cast<std::uint32_t>(product) < count) {
    const std::uint32_t rejected = (0u - count) % count;
    while (static_cast<std::uint32_t>(product) < rejected) product = std::uint64_t{next()} * count;
  }
  return static_cast<std::uint32_t>(product >> 32);
}

float Random::within(float from, float to) {
  // 24 bits: as many as a float keeps, so that the result can never round up to `to` when from is 0.
  const float share = static_cast<float>(next() >> 8) * (1.0f / 16777216.0f);
  const float value = from + (to - from) * share;
  return value < to ? value : from;
}

bool Random::chance(float share) {
  return within(0.0f, 1.0f) < share;
}

}  // namespace vole
