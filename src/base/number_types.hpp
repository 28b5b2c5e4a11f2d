// What numbers, and pairs and boxes of them, have in common.
#pragma once

#include <algorithm>
#include <cmath>
#include <limits>
#include <type_traits>

#include "plain_type.hpp"
#include "vole/base/reading.hpp"

namespace vole::detail {

// Of a file: finite and within the limits, or reported.
void read_number(const TomlValue& toml, double& value, const FieldRule& rule, Report& report, TableOf of);
void read_number(const TomlValue& toml, float& value, const FieldRule& rule, Report& report, TableOf of);
TomlValue plain_number_schema(const FieldRule& rule);

float part_within(float part, const FieldRule& rule);
// Rounded, and brought within what the type holds.
template <class T>
T whole_part(float part) {
  const double low = static_cast<double>(std::numeric_limits<T>::min());
  const double high = static_cast<double>(std::numeric_limits<T>::max());
  return static_cast<T>(std::llround(std::clamp(static_cast<double>(part), low, high)));
}
template <class T>
T part_as(float part) {
  if constexpr (std::is_integral_v<T>)
    return whole_part<T>(part);
  else
    return static_cast<T>(part);
}

}  // namespace vole::detail
