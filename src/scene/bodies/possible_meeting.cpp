#include "possible_meeting.hpp"

#include <algorithm>

#include "vole/physics/box_in_grid.hpp"
#include "vole/world/motion.hpp"

namespace vole {
namespace {

const CollisionBody& body_of(const Tick& tick, const Meeter& meeter) {
  return tick.stage.solids().body(meeter.entity);
}

}  // namespace

Rect swept(const Rect& now, Vec2 motion, float wider) {
  return now.joined_with(now.moved_by(-motion)).widened_by(wider);
}

PossibleMeeting::PossibleMeeting(const Tick& tick, const Meeter& a, const Meeter& b, std::uint32_t shape_of_a,
                                 std::uint32_t shape_of_b)
    : tick_(tick),
      a_(a),
      b_(b),
      body_a_(body_of(tick, a)),
      body_b_(body_of(tick, b)),
      at_a_(body_a_.at + a.other_side),
      at_b_(body_b_.at + b.other_side),
      only_a_(shape_of_a),
      only_b_(shape_of_b) {
  const Categories& categories = tick.stage.categories();
  const CategoryMask its = CategoryMask{1} << body_b_.category;
  notice_ = (categories.notices(body_a_.category) & its) != 0;
  block_ = (categories.blocks(body_a_.category) & its) != 0;
}

float PossibleMeeting::slack(std::uint32_t a_place, std::uint32_t b_place) const {
  const bool solid = body_a_.use_of(a_place) == BodyUse::solid && body_b_.use_of(b_place) == BodyUse::solid;
  return solid && block_ ? touching_distance : 0;
}

bool PossibleMeeting::happens() const {
  if (!notice_) return false;
  return body_a_.shapes || body_b_.shapes ? shapes_meet() : boxes_meet_or_touch();
}

// Looked for in the shapes that are the deepest in each other at the end, or else met on the way.
Meeting PossibleMeeting::meeting() const {
  Meeting meeting;
  double nearest = 1e30;
  bool touch = false;
  visit_shapes([&](const Shape& a, std::uint32_t a_place, const Shape& b, std::uint32_t b_place) {
    const ShapeGap gap = gap_between(a, at_a_, b, at_b_);
    if (gap.distance >= nearest) return;
    nearest = gap.distance;
    touch = gap.distance <= static_cast<double>(slack(a_place, b_place));
    meeting = {gap.normal, gap.point, 0, a_place, b_place};
  });
  if (!touch) meet_on_the_way(meeting);
  meeting.shape = tick_.stage.solids().written_shape(a_.entity, meeting.shape);
  meeting.other_shape = tick_.stage.solids().written_shape(b_.entity, meeting.other_shape);
  const Vec2 apart = velocity(a_) - velocity(b_);
  meeting.speed = -(apart.x * meeting.normal.x + apart.y * meeting.normal.y);
  return meeting;
}

Vec2 PossibleMeeting::velocity(const Meeter& meeter) const {
  const Touching* const touching = std::as_const(tick_.world.entities).find<Touching>(meeter.entity);
  return touching ? touching->came_with : meeter.motion / tick_.stage.seconds_per_tick();
}

template <class Visit>
void PossibleMeeting::visit_shapes(const Visit& visit) const {
  const SolidThings& things = tick_.stage.solids();
  const auto meant = [&things](Entity thing, std::uint32_t place, std::uint32_t only) {
    return only == any_shape || things.written_shape(thing, place) == only;
  };
  body_a_.visit_shapes([&](const Shape& a, std::uint32_t a_place) {
    if (!meant(a_.entity, a_place, only_a_)) return;
    body_b_.visit_shapes([&](const Shape& b, std::uint32_t b_place) {
      if (meant(b_.entity, b_place, only_b_)) visit(a, a_place, b, b_place);
    });
  });
}

bool PossibleMeeting::boxes_meet_or_touch() const {
  const Rect a = swept(body_a_.box.moved_by(at_a_), {0, 0}, slack(0, 0)), b = body_b_.box.moved_by(at_b_);
  return a.overlaps(b) || boxes_meet(a.moved_by(-a_.motion), a_.motion, b.moved_by(-b_.motion), b_.motion);
}

bool PossibleMeeting::shapes_meet() const {
  bool meet = false;
  visit_shapes([&](const Shape& a, std::uint32_t a_place, const Shape& b, std::uint32_t b_place) {
    meet = meet || gap_between(a, at_a_, b, at_b_).distance < static_cast<double>(slack(a_place, b_place)) ||
           hit_on_the_way(a, b).hit;
  });
  return meet;
}

ShapeHit PossibleMeeting::hit_on_the_way(const Shape& a, const Shape& b) const {
  return sweep_shape(a, at_a_ - a_.motion, a_.motion - b_.motion, b, at_b_ - b_.motion);
}

void PossibleMeeting::meet_on_the_way(Meeting& meeting) const {
  double first = 2;
  visit_shapes([&](const Shape& a, std::uint32_t a_place, const Shape& b, std::uint32_t b_place) {
    const ShapeHit hit = hit_on_the_way(a, b);
    if (!hit.hit || hit.when >= first) return;
    first = hit.when;
    meeting = {hit.normal, hit.point + b_.motion * static_cast<float>(hit.when), 0, a_place, b_place};
  });
}

}  // namespace vole
