// Numbers of a kind that were changed in its file, felt at once by the things that are there.
#pragma once

#include "vole/world/compiled_kinds.hpp"

namespace vole {

// Gives every thing of this kind the numbers (pairs and colours too) that differ from one version of the kind to the
// next, and what it carries theirs. What the level's place or the game has set otherwise stays.
void change_numbers(World& world, const CompiledKind& before, const CompiledKind& now);

}  // namespace vole
