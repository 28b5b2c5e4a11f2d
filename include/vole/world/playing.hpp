// What a sprite plays: state, and no more. Change it through the sprite (sprite.hpp), which knows the sheet.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <vector>

#include "vole/animation/playhead.hpp"
#include "vole/base/describe.hpp"
#include "vole/base/direction.hpp"

namespace vole {

struct Track;

struct PlayingTrack {
  std::string name;  // empty: none plays here
  std::int64_t ticks = 0;
  float strength = 1;
  const Track* track = nullptr;  // found by its name
};
template <class V>
void describe(V& v, PlayingTrack& playing) {
  v.state("name", playing.name);
  v.state("ticks", playing.ticks, within(0, most_ticks));
  v.state("strength", playing.strength);
}

struct Playing {
  std::string clip;  // empty: one frame stands still
  Playhead playhead;
  std::string set;  // that the clip is from; empty: from none
  std::string key;  // last asked of a set
  Direction facing = Direction::right;

  std::vector<float> facts;     // of the sheet's rules, in their order
  int rule = -1;                // the one that decided the clip
  std::int64_t rule_ticks = 0;  // for how long
  bool held = false;            // a sequence plays, and rules do not count

  std::array<PlayingTrack, 4> tracks;

  void hold() { held = true; }
  // Rules decide anew, whatever they decided before.
  void let_go() {
    held = false;
    rule = -1;
  }
};
template <class V>
void describe(V& v, Playing& playing) {
  v.state("clip", playing.clip);
  v.state("playhead", playing.playhead);
  v.state("set", playing.set);
  v.state("key", playing.key);
  v.state("facing", playing.facing);
  v.state("facts", playing.facts);
  v.state("rule", playing.rule, within(-1, 1e6));
  v.state("rule_ticks", playing.rule_ticks, within(0, most_ticks));
  v.state("held", playing.held);
  v.state("tracks", playing.tracks);
}

}  // namespace vole
