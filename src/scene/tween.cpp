#include "vole/scene/tween.hpp"

#include <algorithm>

namespace vole {

void Tweens::step(Entities& entities, int ticks_per_second) {
  for (auto& tween : tweens_) {
    if (!tween || tween->step(entities, ticks_per_second)) continue;
    if (tween->over())
      if (auto ending = tween->take_ending()) endings_.push_back(std::move(ending));
    tween.reset();
  }
  std::erase(tweens_, nullptr);
  // Called after all have moved on, since an ending may begin more.
  std::vector<std::function<void()>> endings;
  endings.swap(endings_);
  for (const auto& ending : endings) ending();
}

std::size_t Tweens::count() const {
  return static_cast<std::size_t>(
      std::count_if(tweens_.begin(), tweens_.end(), [](const auto& tween) { return tween != nullptr; }));
}

void Tweens::add_to(Hash& hash) const {
  for (const auto& tween : tweens_)
    if (tween) tween->add_to(hash);
}

}  // namespace vole
