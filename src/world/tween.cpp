#include "vole/world/tween.hpp"

#include "vole/base/within.hpp"

namespace vole {

void add_leg(std::vector<Tween>& all, std::size_t tween, Vec4 value, float seconds, Ease ease) {
  constexpr float most = 1e9f;
  try {
    all[tween].legs.push_back({brought_within(value, -most, most), brought_within_seconds(seconds), ease});
  } catch (...) {
    if (all[tween].legs.empty()) all.erase(all.begin() + static_cast<std::ptrdiff_t>(tween));
    throw;
  }
}

}  // namespace vole
