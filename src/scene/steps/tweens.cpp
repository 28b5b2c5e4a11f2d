// Fields that are on their way to another value.
#include "scene/tick.hpp"
#include "vole/base/field.hpp"

namespace vole {
namespace {

// One tick; false when there is nothing left to do.
bool step(Tween& tween, Entities& entities, int ticks_per_second) {
  FieldRef field = tween.bound.in(entities, tween.entity);
  if (!field || tween.leg >= tween.legs.size()) return false;
  if (tween.ticks == 0) tween.from = field.value();
  ++tween.ticks;
  const TweenLeg& leg = tween.legs[tween.leg];
  const float whole = leg.seconds * static_cast<float>(ticks_per_second);
  const float share = whole > 0 ? static_cast<float>(tween.ticks) / whole : 1.0f;
  if (share < 1) {
    field.put(tween.from + (leg.value - tween.from) * eased(leg.ease, share));
    return true;
  }
  field.put(leg.value);
  tween.ticks = 0;
  return ++tween.leg < tween.legs.size();
}

}  // namespace

void run_tweens(Tick& tick) {
  std::vector<Tween>& tweens = tick.world.tweens;
  std::size_t kept = 0;
  for (std::size_t i = 0; i < tweens.size(); ++i) {
    Tween& tween = tweens[i];
    if (!tick.goes_on(tween.entity) || step(tween, tick.world.entities, tick.setting.ticks_per_second)) {
      if (kept != i) tweens[kept] = std::move(tween);
      ++kept;
    } else if (!tween.told.empty() && tween.leg == tween.legs.size()) {
      tick.world.told.push_back({tween.told, tween.entity});
    }
  }
  tweens.resize(kept);
  hear_told(tick);
}

}  // namespace vole
