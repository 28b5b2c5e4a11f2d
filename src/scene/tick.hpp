// The steps of a tick, and what they work on. In the order of tick_steps.hpp, each in steps/NAME.cpp.
#pragma once

#include <map>

#include "vole/physics/pair_finder.hpp"
#include "vole/scene/running_scene.hpp"

namespace vole {

// An event that a clip reached; its cues are called when all clips have moved on.
struct ClipHappening {
  Entity entity;
  std::string_view event;    // of the clip, which outlives the tick
  std::uint32_t starts = 0;  // of the playhead: another clip since then makes it stale
};

// A thing with a body, while meetings are looked for.
struct Meeter {
  Entity entity;
  const std::string* kind = nullptr;
  const Tags* tags = nullptr;  // may have none
  Rect box;                    // at the end of the tick
  Vec2 motion{0, 0};           // in the tick
};

// Two of them, by their places in the list, that overlap at some moment of the tick.
struct Meeting {
  std::uint32_t a = 0;
  std::uint32_t b = 0;

  friend bool operator<(const Meeting& x, const Meeting& y) {
    return std::pair(x.a, x.b) < std::pair(y.a, y.b);
  }
};

// A field that a track shows otherwise while a picture is drawn.
struct ShownField {
  Entity entity;
  BoundField bound;
  FieldRef::Bytes own{};
};

// Memory that steps use again.
struct TickScratch {
  std::vector<ClipHappening> happenings;
  std::vector<Meeter> meeters;
  std::vector<Rect> swept;  // where each of them was in the tick
  PairFinder near;
  std::vector<IndexPair> pairs;   // of them, by place in the list
  std::vector<Meeting> meetings;  // of one cue
  std::vector<Overlap> overlaps;
  std::vector<Told> told;
  std::vector<ShownField> shown_fields;
  // The fields of each track that was shown, until a sheet changes.
  std::map<const Track*, std::vector<BoundField>> track_fields;
};

struct Tick {
  const StageSetting& setting;
  World& world;
  Stage& stage;
  Scene& scene;
  const Cues& cues;
  TickScratch& scratch;
};

void take_changed_files(Tick& tick);
void remember_poses(Tick& tick);
void run_timers(Tick& tick);
void run_scene(Tick& tick);
void run_pilots(Tick& tick);
void run_movers(Tick& tick);
void tell_meetings(Tick& tick);
void run_tweens(Tick& tick);
void run_clips(Tick& tick);
void follow_points(Tick& tick);
void aim_camera(Tick& tick);
void remove_things(Tick& tick);

// Calls the cues of the names that were told up to now; what they tell waits for the next call.
void hear_told(Tick& tick);

}  // namespace vole
