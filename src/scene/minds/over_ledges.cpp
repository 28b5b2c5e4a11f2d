#include "over_ledges.hpp"

#include <algorithm>
#include <cmath>

#include "crossings.hpp"
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
    if (going_.crossing != CrossingKind::none)
      if (const std::optional<Intent> crossings = crossing_on()) return crossings;
    const LedgeWays* const ways = thinker.tick.setting.caches->ledges.ways(
        play_, now_, thinker.tick.stage.solids().tile_categories(), going_);
    if (!ways || is_off_ground(now_.touching, now_.side)) return std::nullopt;
    if (going_.avoids > 0 && --going_.avoids == 0) going_.avoided = -1;
    const std::optional<std::size_t> from = ways->ledge_at(now_.pose.at), to = ways->ledge_below(goal);
    if (!from || !to || *from == *to) return std::nullopt;
    const std::optional<std::size_t> crossing = choose(*ways, *from, *to);
    if (!crossing) return std::nullopt;
    return go_to(*ways, *crossing);
  }

 private:
  static constexpr float near_ = 6;  // pixels from a start at which a crossing is tried

  std::optional<std::size_t> choose(const LedgeWays& ways, std::size_t from, std::size_t to) {
    const auto chosen = static_cast<std::size_t>(std::max(going_.chosen, 0));
    const bool stays = going_.chosen >= 0 && going_.chosen != going_.avoided && ways.has(chosen) &&
                       ways.crossing(chosen).from == from && going_.goal == static_cast<std::int32_t>(to);
    if (stays) return chosen;
    const std::optional<std::size_t> next = ways.next(now_.pose.at.x, from, to, going_.avoided);
    going_.chosen = next ? static_cast<std::int32_t>(*next) : -1;
    going_.goal = static_cast<std::int32_t>(to);
    going_.runs = false;
    return next;
  }

  std::optional<Intent> crossing_on() {
    const bool off = is_off_ground(now_.touching, now_.side);
    if ((going_.is_off && !off) || going_.ticks >= play_.ticks_in(longest_crossing)) {
      going_.crossing = CrossingKind::none;
      return std::nullopt;
    }
    going_.is_off = going_.is_off || off;
    const Intent intent =
        crossing_intent(going_.crossing, going_.across, going_.ticks == 0, now_.motion, now_.side);
    ++going_.ticks;
    return intent;
  }

  // To its start, with a run where it needs one, and off.
  Intent go_to(const LedgeWays& ways, std::size_t place) {
    const Crossing& crossing = ways.crossing(place);
    const bool is_near = std::abs(crossing.start.x - now_.pose.at.x) <= near_;
    if (is_near && (crossing.run_up <= 0 || going_.runs) && leads_there(ways, crossing))
      return begin(crossing);
    return crossing.run_up > 0 ? take_run(crossing, place) : come_to_rest_at(crossing, place);
  }

  bool leads_there(const LedgeWays& ways, const Crossing& crossing) const {
    const std::optional<Landing> landing = play_crossing(play_, now_, crossing.kind, crossing.across);
    return landing && ways.ledge_at(landing->at) == crossing.to;
  }

  Intent begin(const Crossing& crossing) {
    going_.crossing = crossing.kind;
    going_.across = crossing.across;
    going_.ticks = 0;
    going_.is_off = going_.runs = false;
    return *crossing_on();
  }

  void avoid(std::size_t place) {
    constexpr float for_seconds = 3;
    going_.avoided = static_cast<std::int32_t>(place);
    going_.avoids = play_.ticks_in(for_seconds);
    going_.runs = false;
  }

  Intent take_run(const Crossing& crossing, std::size_t place) {
    constexpr float near_enough = 3;
    const float gone = (now_.pose.at.x - crossing.start.x) * crossing.across;
    if (gone <= near_enough - crossing.run_up) going_.runs = true;
    if (gone > near_) {
      if (going_.runs) avoid(place);
      going_.runs = false;
    }
    Intent intent = towards_and_stop(crossing.start.x - crossing.across * crossing.run_up);
    if (going_.runs) intent.direction.x = crossing.across;
    return intent;
  }

  Intent come_to_rest_at(const Crossing& crossing, std::size_t place) {
    constexpr float there = 0.75f, still = 1;
    const bool is_there = std::abs(crossing.start.x - now_.pose.at.x) <= there;
    if (is_there && std::abs(now_.motion.velocity.x) <= still) avoid(place);
    return is_there ? Intent{} : towards_and_stop(crossing.start.x);
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
