// Finding the name that was meant.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace vole {

// The known name nearest to the wrong one by edit distance (insert, delete, replace, swap of neighbours, each
// counting 1; letter case counts nothing), or an empty text when nothing is near.
std::string nearest_name(std::string_view wrong, std::span<const std::string> known);

// `did you mean "run"?`; without a near name `known: "idle", "run"` (at most eight); empty when none is
// known.
std::string did_you_mean(std::string_view wrong, std::span<const std::string> known);

// Whether one name comes before another as people count: runs of digits by their value, so "frame2" before
// "frame10"; equal values by their length, all else by bytes.
bool natural_less(std::string_view a, std::string_view b);

// Small letters for the capitals of ASCII.
std::string lower_case(std::string_view text);

// All of them, with this between each two.
std::string joined(std::span<const std::string> texts, std::string_view between);

// Where the thing with this `name` is in a list; the length of the list when there is none.
template <class Things>
std::size_t index_named(const Things& things, std::string_view name) {
  std::size_t index = 0;
  while (index < things.size() && things[index].name != name) ++index;
  return index;
}
// The thing itself; nullptr when there is none.
template <class Things>
auto* find_named(Things& things, std::string_view name) {
  const std::size_t index = index_named(things, name);
  return index < things.size() ? &things[index] : nullptr;
}

// The names of a list of things that have a `name`.
template <class Things>
std::vector<std::string> names_of(const Things& things) {
  std::vector<std::string> names;
  names.reserve(things.size());
  for (const auto& thing : things) names.push_back(thing.name);
  return names;
}

}  // namespace vole
