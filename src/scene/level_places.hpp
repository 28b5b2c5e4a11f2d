// What the places of a level, and of the pieces in it, bring to life.
#pragma once

#include "vole/scene/stage.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Throw Error, for all at once, when a place of the level or of one of its pieces cannot be brought to life; and of one piece.
void expect_places(const StageSetting& setting, const LevelNow& level);
void expect_places(const StageSetting& setting, const LevelNow& level, const Level& piece);

// Brings a place to life.
Entity put_place(const StageSetting& setting, World& world, const FromPlace& from);

}  // namespace vole
