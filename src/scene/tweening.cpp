#include "vole/scene/tweening.hpp"

#include "vole/base/within.hpp"
#include "vole/world/tween.hpp"

namespace vole {

void detail::add_leg(std::vector<Tween>& all, std::size_t tween, const FieldType& type, const void* value,
                     float seconds, Ease ease) {
  constexpr float most = 1e9f;
  try {
    const Vec4 parts = brought_within(type.parts_of(value), -most, most);
    all[tween].legs.push_back({parts, brought_within_seconds(seconds), ease});
  } catch (...) {
    if (all[tween].legs.empty()) all.erase(all.begin() + static_cast<std::ptrdiff_t>(tween));
    throw;
  }
}

void detail::tell_at_end(std::vector<Tween>& all, std::size_t tween, std::string_view name) {
  all[tween].told = name;
}

}  // namespace vole
