// Two shapes against each other: how far they are apart, and where one that moves in a straight line meets the other.
//
//   const ShapeHit hit = sweep_shape(vole, at, motion, crate, crate_at);
//   at += motion * static_cast<float>(hit.when);
//   if (hit.hit) motion -= glm::dot(motion, hit.normal) * hit.normal;
//
// Method: where A can be so that it touches B is one convex polygon with a radius, the Minkowski difference of the two
// (T. Lozano-Perez, "Spatial Planning: A Configuration Space Approach", 1983), made by merging the edges of both in the
// order of their direction (M. de Berg et al., "Computational Geometry", chapter 13). A motion is then a ray to that
// polygon, clipped as in M. Cyrus and J. Beck, "Generalized two- and three-dimensional clipping", 1978. Nothing is found
// by steps: the answer is as exact as the numbers, at any speed, and has the same bits on every machine.
#pragma once

#include "vole/physics/shape.hpp"

namespace vole {

struct ShapeGap {
  // Between the outlines, in pixels; below 0: how far the first must go so that they only touch.
  double distance = 0;
  Vec2 normal{0, -1};  // of length 1, from the other towards the first
  Vec2 point{0, 0};    // on the other's outline, where they are nearest
};

// `at` and `other_at` are the positions of the two.
ShapeGap gap_between(const Shape& shape, Vec2 at, const Shape& other, Vec2 other_at);

// A motion that would end less deep than this in what it touches, in pixels, does not hit it.
inline constexpr double touch_slack = 1.0 / 1024;

struct ShapeHit {
  bool hit = false;
  double when = 1;     // the share of the motion that went well, from 0 to 1
  Vec2 normal{0, -1};  // of length 1, from the other towards the first
  Vec2 point{0, 0};    // where they touch
};

// What touches without going deeper is not hit: a shape slides along another, and one that starts inside another may
// leave it.
ShapeHit sweep_shape(const Shape& shape, Vec2 at, Vec2 motion, const Shape& other, Vec2 other_at);

// The same for a point. One that starts inside hits at once.
ShapeHit cast_ray(Vec2 from, Vec2 motion, const Shape& other, Vec2 other_at);

}  // namespace vole
