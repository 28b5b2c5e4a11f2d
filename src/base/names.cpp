#include "vole/base/names.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cctype>

namespace vole {
namespace {

char lower(char c) {
  return static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
}

constexpr std::size_t longest_compared = 64;

// Optimal string alignment distance over three rows of the usual table, of which only the cells near the diagonal can
// hold less than `limit`; the limit where it is that or more. Both are at most longest_compared.
std::size_t edit_distance(std::string_view a, std::string_view b, std::size_t limit) {
  if (std::max(a.size(), b.size()) - std::min(a.size(), b.size()) >= limit) return limit;
  using Row = std::array<std::size_t, longest_compared + 1>;
  Row before_last{}, last{}, row{};
  for (std::size_t j = 0; j <= b.size(); ++j) last[j] = j;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    row[0] = i;
    const std::size_t start = i > limit ? i - limit : 1, end = std::min(b.size(), i + limit);
    if (start > 1) row[start - 1] = limit;
    for (std::size_t j = start; j <= end; ++j) {
      const bool same = lower(a[i - 1]) == lower(b[j - 1]);
      row[j] = std::min({last[j] + 1, row[j - 1] + 1, last[j - 1] + (same ? 0u : 1u)});
      const bool swapped =
          i > 1 && j > 1 && lower(a[i - 1]) == lower(b[j - 2]) && lower(a[i - 2]) == lower(b[j - 1]);
      if (swapped) row[j] = std::min(row[j], before_last[j - 2] + 1);
    }
    if (end < b.size()) row[end + 1] = limit;
    std::swap(before_last, last);
    std::swap(last, row);
  }
  return std::min(last[b.size()], limit);
}

// A guess is not worth more time than this many comparisons take.
constexpr std::size_t most_compared = 5000;

bool is_digit(char c) {
  return c >= '0' && c <= '9';
}

// The digits at the start of a text without leading zeros, and how many there are with them.
std::pair<std::string_view, std::size_t> leading_number(std::string_view text) {
  std::size_t end = 0;
  while (end < text.size() && is_digit(text[end])) ++end;
  std::size_t zeros = 0;
  while (zeros + 1 < end && text[zeros] == '0') ++zeros;
  return {text.substr(zeros, end - zeros), end};
}

}  // namespace

std::string nearest_name(std::string_view wrong, std::span<const std::string> known) {
  if (wrong.size() > longest_compared) return {};
  std::size_t best = std::max<std::size_t>(1, std::min<std::size_t>(3, wrong.size() / 2)) + 1;
  std::string nearest;
  for (const std::string& name : known.first(std::min(known.size(), most_compared))) {
    if (name.size() > longest_compared) continue;
    const std::size_t distance = edit_distance(wrong, name, best);
    if (distance < best) {
      best = distance;
      nearest = name;
    }
  }
  return nearest;
}

bool natural_less(std::string_view a, std::string_view b) {
  const std::string_view whole_a = a, whole_b = b;
  while (!a.empty() && !b.empty()) {
    if (is_digit(a[0]) && is_digit(b[0])) {
      const auto [number_a, length_a] = leading_number(a);
      const auto [number_b, length_b] = leading_number(b);
      if (number_a.size() != number_b.size()) return number_a.size() < number_b.size();
      if (number_a != number_b) return number_a < number_b;
      a.remove_prefix(length_a);
      b.remove_prefix(length_b);
    } else {
      if (a[0] != b[0]) return static_cast<unsigned char>(a[0]) < static_cast<unsigned char>(b[0]);
      a.remove_prefix(1);
      b.remove_prefix(1);
    }
  }
  if (a.empty() != b.empty()) return a.empty();
  if (whole_a.size() != whole_b.size()) return whole_a.size() < whole_b.size();
  return whole_a < whole_b;
}

std::string lower_case(std::string_view text) {
  std::string result(text);
  for (char& c : result)
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  return result;
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

std::string joined(std::span<const std::string> texts, std::string_view between) {
  std::string all;
  for (const std::string& text : texts) {
    if (&text != &texts.front()) all += between;
    all += text;
  }
  return all;
}

}  // namespace vole
