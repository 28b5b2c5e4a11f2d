#include "vole/base/trig.hpp"

#include <cmath>

namespace vole {
namespace {

// Sine on [-45, 45] degrees and cosine on the same, by their Taylor series in radians; plain multiplications
// and additions in double round the same way on every IEEE 754 machine.
double sine_near_zero(double degrees) {
  const double x = degrees * 0.017453292519943295;
  const double s = x * x;
  return x * (1.0 + s * (-1.0 / 6 + s * (1.0 / 120 + s * (-1.0 / 5040 + s * (1.0 / 362880)))));
}

double cosine_near_zero(double degrees) {
  const double x = degrees * 0.017453292519943295;
  const double s = x * x;
  return 1.0 + s * (-0.5 + s * (1.0 / 24 + s * (-1.0 / 720 + s * (1.0 / 40320 + s * (-1.0 / 3628800)))));
}

}  // namespace

float sin_degrees(float degrees) {
  if (!std::isfinite(degrees)) return 0.0f;
  const double turned = std::fmod(static_cast<double>(degrees), 360.0);
  const double quarter = std::floor(turned / 90.0 + 0.5);
  const double rest = turned - quarter * 90.0;
  switch ((static_cast<int>(quarter) % 4 + 4) % 4) {
    case 0:
      return static_cast<float>(sine_near_zero(rest));
    case 1:
      return static_cast<float>(cosine_near_zero(rest));
    case 2:
      return static_cast<float>(-sine_near_zero(rest));
    default:
      return static_cast<float>(-cosine_near_zero(rest));
  }
}

float cos_degrees(float degrees) {
  if (!std::isfinite(degrees)) return 1.0f;
  const double turned = std::fmod(static_cast<double>(degrees), 360.0);
  return sin_degrees(static_cast<float>(turned + 90.0));
}

}  // namespace vole
