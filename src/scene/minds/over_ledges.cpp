#include "over_ledges.hpp"

#include <algorithm>
#include <cmath>

#include "leaps.hpp"
#include "scene/scene_caches.hpp"

namespace vole {
namespace {

// One tick of getting from the ledge that it is on to another.
class LedgeGoer {
 public:
  LedgeGoer(Thinker& thinker, const MindPart& part)
      : going_(thinker.mind.over_ledges),
        pace_(part.pace),
        play_{thinker.tick.stage.solids().world(),
              thinker.tick.world.level,
              *thinker.body,
              thinker.rules,
              thinker.tick.stage.seconds_per_tick(),
              &thinker.tick.stage.solids(),
              &thinker.tick.world.entities} {
    const Entities& entities = thinker.tick.world.entities;
    now_.pose = thinker.pose;
    now_.motion = entities.get<Motion>(thinker.thing);
    now_.touching = entities.get<Touching>(thinker.thing);
    now_.side = entities.get<SideMover>(thinker.thing);
    now_.body = entities.get<Body>(thinker.thing);
  }

  std::optional<Intent> intent(Thinker& thinker, Vec2 goal) {
    if (going_.leap != LeapKind::none)
      if (const std::optional<Intent> leaps = leap_on()) return leaps;
    const LedgeWays* const ways = thinker.tick.setting.caches->ledges.ways(
        play_, now_, thinker.tick.stage.solids().tile_categories(), going_);
    if (!ways || is_off_ground(now_.touching, now_.side)) return std::nullopt;
    if (going_.avoids > 0 && --going_.avoids == 0) going_.avoided = -1;
    const std::optional<std::size_t> from = ways->ledge_at(now_.pose.at), to = ways->ledge_below(goal);
    if (!from || !to || *from == *to) return std::nullopt;
    const std::optional<std::size_t> leap = choose(*ways, *from, *to);
    if (!leap) return std::nullopt;
    return go_to(*ways, *leap);
  }

 private:
  static constexpr float near_ = 6;  // pixels from a start at which a leap is tried

  std::optional<std::size_t> choose(const LedgeWays& ways, std::size_t from, std::size_t to) {
    const auto chosen = static_cast<std::size_t>(std::max(going_.chosen, 0));
    const bool stays = going_.chosen >= 0 && going_.chosen != going_.avoided && ways.has(chosen) &&
                       ways.leap(chosen).from == from && going_.goal == static_cast<std::int32_t>(to);
    if (stays) return chosen;
    const std::optional<std::size_t> next = ways.next(now_.pose.at.x, from, to, going_.avoided);
    going_.chosen = next ? static_cast<std::int32_t>(*next) : -1;
    going_.goal = static_cast<std::int32_t>(to);
    going_.runs = false;
    return next;
  }

  std::optional<Intent> leap_on() {
    const bool off = is_off_ground(now_.touching, now_.side);
    if ((going_.is_off && !off) || going_.ticks >= longest_leap) {
      going_.leap = LeapKind::none;
      return std::nullopt;
    }
    going_.is_off = going_.is_off || off;
    const Intent intent = leap_intent(going_.leap, going_.across, going_.ticks == 0, now_.motion, now_.side);
    ++going_.ticks;
    return intent;
  }

  // To its start, with a run where it needs one, and off.
  Intent go_to(const LedgeWays& ways, std::size_t place) {
    const Leap& leap = ways.leap(place);
    const bool is_near = std::abs(leap.start.x - now_.pose.at.x) <= near_;
    if (is_near && (leap.run_up <= 0 || going_.runs) && leads_there(ways, leap)) return begin(leap);
    return leap.run_up > 0 ? take_run(leap, place) : come_to_rest_at(leap, place);
  }

  bool leads_there(const LedgeWays& ways, const Leap& leap) const {
    const std::optional<Landing> landing = play_leap(play_, now_, leap.kind, leap.across);
    return landing && ways.ledge_at(landing->at) == leap.to;
  }

  Intent begin(const Leap& leap) {
    going_.leap = leap.kind;
    going_.across = leap.across;
    going_.ticks = 0;
    going_.is_off = going_.runs = false;
    return *leap_on();
  }

  void avoid(std::size_t place) {
    constexpr std::int32_t for_ticks = 180;
    going_.avoided = static_cast<std::int32_t>(place);
    going_.avoids = for_ticks;
    going_.runs = false;
  }

  Intent take_run(const Leap& leap, std::size_t place) {
    constexpr float near_enough = 3;
    const float gone = (now_.pose.at.x - leap.start.x) * leap.across;
    if (gone <= near_enough - leap.run_up) going_.runs = true;
    if (gone > near_) {
      if (going_.runs) avoid(place);
      going_.runs = false;
    }
    Intent intent = towards_and_stop(leap.start.x - leap.across * leap.run_up);
    if (going_.runs) intent.direction.x = leap.across;
    return intent;
  }

  Intent come_to_rest_at(const Leap& leap, std::size_t place) {
    constexpr float there = 0.75f, still = 1;
    const bool is_there = std::abs(leap.start.x - now_.pose.at.x) <= there;
    if (is_there && std::abs(now_.motion.velocity.x) <= still) avoid(place);
    return is_there ? Intent{} : towards_and_stop(leap.start.x);
  }

  // Slower where it comes near, so that it does not run over an edge.
  Intent towards_and_stop(float x) const {
    constexpr float least = 8;
    const SideMover& side = now_.side;
    const float within =
        side.deceleration > 0 ? std::max(side.speed * side.speed / side.deceleration, least) : least;
    Intent intent;
    intent.direction.x = std::clamp((x - now_.pose.at.x) / within, -1.0f, 1.0f) * pace_;
    return intent;
  }

  LedgeGoing& going_;
  float pace_;
  SidePlay play_;
  SidePlay::State now_;
};

}  // namespace

std::optional<Intent> intent_over_ledges(Thinker& thinker, const MindPart& part, Vec2 goal) {
  return LedgeGoer(thinker, part).intent(thinker, goal);
}

}  // namespace vole
