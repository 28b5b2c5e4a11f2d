#include "harvest.hpp"

#include <array>
#include <cstdio>

std::string time_text(std::int64_t ticks, int ticks_per_second) {
  const std::int64_t tenths = ticks * 10 / ticks_per_second;
  std::array<char, 32> text{};
  std::snprintf(text.data(), text.size(), "%d:%02d.%d", static_cast<int>(tenths / 600),
                static_cast<int>(tenths / 10 % 60), static_cast<int>(tenths % 10));
  return text.data();
}

std::string to_text(const GameTime& time) {
  return time_text(time.ticks, time.ticks_per_second);
}
