#include "leaps.hpp"

namespace vole {

Intent leap_intent(LeapKind leap, float across, bool is_first_tick, const Motion& motion,
                   const SideMover& side) {
  Intent intent;
  switch (leap) {
    case LeapKind::none:
      break;
    case LeapKind::jump:
    case LeapKind::jump_twice:
      intent.direction.x = across;
      intent.jump_held = true;
      intent.jump_pressed = is_first_tick || (leap == LeapKind::jump_twice && motion.velocity.y >= 0 &&
                                              side.now.jumped_in_air == 0);
      break;
    case LeapKind::hop:
      intent.direction.x = across;
      intent.jump_pressed = intent.jump_held = is_first_tick;
      break;
    case LeapKind::jump_up: {
      constexpr float slow = 0.4f;  // share of its first speed
      intent.jump_pressed = is_first_tick;
      intent.jump_held = true;
      if (!is_first_tick && motion.velocity.y > -side.jump * slow) intent.direction.x = across;
      break;
    }
    case LeapKind::walk_off:
      intent.direction.x = across;
      break;
    case LeapKind::drop:
      intent.drop_pressed = is_first_tick;
      break;
    case LeapKind::climb_up:
      intent.direction.y = -1;
      break;
    case LeapKind::climb_down:
      intent.direction.y = 1;
      break;
  }
  return intent;
}

bool is_off_ground(const Touching& touching, const SideMover& side) {
  return !touching.ground || side.now.state == SideState::climbing;
}

std::optional<Landing> play_leap(const SidePlay& play, SidePlay::State from, LeapKind leap, float across) {
  constexpr int comes_to_rest = 15;
  const int starts_within = leap == LeapKind::walk_off ? 60 : 10;
  bool was_off = false;
  int ticks = 0;
  for (; !was_off || is_off_ground(from.touching, from.side); ++ticks) {
    if (ticks >= longest_leap || (!was_off && ticks >= starts_within)) return std::nullopt;
    play.tick(from, leap_intent(leap, across, ticks == 0, from.motion, from.side));
    if (play.outside(from)) return std::nullopt;
    was_off = was_off || is_off_ground(from.touching, from.side);
  }
  for (int i = 0; i < comes_to_rest; ++i) play.tick(from, {});
  if (is_off_ground(from.touching, from.side)) return std::nullopt;
  return Landing{from.pose.at, ticks};
}

}  // namespace vole
