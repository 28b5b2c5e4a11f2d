#include "vole/world/conditions.hpp"

#include <algorithm>

namespace vole {

void Conditions::add(const std::vector<Located<std::string>>& when) {
  rules_.add({{}, when, 0, false});
  std::vector<std::string>& texts = texts_.emplace_back();
  for (const Located<std::string>& text : when) texts.push_back(text.value);
}

std::vector<std::string> Conditions::texts(std::size_t part) const {
  std::vector<std::string> texts;
  for (const ClipRules::Condition& condition : when(part)) texts.push_back(to_text(condition, rules_));
  return texts;
}

bool Conditions::is_text(std::size_t part, const std::vector<Located<std::string>>& when) const {
  return std::equal(
      texts_[part].begin(), texts_[part].end(), when.begin(), when.end(),
      [](const std::string& read, const Located<std::string>& now) { return read == now.value; });
}

}  // namespace vole
