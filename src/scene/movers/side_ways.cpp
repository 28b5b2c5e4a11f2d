#include "side_ways.hpp"

#include <algorithm>
#include <cmath>

#include "vole/world/level_now.hpp"

namespace vole {
namespace {

// Down onto what is less than so far below its feet.
bool lands(MoverTurn& turn, float within) {
  CollisionBody body = turn.moving.body;
  body.at = turn.pose.at;
  const BodyMoved down = turn.moving.world.slide(body, {0, within}, turn.moving.rules);
  if (!down.below.any) return false;
  turn.pose.at = down.at;
  turn.touching = turn.moving.touching(down);
  return true;
}

bool takes_hold(const MoverTurn& turn, const Surroundings& around) {
  const Vec2 pushed = turn.intent.direction;
  if (std::abs(pushed.y) <= std::abs(pushed.x) || std::abs(pushed.y) < 0.5f) return false;
  if (pushed.y < 0) return around.ladder != nullptr;
  // Down from above it.
  return turn.touching.ground && around.ladder_below != nullptr;
}

// Where what is beside the ladder holds it above or below, sideways to the ladder's middle; else as it is pushed.
float across_ladder(const MoverTurn& turn, float speed) {
  const Vec2 pushed = turn.intent.direction;
  const bool held = (pushed.y < 0 && turn.touching.ceiling) || (pushed.y > 0 && turn.touching.ground);
  if (pushed.x != 0 || !held) return pushed.x * speed;
  const Rect box = turn.box();
  const float at = box.at.x + box.size.x * 0.5f, cell = static_cast<float>(turn.level->tile_size().x);
  const float off = (std::floor(at / cell) + 0.5f) * cell - at;
  return std::clamp(off / turn.seconds, -speed, speed);
}

void let_go(SideMover& mover) {
  mover.now.state = SideState::free;
  mover.now.jumped_in_air = 0;
  mover.now.dashed_in_air = false;
}

}  // namespace

bool dash(MoverTurn& turn, SideMover& mover) {
  const bool can_begin = mover.dash > 0 && mover.now.since_dash >= mover.dash_seconds + mover.dash_pause &&
                         !(mover.now.dashed_in_air && !turn.touching.ground);
  if (turn.intent.dash_pressed && can_begin) {
    mover.now.since_dash = 0;
    mover.now.dashed_in_air = !turn.touching.ground;
    mover.now.rising = false;
    mover.now.state = SideState::dashing;
    turn.motion.velocity = {turn.pose.mirrored ? -mover.dash : mover.dash, 0};
  }
  if (mover.now.state != SideState::dashing) return false;
  if (mover.now.since_dash >= mover.dash_seconds || turn.touching.wall()) {
    mover.now.state = SideState::free;
    turn.motion.velocity.x = std::clamp(turn.motion.velocity.x, -mover.speed, mover.speed);
    return false;
  }
  turn.motion.velocity.y = 0;
  fly_on(turn);
  return true;
}

bool climb(MoverTurn& turn, SideMover& mover, const Surroundings& around) {
  if (mover.climb <= 0) return false;
  const bool climbs = mover.now.state == SideState::climbing;
  if (!climbs && !takes_hold(turn, around)) return false;
  const Ladder* const ladder = around.ladder ? around.ladder : around.ladder_below;
  if (!ladder || (climbs && turn.intent.jump_pressed)) {
    let_go(mover);
    if (ladder) begin_jump(turn, mover, mover.jump);
    return false;
  }
  mover.now.state = SideState::climbing;
  mover.now.rising = false;
  const float speed = mover.climb * ladder->speed;
  turn.motion.velocity = {across_ladder(turn, speed), turn.intent.direction.y * speed};
  const Vec2 before = turn.pose.at;
  turn.moving.rules.through_one_way = true;
  fly_on(turn);
  turn.moving.rules.through_one_way = false;
  if (ladder_in_reach(turn)) {
    if (turn.touching.ground && turn.intent.direction.y > 0) let_go(mover);
    return true;
  }
  // Above its top it stands where it can; else it hangs on below that.
  const float gone = before.y - turn.pose.at.y;
  if (gone <= 0 || lands(turn, gone))
    let_go(mover);
  else
    turn.pose.at.y = before.y;
  return true;
}

bool swim(MoverTurn& turn, SideMover& mover, const Surroundings& around) {
  const Liquid* const liquid = mover.swim > 0 ? around.liquid : nullptr;
  if (!liquid) {
    if (mover.now.state == SideState::swimming) let_go(mover);
    return false;
  }
  const Rect box = turn.box();
  const bool at_surface = !liquid_at(turn, {box.at.x + box.size.x / 2, box.top() - 1});
  Vec2& velocity = turn.motion.velocity;
  if (mover.now.state != SideState::swimming) let_go(mover);
  mover.now.state = SideState::swimming;
  if (turn.intent.jump_pressed) {
    // Out of it from its surface; below that a stroke.
    begin_jump(turn, mover, at_surface ? mover.jump : mover.swim);
    mover.now.rising = false;
  } else {
    const Vec2 pushed = turn.intent.direction;
    const Vec2 target = pushed * mover.swim + liquid->current + Vec2{0, pushed.y == 0 ? liquid->sink : 0.0f};
    const float step = liquid->thick * turn.seconds;
    velocity = {towards(velocity.x, target.x, step), towards(velocity.y, target.y, step)};
  }
  fly_on(turn);
  return true;
}

void crouch(MoverTurn& turn, SideMover& mover) {
  if (mover.now.state != SideState::crouching) mover.now.state = SideState::free;
  if (!turn.body || turn.moving.body.shapes || (mover.crouch <= 0 && mover.now.height <= 0)) return;
  const bool wants = mover.crouch > 0 && turn.touching.ground && turn.intent.direction.y > 0.5f;
  Body& body = *turn.body;
  if (wants && mover.now.height <= 0 && mover.crouch < body.size.y) {
    mover.now.height = body.size.y;
    body.size.y = mover.crouch;
  } else if (!wants && mover.now.height > 0) {
    const float higher = std::max(mover.now.height - body.size.y, 0.0f);
    if (!turn.moving.world.would_hit(turn.moving.body, {0, -higher}, turn.moving.rules)) {
      body.size.y = mover.now.height;
      mover.now.height = 0;
    }
  }
  turn.moving.body.box = body.box({0, 0});
  mover.now.state = mover.now.height > 0 ? SideState::crouching : SideState::free;
}

}  // namespace vole
