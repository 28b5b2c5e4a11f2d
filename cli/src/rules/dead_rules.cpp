#include "dead_rules.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "vole/world/sprite.hpp"

namespace {

using vole::ClipRules;
using vole::FactSource;

// A condition changes its answer only at the number that it names: whatever is true of some value of a fact
// is true of one of these.
std::vector<float> telling_values(const ClipRules& rules, std::uint32_t fact) {
  const FactSource source = vole::fact_source(rules.facts()[fact]);
  if (vole::is_yes_or_no(source)) return {0, 1};
  std::set<float> named;
  for (const ClipRules::Rule& rule : rules.rules())
    for (const ClipRules::Condition& condition : rule.when)
      if (condition.fact == fact) named.insert(condition.value);
  std::vector<float> values;
  for (const float value : named) {
    values.push_back(values.empty() ? value - 1 : (values.back() + value) / 2);
    values.push_back(value);
  }
  values.push_back(values.back() + 1);
  if (source == FactSource::speed) std::erase_if(values, [](float value) { return value < 0; });
  return values;
}

bool holds(const ClipRules::Rule& rule, std::uint32_t fact, float value) {
  return std::all_of(rule.when.begin(), rule.when.end(), [&](const ClipRules::Condition& condition) {
    return condition.fact != fact || condition.holds(value);
  });
}

class DeadRules {
 public:
  explicit DeadRules(const ClipRules& rules) : rules_(rules) {
    for (std::uint32_t fact = 0; fact < rules.facts().size(); ++fact)
      values_.push_back(telling_values(rules, fact));
  }

  std::vector<std::string> reasons() const {
    const std::vector<bool> wins = states_can_be_tried() ? winners() : std::vector<bool>();
    std::vector<std::string> reasons;
    for (std::size_t i = 0; i < rules_.rules().size(); ++i)
      reasons.push_back(wins.empty() || !wins[i] ? reason(i, !wins.empty()) : "");
    return reasons;
  }

 private:
  static constexpr double most_states = 100'000;

  bool states_can_be_tried() const {
    double states = 1;
    for (const auto& values : values_) states *= static_cast<double>(values.size());
    return states <= most_states && states * static_cast<double>(rules_.rules().size()) < 100 * most_states;
  }

  // The rules that win in some state, by trying all of them.
  std::vector<bool> winners() const {
    std::vector<bool> wins(rules_.rules().size(), false);
    std::vector<std::size_t> chosen(values_.size(), 0);
    std::vector<float> state;
    for (const auto& values : values_) state.push_back(values[0]);
    while (true) {
      if (const int winner = rules_.decide(state); winner >= 0) wins[static_cast<std::size_t>(winner)] = true;
      std::size_t fact = 0;
      for (; fact < values_.size(); ++fact) {
        chosen[fact] = (chosen[fact] + 1) % values_[fact].size();
        state[fact] = values_[fact][chosen[fact]];
        if (chosen[fact] != 0) break;
      }
      if (fact == values_.size()) return wins;
    }
  }

  std::string reason(std::size_t index, bool known_dead) const {
    const ClipRules::Rule& rule = rules_.rules()[index];
    for (std::uint32_t fact = 0; fact < values_.size(); ++fact)
      if (std::none_of(values_[fact].begin(), values_[fact].end(),
                       [&](float value) { return holds(rule, fact, value); }))
        return fmt::format("what it asks of \"{}\" cannot be", rules_.facts()[fact]);
    for (std::size_t j = 0; j < index; ++j)
      if (covers(rules_.rules()[j], rule))
        return fmt::format("\"{}\" above it holds whenever it does", rules_.rules()[j].clip);
    return known_dead ? "of those above it one always holds when it does" : "";
  }

  // Whether a rule holds wherever the other does.
  bool covers(const ClipRules::Rule& rule, const ClipRules::Rule& other) const {
    for (std::uint32_t fact = 0; fact < values_.size(); ++fact)
      for (const float value : values_[fact])
        if (holds(other, fact, value) && !holds(rule, fact, value)) return false;
    return true;
  }

  const ClipRules& rules_;
  std::vector<std::vector<float>> values_;  // of each fact
};

}  // namespace

std::vector<std::string> why_rules_are_dead(const ClipRules& rules) {
  return DeadRules(rules).reasons();
}
