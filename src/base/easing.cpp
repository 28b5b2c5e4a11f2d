#include "vole/base/easing.hpp"

#include <algorithm>

#include "vole/base/trig.hpp"

namespace vole {
namespace {

constexpr float overshoot = 1.70158f;  // one tenth beyond

float back_in(float t) {
  return t * t * ((overshoot + 1) * t - overshoot);
}

// Both halves of a curve that is slow at its start.
template <class Curve>
float both(float t, const Curve& in) {
  return t < 0.5f ? in(2 * t) / 2 : 1 - in(2 - 2 * t) / 2;
}

float bounce_out(float t) {
  constexpr float steep = 7.5625f, span = 2.75f;
  if (t < 1 / span) return steep * t * t;
  if (t < 2 / span) return steep * (t - 1.5f / span) * (t - 1.5f / span) + 0.75f;
  if (t < 2.5f / span) return steep * (t - 2.25f / span) * (t - 2.25f / span) + 0.9375f;
  return steep * (t - 2.625f / span) * (t - 2.625f / span) + 0.984375f;
}

// Halves each swing: three turns on the way.
float elastic_out(float t) {
  float shrink = 1;
  for (float left = t * 10; left > 0; left -= 1) shrink *= left >= 1 ? 0.5f : 1 - left / 2;
  return 1 + shrink * sin_degrees((t * 10 - 0.75f) * 120);
}

float sine_in(float t) {
  return 1 - cos_degrees(t * 90);
}
float quad(float t) {
  return t * t;
}
float cubic(float t) {
  return t * t * t;
}

float curve(Ease ease, float t) {
  switch (ease) {
    case Ease::linear:
      return t;
    case Ease::stepped:
      return 0;
    case Ease::smooth:
      return t * t * (3 - 2 * t);
    case Ease::sine_in:
      return sine_in(t);
    case Ease::sine_out:
      return sin_degrees(t * 90);
    case Ease::sine_both:
      return both(t, sine_in);
    case Ease::quad_in:
      return quad(t);
    case Ease::quad_out:
      return 1 - quad(1 - t);
    case Ease::quad_both:
      return both(t, quad);
    case Ease::cubic_in:
      return cubic(t);
    case Ease::cubic_out:
      return 1 - cubic(1 - t);
    case Ease::cubic_both:
      return both(t, cubic);
    case Ease::back_in:
      return back_in(t);
    case Ease::back_out:
      return 1 - back_in(1 - t);
    case Ease::back_both:
      return both(t, back_in);
    case Ease::elastic_out:
      return elastic_out(t);
    case Ease::bounce_out:
      return bounce_out(t);
  }
  return t;
}

}  // namespace

float eased(Ease ease, float share) {
  if (!(share > 0)) return 0;
  if (share >= 1) return 1;
  return curve(ease, share);
}

}  // namespace vole
