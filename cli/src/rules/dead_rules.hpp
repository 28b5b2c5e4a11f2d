// Which clip rules can never win, and why.
#pragma once

#include <string>
#include <vector>

#include "vole/asset/clip_rules.hpp"

// For each rule the reason, or nothing where some state of the facts lets it win. Lists with so many facts
// that all states cannot be tried are looked at in pairs only, so there a reason may be missed but none is
// wrong.
std::vector<std::string> why_rules_are_dead(const vole::ClipRules& rules);
