#include "vole/scene/tweening.hpp"

#include "tweens.hpp"
#include "vole/base/within.hpp"

namespace vole {

std::size_t add_tween(std::vector<Tween>& all, const ComponentTypes::Type& type, std::size_t field,
                      Entity thing) {
  std::erase_if(all, [&](const Tween& other) {
    return other.entity == thing && other.bound.type == &type && other.bound.index == field;
  });
  const FieldInfo& info = type.fields()[field];
  Tween tween;
  tween.entity = thing;
  tween.component = type.name;
  tween.field = info.name;
  tween.bound = {&type, field, info.parts, info.is_position, info.in_cells};
  all.push_back(std::move(tween));
  return all.size() - 1;
}

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
