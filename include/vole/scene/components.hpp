// The components that come with the library. In kinds.toml each goes by the name in its comment.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>

#include "vole/animation/animator.hpp"
#include "vole/asset/names.hpp"
#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"
#include "vole/draw/draw_list.hpp"
#include "vole/input/intent.hpp"
#include "vole/scene/entities.hpp"

namespace vole {

// Where a thing is: every thing of a kind has one. Its position is where its feet stand, or its sprite's
// pivot.
struct Pose {
  Vec2 at{0, 0};
  Vec2 before{0, 0};  // at the end of the tick before, for drawing in between
  bool faces_left = false;

  Vec2 between(float share) const { return before + (at - before) * share; }
};
template <class V>
void describe(V& v, Pose& pose) {
  v.state("at", pose.at);
  v.state("before", pose.before);
  v.state("faces_left", pose.faces_left);
}

// `body`: a box that stands on the pose's position, whatever the sprite shows.
struct Body {
  Vec2 size{12, 12};
  Vec2 offset{0, 0};  // of the middle of the box's bottom from the position

  Vec2 velocity{0, 0};   // pixels a second
  Vec2 remainder{0, 0};  // motion smaller than the lattice, kept for the next tick
  bool on_ground = false;
  bool at_wall = false;

  Rect box(Vec2 at) const { return {{at.x + offset.x - size.x / 2, at.y + offset.y - size.y}, size}; }
};
template <class V>
void describe(V& v, Body& body) {
  v("size", body.size, within(1, 4096));
  v("offset", body.offset, within(-4096, 4096));
  v.state("velocity", body.velocity);
  v.state("remainder", body.remainder);
  v.state("on_ground", body.on_ground);
  v.state("at_wall", body.at_wall);
}

// Where the value of a fact that clip rules ask for comes from: the game, or the thing itself.
enum class FactSource : std::uint8_t { game, over, grounded, at_wall, vx, vy, speed };
constexpr auto enum_names(FactSource) {
  return std::array<std::string_view, 7>{"", "over", "grounded", "at_wall", "vx", "vy", "speed"};
}
FactSource fact_source(std::string_view fact);

// `sprite`: what it looks like.
struct Sprite {
  Located<std::string> sheet_name;
  Located<std::string> layer_name{"things", {}};
  Located<std::string> first_clip;  // played from the start; empty: one frame stands still
  Located<std::string> frame_name;  // that frame; empty: frame 0
  float depth = 0;
  Vec2 scale{1, 1};
  std::optional<Vec2> size;  // in pixels, in place of the frame's own
  float rotation = 0;        // degrees clockwise round the pivot
  bool flip_x = false;       // besides what the pose's facing does
  bool flip_y = false;
  Colour tint = white;
  float opacity = 1;
  Blend blend = Blend::over;
  Colour flash = clear;  // its shape in one colour, as for a moment after a hit; alpha says how much

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
  // Faces as nearly so as the set that plays can: its clip goes on from the same frame. No way at all leaves
  // it as it is. What has an intent or a body turns by itself.
  void face(Vec2 towards);

  // Starts a track of the sheet, or one of the game's own (which must stay), from its beginning; up to four
  // at once, the oldest gives way. Those of the clip play beside them. Throws Error with the nearest name.
  void play_track(std::string_view track, float strength = 1);
  void play_track(const Track& track, float strength = 1);
  void stop_track(std::string_view track);
  void stop_tracks();
  // What all tracks together add now.
  TrackPose track_pose(int ticks_per_second) const;

  // Tells the sheet's rules that something is the case: 1, 0 or any number. `grounded`, `at_wall`, `vx`, `vy`
  // and `speed` come from the body, and `over` from the clip, by themselves. Throws Error for a fact that no
  // rule asks for, with the nearest.
  void set_fact(std::string_view fact, float value);

  // Found by the stage when the thing comes to life.
  Asset<Sheet> asset;
  std::shared_ptr<const Sheet> sheet;  // the version that the animator's clip belongs to
  std::size_t layer = 0;
  int still = 0;             // the frame shown while no clip plays
  std::vector<float> facts;  // of the sheet's rules
  std::vector<FactSource> fact_sources;
  struct PlayingTrack {
    const Track* track = nullptr;
    std::int64_t ticks = 0;
    float strength = 1;
  };
  std::array<PlayingTrack, 4> playing_tracks;
  Direction facing = Direction::right;
  std::string last_key;  // asked of a set
  int set_index = -1;    // of the sheet: it plays a clip of this set, which is its
  int member_index = 0;
  int rule = -1;       // the one that decided the clip
  int rule_ticks = 0;  // for how long
  Animator animator;

  // Takes this version of its sheet: clip, set and tracks go on by their names, and facts keep their values.
  void take_sheet(std::shared_ptr<const Sheet> version);
  // Tells the facts that the thing knows of itself; what has no body stands still.
  void tell_facts(const Body* body, int ticks_per_second);
  // Throws Error when it shows another sheet.
  void expect_sheet(std::string_view name) const;
  // What it plays of a set; nullptr while it plays none.
  const ClipSet* playing_set() const;
  const ClipSet::Member* playing_member() const;
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
  v("flip_x", sprite.flip_x);
  v("flip_y", sprite.flip_y);
  v("tint", sprite.tint);
  v("opacity", sprite.opacity, within(0, 1));
  v("blend", sprite.blend);
  v.state("flash", sprite.flash);
  v.state("facts", sprite.facts);
  v.state("facing", sprite.facing);
  v.state("last_key", sprite.last_key);
  v.state("rule", sprite.rule);
  v.state("rule_ticks", sprite.rule_ticks);
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

// `carries`: things that hang from points of this one, as `carries = { paw = "lantern" }`: they come to life
// and leave with it.
struct Carries {
  Named<Located<std::string>> things;  // point = kind
};
void read_field(const Node& node, Carries& carries, const FieldRule& rule, Report& report);
Node schema_field(const Carries& carries, const FieldRule& rule);

// What hangs from a point of another thing: see Stage::attach.
struct Attached {
  Entity to;
  std::string point;
  Vec2 offset{0, 0};
  bool leaves_along = false;
};

// `person`: a pilot that follows the controls.
struct Person {
  Located<std::string> walk{"walk", {}};  // an axis
  Located<std::string> jump{"jump", {}};  // an action
};
template <class V>
void describe(V& v, Person& person) {
  v("walk", person.walk);
  v("jump", person.jump);
}

// `side_mover`: walks and jumps, seen from the side.
struct SideMover {
  float speed = 90;          // pixels a second
  float acceleration = 600;  // pixels a second, each second
  float deceleration = 800;  // when letting go or turning, on the ground
  float air_control = 0.7f;  // share of both while in the air
  float gravity = 900;
  float jump = 280;         // upward speed at the start of a jump
  float fall_cap = 320;     // the fastest fall
  float late_jump = 0.1f;   // seconds after leaving the ground in which a jump still counts
  float early_jump = 0.1f;  // seconds before landing in which a press is kept
  float short_hop = 0.45f;  // share of the upward speed kept when jump is let go

  float since_ground = 1000;  // seconds
  float since_press = 1000;
  bool rising = false;  // in a jump that can still be cut short
};
template <class V>
void describe(V& v, SideMover& mover) {
  v("speed", mover.speed, within(0, 100000));
  v("acceleration", mover.acceleration, within(0, 1e6));
  v("deceleration", mover.deceleration, within(0, 1e6));
  v("air_control", mover.air_control, within(0, 1));
  v("gravity", mover.gravity, within(0, 1e6));
  v("jump", mover.jump, within(0, 100000));
  v("fall_cap", mover.fall_cap, within(0, 100000));
  v("late_jump", mover.late_jump, within(0, 10));
  v("early_jump", mover.early_jump, within(0, 10));
  v("short_hop", mover.short_hop, within(0, 1));
  v.state("since_ground", mover.since_ground);
  v.state("since_press", mover.since_press);
  v.state("rising", mover.rising);
}

}  // namespace vole
