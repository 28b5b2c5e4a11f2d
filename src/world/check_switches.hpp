// Whether the switches of a kind are of something that is there, and at something that can happen.
#pragma once

#include "vole/asset/sheet.hpp"
#include "vole/world/body.hpp"
#include "vole/world/checks.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/switches.hpp"

namespace vole {

// Each nullptr for what the kind has not.
struct SwitchedKind {
  std::string_view name;
  const Body* body = nullptr;
  const Shapes* shapes = nullptr;
  const Checks* checks = nullptr;
  const Sheet* sheet = nullptr;
};

void check_switches(const Switches& switches, const SwitchedKind& kind, Report& report);

}  // namespace vole
