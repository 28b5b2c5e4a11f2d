#include "vole/world/slips.hpp"

#include <algorithm>

#include "vole/base/names.hpp"

namespace vole {
namespace {

// What is left of both without what they begin and end with alike is at most one letter each, or two that are swapped.
bool one_slip_apart(std::string_view a, std::string_view b) {
  while (!a.empty() && !b.empty() && a.front() == b.front()) {
    a.remove_prefix(1);
    b.remove_prefix(1);
  }
  while (!a.empty() && !b.empty() && a.back() == b.back()) {
    a.remove_suffix(1);
    b.remove_suffix(1);
  }
  if (a.size() == 2 && b.size() == 2) return a[0] == b[1] && a[1] == b[0];
  return a.size() <= 1 && b.size() <= 1;
}

}  // namespace

bool is_slip(std::string_view name, std::span<const std::string> known) {
  constexpr std::size_t long_name = 8;
  if (name.size() >= long_name) return !nearest_name(name, known).empty();
  const std::string its = lower_case(name);
  return std::any_of(known.begin(), known.end(),
                     [&](const std::string& each) { return one_slip_apart(its, each); });
}

}  // namespace vole
