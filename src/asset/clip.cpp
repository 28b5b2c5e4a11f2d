#include "vole/asset/clip.hpp"

#include <algorithm>
#include <cmath>

namespace vole {

std::int64_t Clip::start_of(int position) const {
  if (position == ClipEvent::at_end) return length();
  if (ends.empty()) return std::int64_t{position} * 1000;
  return position == 0 ? 0 : ends[static_cast<std::size_t>(position) - 1];
}

int Clip::position_at(std::int64_t units) const {
  const std::int64_t whole = length();
  const auto last = static_cast<int>(frames.size()) - 1;
  if (over_after(units)) return last;
  const std::int64_t in_pass = std::max<std::int64_t>(units, 0) % whole;
  if (ends.empty()) return static_cast<int>(in_pass / 1000);
  return static_cast<int>(std::upper_bound(ends.begin(), ends.end(), in_pass) - ends.begin());
}

int Clip::frame_at(std::int64_t ticks, int ticks_per_second) const {
  // Frames begin on whole units, so that rounding down decides as the fraction would.
  const std::int64_t units = std::max<std::int64_t>(ticks, 0) * units_per_second() / ticks_per_second;
  return frames[static_cast<std::size_t>(position_at(units))];
}

int Clip::frame_at_seconds(double seconds) const {
  constexpr double longest = 1e9;
  const double units =
      std::floor(std::clamp(seconds, 0.0, longest) * static_cast<double>(units_per_second()));
  return frames[static_cast<std::size_t>(position_at(units == units ? static_cast<std::int64_t>(units) : 0))];
}

bool Clip::over_at(std::int64_t ticks, int ticks_per_second) const {
  return over_after(ticks * units_per_second() / ticks_per_second);
}

}  // namespace vole
