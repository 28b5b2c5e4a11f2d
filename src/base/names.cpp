#include "vole/base/names.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

namespace vole {
namespace {

char lower(char c) {
  return static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
}

// Optimal string alignment distance over three rows of the usual table.
std::size_t edit_distance(std::string_view a, std::string_view b) {
  std::vector<std::size_t> before_last(b.size() + 1), last(b.size() + 1), row(b.size() + 1);
  for (std::size_t j = 0; j <= b.size(); ++j) last[j] = j;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    row[0] = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      const bool same = lower(a[i - 1]) == lower(b[j - 1]);
      row[j] = std::min({last[j] + 1, row[j - 1] + 1, last[j - 1] + (same ? 0u : 1u)});
      const bool swapped =
          i > 1 && j > 1 && lower(a[i - 1]) == lower(b[j - 2]) && lower(a[i - 2]) == lower(b[j - 1]);
      if (swapped) row[j] = std::min(row[j], before_last[j - 2] + 1);
    }
    std::swap(before_last, last);
    std::swap(last, row);
  }
  return last[b.size()];
}

constexpr std::size_t longest_compared = 64;

}  // namespace

std::string nearest_name(std::string_view wrong, std::span<const std::string> known) {
  if (wrong.size() > longest_compared) return {};
  std::size_t best = std::max<std::size_t>(1, std::min<std::size_t>(3, wrong.size() / 2)) + 1;
  std::string nearest;
  for (const std::string& name : known) {
    if (name.size() > longest_compared) continue;
    const std::size_t distance = edit_distance(wrong, name);
    if (distance < best) {
      best = distance;
      nearest = name;
    }
  }
  return nearest;
}

std::string did_you_mean(std::string_view wrong, std::span<const std::string> known) {
  if (known.empty()) return {};
  const std::string nearest = nearest_name(wrong, known);
  if (!nearest.empty()) return fmt::format("did you mean \"{}\"?", nearest);
  std::string list = "known: ";
  const std::size_t shown = std::min<std::size_t>(known.size(), 8);
  for (std::size_t i = 0; i < shown; ++i) list += fmt::format("{}\"{}\"", i ? ", " : "", known[i]);
  if (shown < known.size()) list += fmt::format(" and {} more", known.size() - shown);
  return list;
}

}  // namespace vole
