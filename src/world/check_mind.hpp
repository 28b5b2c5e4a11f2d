// Whether what a mind says is there.
#pragma once

#include <string_view>

#include "vole/asset/sheet.hpp"
#include "vole/base/error.hpp"
#include "vole/level/kinds.hpp"
#include "vole/world/checks.hpp"
#include "vole/world/mind.hpp"

namespace vole {

// What is looked at beside the mind; each may be missing.
struct ThinkingKind {
  std::string_view name;
  const Checks* checks = nullptr;
  const Sheet* sheet = nullptr;
  FilePosition where;
};

// What is wrong goes to the report, with what was probably meant.
void check_mind(const Mind& mind, const ThinkingKind& kind, const Kinds& kinds, Report& report);

}  // namespace vole
