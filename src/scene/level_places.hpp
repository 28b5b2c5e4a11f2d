// What the places of a level, and of the pieces in it, bring to life.
#pragma once

#include <memory>

#include "vole/scene/stage.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Throw Error, for all at once, when a place of the level or of one of its pieces cannot be brought to life; and of one piece.
void expect_places(const StageSetting& setting, const LevelNow& level);
void expect_places(const StageSetting& setting, const LevelNow& level, const Level& piece);

// The kind of a place, with what the place puts over it. Throws Error.
std::shared_ptr<const CompiledKind> kind_at(const StageSetting& setting, const LevelPlace& place);

// Brings what a place is of to life; none where it is of no kind.
Entity put_place(const StageSetting& setting, World& world, const FromPlace& from);

}  // namespace vole
