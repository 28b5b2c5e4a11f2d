// Who blocks whom, and who notices whom. In game.toml:
//
//   [categories]
//   walkers = { blocks = ["ground", "doors"] }        # they block each other: said once, on either side
//   doors = {}
//   seeds = { notices = ["walkers"] }                 # and nothing else; left out: all
//
// Two categories are always there: "ground", of tiles that say nothing else, and "plain", of bodies that say nothing else.
// A category that says nothing of what it blocks is blocked by ground alone.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/physics/body_id.hpp"

namespace vole {

struct CategoryText {
  std::optional<std::vector<Located<std::string>>> blocks, notices;
};
template <class V>
void describe(V& v, CategoryText& category) {
  v("blocks", category.blocks, items(most_categories));
  v("notices", category.notices, items(most_categories));
}

class Categories {
 public:
  static constexpr std::uint8_t ground = 0, plain = 1;

  Categories();
  // What is wrong goes to the report: a name that is not there, and two that disagree on whether they notice each other.
  Categories(const Named<CategoryText>& written, Report& report);

  const std::vector<std::string>& names() const { return names_; }
  // Throws Error at `asked` with the nearest name.
  std::uint8_t number(std::string_view name, const FilePosition& asked = {}) const;
  // nothing when there is none.
  std::optional<std::uint8_t> find(std::string_view name) const;
  // As bits, by number.
  CategoryMask blocks(std::uint8_t number) const { return blocks_[number]; }
  CategoryMask notices(std::uint8_t number) const { return notices_[number]; }

 private:
  CategoryMask mask_of(const std::vector<Located<std::string>>& names, Report& report) const;
  void read(const NamedItem<CategoryText>& item, Report& report);
  void agree(const Named<CategoryText>& written, Report& report);

  std::vector<std::string> names_{"ground", "plain"};
  std::array<CategoryMask, most_categories> blocks_{};
  std::array<CategoryMask, most_categories> notices_{};
};

}  // namespace vole
