// What `vole check` shall let pass in a file, and why:
//
//   [check]
//   allow = { empty-frame = "the blink between two flashes" }
#pragma once

#include <string>

#include "vole/base/describe.hpp"

namespace vole {

struct CheckNotes {
  Named<Located<std::string>> allow;  // the rule's name, and the reason
};
template <class V>
void describe(V& v, CheckNotes& notes) {
  v("allow", notes.allow);
}

inline bool allows(const CheckNotes& notes, std::string_view rule) {
  for (const auto& item : notes.allow)
    if (item.name == rule) return true;
  return false;
}

}  // namespace vole
