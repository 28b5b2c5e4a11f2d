// What a thing looks like. In kinds.toml:
//
//   sprite = { sheet = "vole", clip = "idle", depth = 2 }
//
//   Sprite& sprite = stage.get<Sprite>(vole);
//   sprite.play("run");                          // what plays already goes on
//   sprite.set_fact("hurt", 1);                  // for the sheet's clip rules
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>

#include "vole/asset/asset.hpp"
#include "vole/asset/clip_set.hpp"
#include "vole/asset/names.hpp"
#include "vole/asset/ready_tracks.hpp"
#include "vole/base/colour.hpp"
#include "vole/draw/blend.hpp"
#include "vole/world/playing.hpp"

namespace vole {

class InLevel;
class OfKind;
class Sheet;
struct OnThing;
struct TrackPose;

// Where the value of a fact that clip rules ask for comes from: the game, or the thing itself.
enum class FactSource : std::uint8_t {
  game,
  finished,
  grounded,
  at_wall,
  vx,
  vy,
  speed,
  climbing,
  swimming,
  crouching,
  dashing,
  sliding,
  gliding
};
constexpr auto enum_names(FactSource) {
  return std::array<std::string_view, 13>{"",        "finished", "grounded", "at_wall",  "vx",
                                          "vy",      "speed",    "climbing", "swimming", "crouching",
                                          "dashing", "sliding",  "gliding"};
}
// Whether it is one of two: 1 or 0.
constexpr bool is_yes_or_no(FactSource source) {
  return source != FactSource::game && source != FactSource::vx && source != FactSource::vy &&
         source != FactSource::speed;
}
FactSource fact_source(std::string_view fact);

// What a sprite's names refer to at the moment. Not state: bind() makes it again.
struct SpriteLinks {
  Asset<Sheet> asset;
  std::shared_ptr<const Sheet> sheet;    // the version that the playing clip belongs to
  std::shared_ptr<const Sheet> refused;  // a newer one, with which something is wrong
  bool has_layer = false;                // it was looked for
  std::size_t layer = 0;                 // of the level
  int still = 0;                         // the frame shown while no clip plays
  int set = -1;                          // of the sheet: the playing clip is from this one, which is its
  int member = 0;
  std::vector<FactSource> fact_sources;
  const std::vector<const Track*>* own_tracks = nullptr;  // the game's
};

struct Sprite {
  Located<std::string> sheet_name;
  Located<std::string> layer_name{"things", {}};
  Located<std::string> first_clip;  // played from the start; empty: one frame stands still
  Located<std::string> frame_name;  // that frame; empty: frame 0
  float depth = 0;
  Vec2 scale{1, 1};
  std::optional<Vec2> size;  // in pixels, in place of the frame's own
  float rotation = 0;        // degrees clockwise round the pivot
  bool mirrored = false;     // besides what the pose's facing does
  bool upside_down = false;
  Colour tint = white;
  float opacity = 1;
  Blend blend = Blend::over;
  Colour flash = clear;  // its shape in one colour, as for a moment after a hit; alpha says how much

  Playing playing;
  SpriteLinks links;

  // Plays a clip of the sheet; the one that plays already goes on. Of a set, the clip for the way it faces,
  // or for the key it was last given. Throws Error with the nearest name.
  void play(std::string_view clip_or_set);
  // Plays the clip of a set that has this key, and keeps the key for other sets. Throws Error with the
  // nearest.
  void play(std::string_view set, std::string_view key);
  template <NamedEnum Key>
  void play(std::string_view set, Key key) {
    play(set, enum_names(key)[static_cast<std::size_t>(key)]);
  }
  // The same, and throws Error when the sprite shows another sheet than the one this is a clip or a set of.
  template <class SheetNames, class... Key>
  void play(ClipName<SheetNames> clip_or_set, Key... key) {
    expect_sheet(SheetNames::name);
    play(std::string_view(clip_or_set), key...);
  }
  // The same from the first frame, also when it plays already.
  void restart(std::string_view clip_or_set);
  // No clip any more.
  void stop();
  void pause() { playing.playhead.pause(); }
  void resume() { playing.playhead.resume(); }
  // How fast clips play: 1 as they say, 0 not at all, at most 100.
  void set_speed(float factor) { playing.playhead.set_speed(factor); }
  // To the start of the frame at this position of the clip; events before it are passed over.
  void go_to(int position, int ticks_per_second) { playing.playhead.go_to(position, ticks_per_second); }
  const Playhead& playhead() const { return playing.playhead; }
  // Faces as nearly so as the set that plays can: its clip goes on from the same frame. No way at all leaves
  // it as it is. What has an intent or moves turns by itself.
  void face(Vec2 towards);

  // Starts a track of the sheet, of the library or of the game (Game::knows), from its beginning; up to four
  // at once; a fifth replaces the oldest. Those of the clip play in addition. Throws Error with the nearest name.
  void play_track(std::string_view track, float strength = 1);
  void play_track(const Track& track, float strength = 1);
  void stop_track(std::string_view track);
  void stop_tracks();
  // What all tracks together add now.
  TrackPose track_pose(int ticks_per_second) const;

  // Sets what the sheet's rules ask for: 1, 0 or any number. `grounded`, `at_wall`, `vx`, `vy` and `speed`
  // come from the thing's motion, and `finished` from the clip, by themselves. Throws Error for a fact that no
  // rule asks for, with the nearest.
  void set_fact(std::string_view fact, float value);

  // nullptr before the thing has come to life.
  const Sheet* sheet() const { return links.sheet.get(); }
  // Throws Error when it shows another sheet.
  void expect_sheet(std::string_view name) const;
  // What it plays of a set; nullptr while it plays none.
  const ClipSet* playing_set() const;
  const ClipSet::Member* playing_member() const;
  // The frame of its sheet that shows now; -1 for none.
  int frame(int ticks_per_second) const;
};
template <class V>
void describe(V& v, Sprite& sprite) {
  v("sheet", sprite.sheet_name, needed());
  v("layer", sprite.layer_name);
  v("clip", sprite.first_clip);
  v("frame", sprite.frame_name);
  v("depth", sprite.depth);
  v("scale", sprite.scale, within(1.0 / 64, 64));
  v("size", sprite.size, within(1, 4096));
  v("rotation", sprite.rotation, within(-1e6, 1e6));
  v("mirrored", sprite.mirrored);
  v("upside_down", sprite.upside_down);
  v("tint", sprite.tint);
  v("opacity", sprite.opacity, within(0, 1));
  v("blend", sprite.blend);
  v.state("flash", sprite.flash);
  v.state("playing", sprite.playing);
}

// A sprite that is known to show one sheet, so that a clip of another does not compile:
//
//   SpriteOf<names::sheet::vole> look(stage.get<Sprite>(vole_));
//   look.play(names::sheet::vole::clip::run);
template <class SheetNames>
class SpriteOf {
 public:
  // Throws Error when it shows another sheet. Keeps a reference.
  explicit SpriteOf(Sprite& sprite) : sprite_(sprite) { sprite.expect_sheet(SheetNames::name); }
  template <class... Key>
  void play(ClipName<SheetNames> clip_or_set, Key... key) {
    sprite_.play(std::string_view(clip_or_set), key...);
  }
  Sprite& sprite() { return sprite_; }

 private:
  Sprite& sprite_;
};

void need(Sprite& sprite, const OfKind& kind);
void expect(const Sprite& sprite, const InLevel& in);
void bind(Sprite& sprite, const OnThing& on);

}  // namespace vole
