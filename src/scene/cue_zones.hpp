#pragma once

namespace vole {

class Catalog;
class Cues;
class LevelNow;

// Throws Error, with the nearest name, for a zone that a cue is about and that no level of the game has. Not only the level that is
// loaded: a scene may load others later.
void expect_zones(const Cues& cues, const LevelNow& level, Catalog& catalog);

}  // namespace vole
