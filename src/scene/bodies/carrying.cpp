#include "carrying.hpp"

#include <algorithm>
#include <cmath>

#include "vole/physics/subpixel.hpp"
#include "vole/world/motion.hpp"

namespace vole {
namespace {

constexpr float lattice_step = 1.0f / subpixels;

float dot(Vec2 a, Vec2 b) {
  return a.x * b.x + a.y * b.y;
}

Rect around(const Rect& box, Vec2 by) {
  return box.widened_by(std::abs(by.x) + std::abs(by.y) + 2);
}

// By how much a body must give way to another that moves, which it meets with this normal.
Vec2 push_of(const CollisionBody& pusher, Vec2 by, const CollisionBody& body, const CastHit& hit) {
  const std::optional<Rect> pushing_box = pusher.solid_box(), pushed_box = body.solid_box();
  if (pushing_box && pushed_box) {
    // Just so that they touch.
    const Rect pushing = pushing_box->moved_by(pusher.at + by), box = pushed_box->moved_by(body.at);
    if (hit.normal.y == 0)
      return {hit.normal.x > 0 ? pushing.right() - box.left() : pushing.left() - box.right(), 0};
    if (hit.normal.x == 0)
      return {0, hit.normal.y > 0 ? pushing.bottom() - box.top() : pushing.top() - box.bottom()};
  }
  const float left = dot(by, hit.normal) * (1 - static_cast<float>(hit.when));
  return hit.normal * (std::max(left, 0.0f) + lattice_step);
}

}  // namespace

bool Carrying::is_gathered(Entity thing) const {
  return std::any_of(all_.begin(), all_.end(),
                     [thing](const CarriedThing& each) { return each.thing == thing; });
}

void Carrying::gather_riders(Entity of) {
  Entities& entities = tick_.world.entities;
  std::vector<BodyOrCell>& found = tick_.memory.found;
  found.clear();
  solids_.world().find(around(solids_.body(of).bounds(), {0, 0}), {.except = of.index, .tiles = false},
                       found);
  const std::size_t first = all_.size();
  for (const BodyOrCell& near : found) {
    const Entity thing = solids_.thing(near.body);
    if (!entities.has<Motion>(thing) || is_gathered(thing)) continue;
    const Touch ground =
        solids_.world().ground(solids_.body(thing), solids_.rules(thing, tick_.stage.categories()));
    if (ground.any && ground.body == of.index) all_.push_back({thing, {}, {}, true, {}, 0});
  }
  for (std::size_t i = first, end = all_.size(); i < end; ++i) gather_riders(all_[i].thing);
}

void Carrying::gather_pushed(Entity platform, Vec2 by) {
  const Categories& categories = tick_.stage.categories();
  const CollisionBody pusher = solids_.body(platform);
  std::vector<BodyOrCell>& found = tick_.memory.found;
  found.clear();
  solids_.world().find(around(pusher.bounds(), by), {.except = platform.index, .tiles = false}, found);
  CollisionWorld& alone = tick_.memory.pusher;
  alone.put(0, pusher);
  for (const BodyOrCell& near : found) {
    const Entity thing = solids_.thing(near.body);
    if (!tick_.world.entities.has<Motion>(thing) || is_gathered(thing)) continue;
    MoveRules rules = solids_.rules(thing, categories);
    if ((rules.blocked_by >> pusher.category & 1u) == 0) continue;
    rules.self = no_body;
    // It seems to come towards the pusher.
    const CollisionBody body = solids_.body(thing);
    if (const auto hit = alone.would_hit(body, -by, rules))
      all_.push_back({thing, {}, push_of(pusher, by, body, *hit), false, {}, std::abs(dot(by, hit->normal))});
  }
}

// Whether its category blocks anything but ground.
bool Carrying::stands_in_the_way(Entity thing) const {
  const CollisionBody& body = solids_.body(thing);
  const CategoryMask blocks = tick_.stage.categories().blocks(body.category);
  return body.use == BodyUse::solid && (blocks & ~(CategoryMask{1} << Categories::ground)) != 0;
}

void Carrying::take_out_all() {
  for (CarriedThing& each : all_) {
    each.from = solids_.body(each.thing).at;
    each.to = each.from;
    out_.emplace_back(solids_, each.thing);
  }
}

// What share of the motion there is room for: 1 where nothing is squeezed.
float Carrying::move_all(Entity by) {
  float room = 1;
  for (CarriedThing& each : all_) {
    each.to =
        solids_.world()
            .slide(solids_.known(each.thing), each.by, solids_.rules(each.thing, tick_.stage.categories()))
            .at;
    const Vec2 missing = each.by - (each.to - each.from);
    // A rider may be left behind, but is not gone through from below.
    const float wanted = each.rides ? -each.by.y : length_of(each.by);
    const float short_by = each.rides ? -missing.y : dot(missing, each.by) / std::max(wanted, lattice_step);
    if (wanted <= 0 || short_by < 2 * lattice_step) continue;
    tick_.memory.squeezed.push_back({each.thing, by});
    room = std::min(room, each.room_for(short_by));
  }
  return room;
}

void Carrying::settle(bool moved) {
  for (const CarriedThing& each : all_) {
    if (moved) tick_.world.entities.get<Pose>(each.thing).at = each.to;
    solids_.put(each.thing, moved ? each.to : each.from);
  }
  all_.clear();
  out_.clear();
}

bool Carrying::carry(Entity platform, Vec2 from, Vec2 to) {
  const Vec2 by = on_lattice(to) - on_lattice(from);
  const float room = by != Vec2{0, 0} && stands_in_the_way(platform) ? try_to_carry(platform, from, by) : 1;
  if (room < 1) {
    // As far as there is room, in the whole pixels of the lattice.
    to = on_lattice(from + by * (std::max(room, 0.0f)));
    const Vec2 less = to - on_lattice(from);
    if (less == Vec2{0, 0} || try_to_carry(platform, from, less) < 1) to = from;
  }
  tick_.world.entities.get<Pose>(platform).at = to;
  solids_.put(platform, on_lattice(to));
  return room == 1;
}

float Carrying::try_to_carry(Entity platform, Vec2 from, Vec2 by) {
  all_.clear();
  solids_.put(platform, on_lattice(from));
  gather_riders(platform);
  for (CarriedThing& rider : all_) {
    rider.by = by;
    rider.pushes_by = std::abs(by.y);
  }
  gather_pushed(platform, by);
  take_out_all();
  const OutOfTheWay out(solids_, platform);
  const float room = move_all(platform);
  settle(room == 1);
  return room;
}

void Carrying::before_move(Entity mover) {
  all_.clear();
  if (!stands_in_the_way(mover)) return;
  gather_riders(mover);
  take_out_all();
}

bool Carrying::after_move(Entity mover, Vec2 by) {
  if (all_.empty()) return true;
  for (CarriedThing& rider : all_) rider.by = by;
  const OutOfTheWay out(solids_, mover);
  const bool moved = move_all(mover) == 1;
  settle(moved);
  return moved;
}

}  // namespace vole
