// How one value becomes another over time. The curves of R. Penner, "Motion, tweening, and easing", 2002.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

namespace vole {

enum class Ease : std::uint8_t {
  linear,
  stepped,  // stays, then is there
  smooth,   // through the keyframes without a corner (Catmull-Rom); alone: slow, fast, slow
  sine_in,
  sine_out,
  sine_both,
  quad_in,
  quad_out,
  quad_both,
  cubic_in,
  cubic_out,
  cubic_both,
  back_in,  // beyond the value, and back to it
  back_out,
  back_both,
  elastic_out,
  bounce_out
};
constexpr auto enum_names(Ease) {
  return std::array<std::string_view, 17>{"linear",      "stepped",    "smooth",   "sine in",   "sine out",
                                          "sine both",   "quad in",    "quad out", "quad both", "cubic in",
                                          "cubic out",   "cubic both", "back in",  "back out",  "back both",
                                          "elastic out", "bounce out"};
}

// Where a value is that goes from 0 to 1, after this share of its time; shares outside [0, 1] are limited to it.
// Ends exactly at 0 and 1.
float eased(Ease ease, float share);

}  // namespace vole
