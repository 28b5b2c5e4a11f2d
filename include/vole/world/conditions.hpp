// What the parts of a component ask for before they count, as in clip rules: read once, and anew when their texts are others.
#pragma once

#include <string>
#include <vector>

#include "vole/asset/clip_rules.hpp"
#include "vole/base/error.hpp"

namespace vole {

class Conditions {
 public:
  // Of parts that have a `when`. Throws Error for what is no condition.
  template <class Part>
  explicit Conditions(const std::vector<Located<Part>>& parts) {
    for (const Located<Part>& part : parts) add(part.value.when);
  }
  // Whether they were read from what these parts say now.
  template <class Part>
  bool are_of(const std::vector<Located<Part>>& parts) const {
    if (parts.size() != texts_.size()) return false;
    for (std::size_t i = 0; i < parts.size(); ++i)
      if (!is_text(i, parts[i].value.when)) return false;
    return true;
  }

  // Of a part, by its place; and what their `fact` is an index of.
  const std::vector<ClipRules::Condition>& when(std::size_t part) const { return rules_.rules()[part].when; }
  // As they are written in messages and pictures: "speed > 10".
  std::vector<std::string> texts(std::size_t part) const;
  const std::vector<std::string>& facts() const { return rules_.facts(); }

 private:
  void add(const std::vector<Located<std::string>>& when);
  bool is_text(std::size_t part, const std::vector<Located<std::string>>& when) const;

  std::vector<std::vector<std::string>> texts_;
  ClipRules rules_;
};

}  // namespace vole
