// From what a mind's part is after to the intent that the thing's mover understands.
#include <algorithm>
#include <array>
#include <cmath>

#include "over_ledges.hpp"
#include "scene/bodies/what_holds.hpp"
#include "scene/movers/lanes.hpp"
#include "scene/scene_caches.hpp"
#include "thinking.hpp"
#include "vole/base/direction.hpp"
#include "vole/base/trig.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/file_here.hpp"
#include "vole/world/fly_mover.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {
namespace {

constexpr std::array<IVec2, 4> four_ways{IVec2{1, 0}, {0, 1}, {-1, 0}, {0, -1}};

Vec2 unit(Vec2 v) {
  const float length = length_of(v);
  return length > 0 ? v / length : Vec2{0, 0};
}

class Steerer {
 public:
  Steerer(Thinker& thinker, const MindPart& part, Vec2 goal)
      : thinker_(thinker),
        part_(part),
        goal_(goal),
        entities_(thinker.tick.world.entities),
        lanes_(entities_.find<GridMover>(thinker.thing)),
        side_(entities_.find<SideMover>(thinker.thing)),
        touching_(entities_.find<Touching>(thinker.thing)) {}

  Intent intent() {
    if (!going_.way || part_.pace <= 0) return {};
    if (lanes_ && thinker_.body) return on_lanes();
    if (const std::optional<Intent> over = over_ledges(); over) return *over;
    const Vec2 way = wanted_way();
    Intent intent = side_ ? from_the_side(way) : anywhere(way);
    intent.direction *= part_.pace;
    return intent;
  }

 private:
  Mind& mind() { return thinker_.mind; }
  Vec2 to_goal() const { return goal_ - thinker_.middle(); }

  // The direction in which it would go where nothing is in its way; at most 1 long.
  Vec2 wanted_way() { return (this->*going_.way)(); }
  Vec2 path_way() { return unit(next_on_path() - thinker_.pose.at); }
  Vec2 way_to_goal() { return unit(next_to_goal() - thinker_.middle()); }
  Vec2 way_from_goal() { return unit(-to_goal()); }

  std::optional<Intent> over_ledges() {
    const bool asked = part_.finds_way && part_.deed().finds_ways;
    if (!asked || !side_ || !touching_ || !thinker_.body || !thinker_.tick.world.level) return std::nullopt;
    return intent_over_ledges(thinker_, part_, goal_);
  }

  Vec2 way_to_distance() {
    constexpr float enough = 3;
    const float off = length_of(to_goal()) - part_.distance;
    if (std::abs(off) <= enough) return {0, 0};
    return unit(to_goal()) * (off > 0 ? 1.0f : -1.0f);
  }

  // Around walls where it is asked for and there is a way.
  Vec2 next_to_goal() {
    const LevelNow& level = thinker_.tick.world.level;
    if (!part_.finds_way || side_ || !level || !thinker_.body) return goal_;
    WayCells cells{level.tile_size(), {0, 0}, thinker_.body->bounds().size, WaySteps::eight};
    if (lanes_) cells = {lanes_->cell, lanes_->origin, cells.body, WaySteps::four};
    if (const TopMover* const top = entities_.find<TopMover>(thinker_.thing);
        top && top->directions == WalkDirections::four)
      cells.steps = WaySteps::four;
    const Vec2 from = lanes_ ? junction_ahead() : thinker_.middle();
    if (cells.cell_at(from) == cells.cell_at(goal_)) return goal_;
    return thinker_.tick.setting.caches->ways.next(level, cells, from, goal_, part_.within).value_or(goal_);
  }

  bool held_along(Vec2 way) const {
    if (!touching_) return false;
    return (way.x < 0 && touching_->wall_left) || (way.x > 0 && touching_->wall_right) ||
           (!side_ && ((way.y < 0 && touching_->ceiling) || (way.y > 0 && touching_->ground)));
  }
  // In which it comes to stand, from the side.
  float stopping_distance() const {
    const Motion* const motion = entities_.find<Motion>(thinker_.thing);
    if (!motion || side_->deceleration <= 0) return 0;
    return motion->velocity.x * motion->velocity.x / (2 * side_->deceleration);
  }
  // Whether the ground ends before its feet on that side.
  bool at_ledge(float way) const {
    if (!side_ || !touching_ || !touching_->ground || !thinker_.body || way == 0) return false;
    constexpr float wide = 2, deep = 4;
    const Rect box = thinker_.body->bounds();
    const float stops = stopping_distance();
    const float x = way > 0 ? box.right() + stops : box.left() - stops - wide;
    const QueryFilter asked = what_holds(thinker_.rules);
    return !thinker_.tick.stage.solids().world().any({{x, box.bottom()}, {wide, deep}}, asked);
  }

  Vec2 patrolled_way() {
    Vec2& way = mind().way;
    if (way == Vec2{0, 0}) way = {thinker_.pose.mirrored ? -1.0f : 1.0f, 0};
    if (held_along(way) || at_ledge(way.x)) way = -way;
    return way;
  }

  Vec2 wandered_way() {
    Vec2& way = mind().way;
    const bool over = mind().way_ticks <= 0 || held_along(way) || at_ledge(way.x);
    if (!over) {
      --mind().way_ticks;
      return way;
    }
    const Vec2 before = way;
    mind().way_ticks = thinker_.in_ticks(part_.seconds * mind().chance.within(0.5f, 1.5f));
    if (side_)
      way = {static_cast<float>(mind().chance.below(3)) - 1, 0};
    else
      way = unit_of(static_cast<Direction>(mind().chance.below(8)));
    if (held_along(way) || at_ledge(way.x)) way = before == way ? -way : Vec2{0, 0};
    return way;
  }

  // A little ahead of where it is on it: back and forth on an open path, round and round on a closed one.
  Vec2 next_on_path() {
    const auto [file, offset] = file_here(thinker_.tick.world, thinker_.thing);
    if (!file) return thinker_.pose.at;
    const LevelPath& path = file->path(part_.path.value, part_.path.where);
    const Vec2 here = thinker_.pose.at - offset;  // in the file
    constexpr float ahead = 8, near = 6, far = 32;
    Mind& its = mind();
    if (its.along < 0) its.along = path.nearest(here);
    // So many steps at most: what is fast is not left behind by what it follows.
    for (int i = 0; i < 16; ++i) {
      const Vec2 off = path.at(its.along) - here;
      const Vec2 onward = path.direction(its.along) * (its.goes_back ? -1.0f : 1.0f);
      const float distance = side_ ? std::abs(off.x) : length_of(off);
      // Past it counts as there, so that what turns slowly does not circle it.
      const bool past = off.x * onward.x + off.y * onward.y <= 0 && distance < far;
      if (distance >= near && !past) break;
      its.along += its.goes_back ? -ahead : ahead;
      if (path.closed()) {
        its.along = std::fmod(its.along + path.length(), path.length());
        continue;
      }
      if (its.along >= path.length()) its.goes_back = true;
      if (its.along <= 0) its.goes_back = false;
      its.along = std::clamp(its.along, 0.0f, path.length());
    }
    return path.at(its.along) + offset;
  }

  Intent from_the_side(Vec2 way) {
    constexpr float enough = 0.1f;
    Intent intent;
    intent.direction.x = way.x > enough ? 1.0f : way.x < -enough ? -1.0f : 0.0f;
    if (going_.arrives && std::abs(to_goal().x) < 2) intent.direction.x = 0;
    // Up and down where there is something to climb or to swim in.
    if (side_->now.state == SideState::climbing || side_->now.state == SideState::swimming)
      intent.direction.y = way.y;
    if (part_.jumps && touching_) {
      intent.jump_pressed = touching_->ground && held_along(intent.direction);
      intent.jump_held = intent.jump_pressed || side_->now.rising;
    }
    return intent;
  }

  // What turns is turned to where it wants to go, and thrusts when it points there.
  Intent anywhere(Vec2 way) const {
    Intent intent;
    intent.direction = way;
    const FlyMover* const flies = entities_.find<FlyMover>(thinker_.thing);
    if (!flies || flies->steering != Steering::turns || way == Vec2{0, 0}) return intent;
    const Vec2 heading{cos_degrees(flies->heading), sin_degrees(flies->heading)};
    const float across = heading.x * way.y - heading.y * way.x, along = heading.x * way.x + heading.y * way.y;
    constexpr float straight = 0.1f;
    intent.direction.x = std::abs(across) < straight && along > 0 ? 0.0f : across < 0 ? -1.0f : 1.0f;
    intent.direction.y = along > 0 ? -along : 0.0f;
    return intent;
  }

  // The middle of the junction that it is on, or that it will come to next.
  Vec2 junction_ahead() const {
    const Vec2 middle = thinker_.middle();
    const OnLanes past = vole::on_lanes(*lanes_, middle);
    const auto step = [](std::int64_t from, int cell, int heading) {
      return from == 0 ? 0.0f : to_pixels(heading > 0 ? cell * subpixels - from : -from);
    };
    return middle + Vec2{step(past.x, lanes_->cell.x, lanes_->heading.x),
                         step(past.y, lanes_->cell.y, lanes_->heading.y)};
  }

  // Chosen once for each junction, before it is there. It turns back where no other way is open, and not before.
  Intent on_lanes() {
    const Vec2 junction = junction_ahead();
    const bool there = vole::on_lanes(*lanes_, thinker_.middle()).on_junction();
    Vec2& way = mind().way;
    if (there || junction != mind().junction || mind().way_ticks == 0) {
      way = Vec2(chosen_way(junction, there));
      mind().junction = junction;
      mind().way_ticks = 1;
    }
    Intent intent;
    intent.direction = way;
    return intent;
  }

  IVec2 chosen_way(Vec2 junction, bool there) {
    const IVec2 heading = lanes_->heading;
    std::array<IVec2, 4> open{};
    std::size_t count = 0;
    bool back_is_open = false;
    CollisionBody body = *thinker_.body;
    body.at = junction - middle_of(body);
    const LaneRoom room{thinker_.tick.stage.solids().world(), thinker_.rules,
                        entities_.find<LevelEdge>(thinker_.thing), &thinker_.tick.world.level};
    for (const IVec2 way : four_ways) {
      if (!room.is_open(*lanes_, body, way)) continue;
      if (heading != IVec2{0, 0} && way == heading * -1)
        back_is_open = true;
      else
        open[count++] = way;
    }
    if (count == 0) return back_is_open ? (there ? heading * -1 : heading) : IVec2{0, 0};
    return best_of(open, count, junction);
  }

  IVec2 best_of(const std::array<IVec2, 4>& open, std::size_t count, Vec2 junction) {
    if (going_.by_chance) return open[mind().chance.below(static_cast<std::uint32_t>(count))];
    const Vec2 wanted = going_.at_crossing ? (this->*going_.at_crossing)(junction) : wanted_way();
    if (!going_.at_crossing && wanted == Vec2{0, 0}) return {0, 0};
    const auto along = [&](IVec2 way) {
      return static_cast<float>(way.x) * wanted.x + static_cast<float>(way.y) * wanted.y;
    };
    return *std::max_element(open.begin(), open.begin() + static_cast<std::ptrdiff_t>(count),
                             [&](IVec2 a, IVec2 b) { return along(a) < along(b); });
  }

  Vec2 heading_on(Vec2) { return Vec2(lanes_->heading); }
  Vec2 goal_from(Vec2 junction) { return next_to_goal() - junction; }
  Vec2 path_from(Vec2 junction) { return next_on_path() - junction; }

  // Where each deed goes, in the order of mind_deeds.
  struct Going {
    Vec2 (Steerer::*way)() = nullptr;  // nowhere
    // Where to from a junction of lanes, in whole; nullptr: the same way as elsewhere.
    Vec2 (Steerer::*at_crossing)(Vec2 junction) = nullptr;
    bool by_chance = false;  // at junctions
    bool arrives = false;    // stands still where it wants to be
  };
  static constexpr std::array<Going, mind_deeds.size()> goings() {
    return {{{},
             {&Steerer::patrolled_way, &Steerer::heading_on},
             {&Steerer::path_way, &Steerer::path_from},
             {&Steerer::wandered_way, nullptr, true},
             {&Steerer::way_to_goal, &Steerer::goal_from, false, true},
             {&Steerer::way_from_goal},
             {&Steerer::way_to_distance},
             {}}};
  }

  Thinker& thinker_;
  const MindPart& part_;
  const Going going_ = goings()[static_cast<std::size_t>(part_.does)];
  Vec2 goal_;
  const Entities& entities_;
  const GridMover* lanes_;
  const SideMover* side_;
  const Touching* touching_;
};

}  // namespace

Intent intent_of(Thinker& thinker, const MindPart& part, Vec2 goal) {
  return Steerer(thinker, part, goal).intent();
}

}  // namespace vole
