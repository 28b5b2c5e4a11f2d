#include "vole/asset/clip_rules.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <limits>

#include "vole/base/error.hpp"
#include "vole/base/number.hpp"
#include "vole/base/within.hpp"

namespace vole {
namespace {

constexpr std::array<std::pair<std::string_view, ClipRules::Compare>, 6> signs{
    {{"<", ClipRules::Compare::less},
     {"<=", ClipRules::Compare::at_most},
     {"==", ClipRules::Compare::equal},
     {"!=", ClipRules::Compare::not_equal},
     {">=", ClipRules::Compare::at_least},
     {">", ClipRules::Compare::more}}};

bool is_name(std::string_view text) {
  const auto fits = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
  };
  return !text.empty() && !(text[0] >= '0' && text[0] <= '9') && std::all_of(text.begin(), text.end(), fits);
}

std::vector<std::string_view> words_of(std::string_view text) {
  std::vector<std::string_view> words;
  while (true) {
    const std::size_t start = text.find_first_not_of(" \t");
    if (start == std::string_view::npos) return words;
    text.remove_prefix(start);
    words.push_back(text.substr(0, text.find_first_of(" \t")));
    text.remove_prefix(words.back().size());
  }
}

}  // namespace

int ClipRules::find_fact(std::string_view name) const {
  const auto found = std::find(facts_.begin(), facts_.end(), name);
  return found == facts_.end() ? -1 : static_cast<int>(found - facts_.begin());
}

ClipRules::Condition ClipRules::parse(const Located<std::string>& text) {
  const std::vector<std::string_view> words = words_of(text.value);
  std::string_view name;
  Condition condition;
  if (words.size() == 1 && words[0] != "not") {
    name = words[0];
  } else if (words.size() == 2 && words[0] == "not") {
    name = words[1];
    condition.compare = Compare::equal;
  } else if (words.size() == 3) {
    name = words[0];
    const auto sign =
        std::find_if(signs.begin(), signs.end(), [&](const auto& s) { return s.first == words[1]; });
    const std::optional<float> value = parse_float(words[2]);
    if (sign == signs.end() || !value) name = {};
    condition.value = value.value_or(0);
    if (sign != signs.end()) condition.compare = sign->second;
  }
  if (!is_name(name))
    throw Error(text.where, fmt::format("\"{}\" is not a condition", text.value),
                "one is \"grounded\", \"not grounded\" or \"vy < 0\" (also <=, ==, !=, >=, >)");
  const int known = find_fact(name);
  condition.fact = static_cast<std::uint32_t>(known >= 0 ? static_cast<std::size_t>(known) : facts_.size());
  if (known < 0) facts_.emplace_back(name);
  return condition;
}

ClipRules& ClipRules::add(const ClipRuleText& text) {
  Rule rule{text.clip.value, {}, static_cast<int>(text.hold * 1000 + 0.5), text.finish, text.clip.where};
  for (const Located<std::string>& condition : text.when) rule.when.push_back(parse(condition));
  const auto in_group = static_cast<std::uint32_t>(rules_.size() % rules_in_group);
  if (in_group == 0) groups_.emplace_back();
  for (const Condition& condition : rule.when) ask(condition, in_group);
  rules_.push_back(std::move(rule));
  return *this;
}

ClipRules& ClipRules::add(std::string_view clip, const std::vector<std::string>& when, double hold,
                          bool finish) {
  ClipRuleText text{{std::string(clip), {}},
                    {},
                    static_cast<double>(brought_within(static_cast<float>(hold), 0, 3600)),
                    finish};
  for (const std::string& condition : when) text.when.push_back({condition, {}});
  return add(text);
}

void ClipRules::ask(const Condition& condition, std::uint32_t rule) {
  constexpr float all = std::numeric_limits<float>::infinity();
  const float value = condition.value, below = std::nextafter(value, -all),
              above = std::nextafter(value, all);
  const auto range = [&]() -> std::pair<float, float> {
    switch (condition.compare) {
      case Compare::less:
        return {-all, below};
      case Compare::at_most:
        return {-all, value};
      case Compare::more:
        return {above, all};
      case Compare::at_least:
        return {value, all};
      default:
        return {value, value};
    }
  };
  const auto [least, most] = range();
  Group& group = groups_.back();
  (condition.compare == Compare::not_equal ? group.beside : group.within)
      .push_back({std::uint64_t{1} << rule, condition.fact, least, most});
}

// All conditions of a group are asked, without a branch on any: facts change from thing to thing, and a
// branch that is guessed wrong costs more than all of them. Ranges cost two comparisons where asking for each
// kind of comparison costs three (measured: a fifth less each).
int ClipRules::decide(std::span<const float> values) const {
  for (std::size_t i = 0; i < groups_.size(); ++i) {
    std::uint64_t failed = 0;  // a bit for each rule
    for (const ComparedFact& asked : groups_[i].within) {
      const float value = values[asked.fact];
      const auto holds =
          static_cast<unsigned>(value >= asked.least) & static_cast<unsigned>(value <= asked.most);
      failed |= asked.rule & (std::uint64_t{holds} - 1);
    }
    for (const ComparedFact& asked : groups_[i].beside) {
      const float value = values[asked.fact];
      const auto holds =
          static_cast<unsigned>(value < asked.least) | static_cast<unsigned>(value > asked.most);
      failed |= asked.rule & (std::uint64_t{holds} - 1);
    }
    const std::size_t first = i * rules_in_group + static_cast<std::size_t>(std::countr_one(failed));
    if (first < std::min(rules_.size(), (i + 1) * rules_in_group)) return static_cast<int>(first);
  }
  return -1;
}

std::string to_text(const ClipRules::Condition& condition, const ClipRules& rules) {
  const std::string& name = rules.facts()[condition.fact];
  if (condition.value == 0 && condition.compare == ClipRules::Compare::not_equal) return name;
  if (condition.value == 0 && condition.compare == ClipRules::Compare::equal) return "not " + name;
  for (const auto& [sign, compare] : signs)
    if (compare == condition.compare) return fmt::format("{} {} {}", name, sign, condition.value);
  return name;
}

}  // namespace vole
