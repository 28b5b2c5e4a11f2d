#include "side_play.hpp"

#include "vole/scene/movers/side_motion.hpp"
#include "vole/world/level_now.hpp"

namespace vole {

void SidePlay::tick(State& state, const Intent& intent) const {
  Moving moving{world, body, rules, things};
  moving.body.box = state.body.box({0, 0});
  MoverTurn turn{intent,      seconds, moving,  state.motion, state.touching, state.pose,
                 &state.body, nullptr, nullptr, &level,       entities};
  move_sideways(turn, state.side);
  state.jump_held = intent.jump_held;
}

bool SidePlay::outside(const State& state) const {
  constexpr float above = 256, below = 64;
  const Vec2 size(level.size());
  const Vec2 at = state.pose.at;
  return at.x < 0 || at.x > size.x || at.y > size.y + below || at.y < -above;
}

}  // namespace vole
