// Sine and cosine of degrees with the same bits on every platform, which the C library does not promise.
// Exact at every multiple of 90 degrees; elsewhere within 1e-6 of the true value.
#pragma once

namespace vole {

float sin_degrees(float degrees);
float cos_degrees(float degrees);

}  // namespace vole
