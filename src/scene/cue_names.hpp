#pragma once

namespace vole {

class Catalog;
class Cues;
class LevelNow;
class SceneTypes;
struct Kinds;

// Throws Error, with the nearest name, for what a cue is about and the game does not have: zones that are in no level, tiles, materials
// and tags that are in no tileset, categories that no body has. Not only of the level that is loaded: a scene may load others later.
void expect_cue_names(const Cues& cues, const Kinds& kinds, const LevelNow& level, Catalog& catalog);
// The same for scenes whose closing a cue is about, and for what they hand back.
void expect_closing_scenes(const Cues& cues, const SceneTypes& scenes);
// And for levels on whose arrival one is.
void expect_arrival_levels(const Cues& cues, Catalog& catalog);

}  // namespace vole
