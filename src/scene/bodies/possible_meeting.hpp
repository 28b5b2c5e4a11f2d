// Whether and how two things meet within a tick.
#pragma once

#include "scene/tick.hpp"
#include "vole/scene/cues.hpp"

namespace vole {

// The smallest box that holds a body from where it was to where it is, and what it touches.
Rect swept(const Rect& now, Vec2 motion, float wider);

// As near as what holds each other comes, and rounding.
inline constexpr float touching_distance = 1.0f / 64;

// What two bodies ask of each other, or a shape of each, by its place among those of the thing's kind.
class PossibleMeeting {
 public:
  PossibleMeeting(const Tick& tick, const Meeter& a, const Meeter& b, std::uint32_t shape_of_a = any_shape,
                  std::uint32_t shape_of_b = any_shape);

  bool happens() const;
  Meeting meeting() const;

 private:
  Vec2 velocity(const Meeter& meeter) const;
  // Calls visit(shape of a, its place, shape of b, its place) for all that are meant.
  template <class Visit>
  void visit_shapes(const Visit& visit) const;
  bool boxes_meet_or_touch() const;
  bool shapes_meet() const;
  ShapeHit hit_on_the_way(const Shape& a, const Shape& b) const;
  void meet_on_the_way(Meeting& meeting) const;
  // How near two shapes have to be: those that hold each other never overlap.
  float slack(std::uint32_t a_place, std::uint32_t b_place) const;

  const Tick& tick_;
  const Meeter& a_;
  const Meeter& b_;
  const CollisionBody& body_a_;
  const CollisionBody& body_b_;
  Vec2 at_a_, at_b_;
  std::uint32_t only_a_, only_b_;
  bool notice_ = false, block_ = false;
};

}  // namespace vole
