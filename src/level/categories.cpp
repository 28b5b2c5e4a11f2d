#include "vole/level/categories.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"

namespace vole {
namespace {

CategoryMask bit(std::uint8_t number) {
  return CategoryMask{1} << number;
}

}  // namespace

Categories::Categories() {
  blocks_.fill(bit(ground));
  blocks_[ground] = 0;
  notices_.fill(all_categories);
}

Categories::Categories(const Named<CategoryText>& written, Report& report) : Categories() {
  for (const auto& item : written) {
    if (find(item.name)) continue;
    if (names_.size() == most_categories) {
      report.error(item.where, fmt::format("more than {} categories", most_categories),
                   "\"ground\" and \"things\" are two of them");
      return;
    }
    names_.push_back(item.name);
  }
  for (const auto& item : written) read(item, report);
  // To block is mutual.
  for (std::uint8_t a = 0; a < names_.size(); ++a)
    for (std::uint8_t b = 0; b < names_.size(); ++b)
      if ((blocks_[a] & bit(b)) != 0) blocks_[b] |= bit(a);
  agree(written, report);
}

std::optional<std::uint8_t> Categories::find(std::string_view name) const {
  const auto found = std::find(names_.begin(), names_.end(), name);
  if (found == names_.end()) return std::nullopt;
  return static_cast<std::uint8_t>(found - names_.begin());
}

std::uint8_t Categories::number(std::string_view name, const FilePosition& asked) const {
  if (const auto found = find(name)) return *found;
  throw Error(asked, fmt::format("no category \"{}\"", name),
              names_.size() == 2 ? "game.toml has no [categories] with it" : did_you_mean(name, names_));
}

CategoryMask Categories::mask_of(const std::vector<Located<std::string>>& names, Report& report) const {
  CategoryMask mask = 0;
  for (const Located<std::string>& name : names) {
    if (const auto found = find(name.value))
      mask |= bit(*found);
    else
      report.error(name.where, fmt::format("no category \"{}\"", name.value),
                   did_you_mean(name.value, names_));
  }
  return mask;
}

void Categories::read(const NamedItem<CategoryText>& item, Report& report) {
  const auto number = find(item.name);
  if (!number) return;
  if (item.value.blocks) blocks_[*number] = mask_of(*item.value.blocks, report);
  if (item.value.notices) notices_[*number] = mask_of(*item.value.notices, report);
}

// A list that leaves out who has it in its own.
void Categories::agree(const Named<CategoryText>& written, Report& report) {
  for (const auto& item : written) {
    const auto number = find(item.name);
    if (!number || !item.value.notices) continue;
    for (const Located<std::string>& name : *item.value.notices) {
      const auto other = find(name.value);
      if (other && (notices_[*other] & bit(*number)) == 0)
        report.error(name.where,
                     fmt::format("\"{}\" notices \"{}\", which does not notice it", item.name, name.value),
                     "two notice each other or not at all: put it into both lists, or leave one list out");
    }
    // Those without a list notice whom they are noticed by.
    for (std::uint8_t other = 0; other < names_.size(); ++other)
      if ((notices_[*number] & bit(other)) == 0) notices_[other] &= ~bit(*number);
  }
}

}  // namespace vole
