#pragma once

namespace vole {

class Catalog;
class Cues;
class LevelNow;
struct Kinds;

// Throws Error, with the nearest name, for what a cue is about and the game does not have: zones that are in no level, tiles, materials
// and tags that are in no tileset, categories that no body has. Not only of the level that is loaded: a scene may load others later.
void expect_cue_names(const Cues& cues, const Kinds& kinds, const LevelNow& level, Catalog& catalog);

}  // namespace vole
