#include "crossings.hpp"

namespace vole {

Intent crossing_intent(CrossingKind crossing, float across, bool is_first_tick, const Motion& motion,
                       const SideMover& side) {
  Intent intent;
  switch (crossing) {
    case CrossingKind::none:
      break;
    case CrossingKind::jump:
    case CrossingKind::jump_twice:
      intent.direction.x = across;
      intent.jump_held = true;
      intent.jump_pressed = is_first_tick || (crossing == CrossingKind::jump_twice &&
                                              motion.velocity.y >= 0 && side.now.jumped_in_air == 0);
      break;
    case CrossingKind::hop:
      intent.direction.x = across;
      intent.jump_pressed = intent.jump_held = is_first_tick;
      break;
    case CrossingKind::jump_up: {
      constexpr float slow = 0.4f;  // share of its first speed
      intent.jump_pressed = is_first_tick;
      intent.jump_held = true;
      if (!is_first_tick && motion.velocity.y > -side.jump * slow) intent.direction.x = across;
      break;
    }
    case CrossingKind::walk_off:
      intent.direction.x = across;
      break;
    case CrossingKind::drop:
      intent.drop_pressed = is_first_tick;
      break;
    case CrossingKind::climb_up:
      intent.direction.y = -1;
      break;
    case CrossingKind::climb_down:
      intent.direction.y = 1;
      break;
  }
  return intent;
}

bool is_off_ground(const Touching& touching, const SideMover& side) {
  return !touching.ground || side.now.state == SideState::climbing;
}

std::optional<Landing> play_crossing(const SidePlay& play, SidePlay::State from, CrossingKind crossing,
                                     float across) {
  const int comes_to_rest = play.ticks_in(0.25f);
  const int starts_within = play.ticks_in(crossing == CrossingKind::walk_off ? 1.0f : 1.0f / 6);
  const int longest = play.ticks_in(longest_crossing);
  bool was_off = false;
  int ticks = 0;
  for (; !was_off || is_off_ground(from.touching, from.side); ++ticks) {
    if (ticks >= longest || (!was_off && ticks >= starts_within)) return std::nullopt;
    play.tick(from, crossing_intent(crossing, across, ticks == 0, from.motion, from.side));
    if (play.outside(from)) return std::nullopt;
    was_off = was_off || is_off_ground(from.touching, from.side);
  }
  for (int i = 0; i < comes_to_rest; ++i) play.tick(from, {});
  if (is_off_ground(from.touching, from.side)) return std::nullopt;
  return Landing{from.pose.at, ticks};
}

}  // namespace vole
