// What a thing counts as, whatever its kind. In kinds.toml:
//
//   tags = ["seed", "round"]
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/level/tag_limit.hpp"

namespace vole {

struct Tags {
  std::vector<std::string> names;

  bool has(std::string_view tag) const {
    for (const std::string& name : names)
      if (name == tag) return true;
    return false;
  }
};
template <class V>
void describe(V& v, Tags& tags) {
  v("names", tags.names);
}
inline OnlyField<std::vector<std::string>> one_field(Tags& tags) {
  return {tags.names, must_not_be_empty().items(most_tags)};
}

}  // namespace vole
