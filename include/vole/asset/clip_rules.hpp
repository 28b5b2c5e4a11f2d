// Which clip to play: an ordered list of rules, of which the first whose conditions are true wins. In
// NAME.sheet.toml:
//
//   [[rules]]
//   clip = "jump"
//   when = ["not grounded", "vy < 0"]       # all of them; none: always
//
//   [[rules]]
//   clip = "land"
//   when = ["landing"]
//   finish = true                           # once begun, the clip is played to its end
//   hold = 0.1                              # or at least so many seconds
//
// `grounded` and the others are facts: see Sprite. The same in C++:
//
//   ClipRules rules;
//   rules.add({"jump", {"not grounded", "vy < 0"}}).add({"idle", {}});
#pragma once

#include <cstdint>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"

namespace vole {

// A rule as it is written.
struct ClipRuleText {
  Located<std::string> clip;
  std::vector<Located<std::string>> when;
  double hold = 0;
  bool finish = false;
};
template <class V>
void describe(V& v, ClipRuleText& rule) {
  v("clip", rule.clip, needed());
  v("when", rule.when);
  v("hold", rule.hold, within(0, 3600));
  v("finish", rule.finish);
}

class ClipRules {
 public:
  // Bits: 1 for less, 2 for equal, 4 for more.
  enum class Compare : std::uint32_t {
    less = 1,
    equal = 2,
    at_most = 3,
    more = 4,
    not_equal = 5,
    at_least = 6
  };
  struct Condition {
    std::uint32_t fact = 0;  // index into facts()
    Compare compare = Compare::not_equal;
    float value = 0;

    // Of a fact that is "not a number" nothing holds.
    bool holds(float fact_value) const {
      const unsigned relation =
          (fact_value < value ? 1u : 0u) | (fact_value == value ? 2u : 0u) | (fact_value > value ? 4u : 0u);
      return (relation & static_cast<unsigned>(compare)) != 0;
    }
  };
  struct Rule {
    std::string clip;
    std::vector<Condition> when;
    int hold_milliseconds = 0;
    bool finish = false;
    FilePosition where;
  };

  // Adds a rule after those that are there. Throws Error for what is not a condition.
  ClipRules& add(const ClipRuleText& text);
  ClipRules& add(std::string_view clip, const std::vector<std::string>& when, double hold = 0,
                 bool finish = false);

  bool empty() const { return rules_.empty(); }
  const std::vector<Rule>& rules() const { return rules_; }
  // The names that conditions speak of, each once.
  const std::vector<std::string>& facts() const { return facts_; }
  // The index of a fact, or -1.
  int find_fact(std::string_view name) const;

  // The first rule that holds for these values, one for each of facts(); -1 when none does.
  int decide(std::span<const float> values) const;

 private:
  Condition parse(const Located<std::string>& text);

  std::vector<Rule> rules_;
  std::vector<std::string> facts_;
  // The same as the rules say, in rows, since this is asked for each thing each tick: every comparison is a
  // range that the fact lies in, except for "not equal", which is one that it lies outside of.
  struct ComparedFact {
    std::uint64_t rule = 0;  // its bit within its group
    std::size_t fact = 0;
    float least = 0;
    float most = 0;
  };
  struct Group {
    std::vector<ComparedFact> within, beside;
  };
  static constexpr std::size_t rules_in_group = 64;
  void ask(const Condition& condition, std::uint32_t rule);

  std::vector<Group> groups_;
};

// "not grounded", "vy < 0": as it can be read and written.
std::string to_text(const ClipRules::Condition& condition, const ClipRules& rules);

}  // namespace vole
