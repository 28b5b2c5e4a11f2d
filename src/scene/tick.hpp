// The steps of a tick, and what they work on. In the order of tick_steps.hpp, each in steps/NAME.cpp.
#pragma once

#include <utility>
#include <vector>

#include "scene/minds/targets.hpp"
#include "vole/base/error.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/physics/pair_finder.hpp"
#include "vole/scene/bodies/solid_things.hpp"
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
  Vec2 motion{0, 0};  // in the tick
  // How far away it is too, while it crosses an edge of the level behind which it comes in again.
  Vec2 other_side{0, 0};
};

// Two of them, by their places in the list, in the order of a cue.
using MeetingPair = IndexPair;

// What is carried or pushed by another, while that moves.
struct CarriedThing {
  Entity thing;
  Vec2 from{0, 0};
  Vec2 by{0, 0};
  bool rides = false;  // else it is pushed
  Vec2 to{0, 0};
  float pushes_by = 0;  // how far what moves it goes in that direction

  // The share of that motion for which there is room, when it could go less far by this.
  float room_for(float short_by) const { return pushes_by > 0 ? 1 - short_by / pushes_by : 0; }
};

// A thing that had no room, and what took it.
struct Squeezed {
  Entity thing, by;
};

// A thing that touches tiles which a cue is about.
struct FoundTileMeeting {
  std::size_t cue = 0;  // its place among those for tiles
  MetTiles met;
  TileMeeting meeting;
};

// What steps write down within one tick. Its memory is used again, so that a steady tick allocates nothing.
struct TickMemory {
  std::vector<ClipHappening> happenings;
  std::vector<Meeter> meeters;
  std::vector<Rect> swept;       // where each of them was in the tick
  std::vector<PairRoles> roles;  // and what cues ask of it
  PairFinder near;
  std::vector<IndexPair> pairs;       // of them, by place in the list
  std::vector<MeetingPair> meetings;  // of one cue
  std::vector<MetPair> met;
  std::vector<FoundTileMeeting> tile_meetings;
  std::vector<MetTiles> met_tiles;
  std::vector<CarriedThing> carried;
  std::vector<OutOfTheWay> out_of_the_way;
  std::vector<BodyOrCell> found;
  CollisionWorld pusher;  // with one body alone
  std::vector<Squeezed> squeezed;
  std::vector<Told> told;
  Targets targets;
  // How far things came in steps of the tick before the last one.
  std::vector<std::pair<Entity, Vec2>> moved;
};

struct Tick {
  const StageSetting& setting;
  World& world;
  Stage& stage;
  Scene& scene;
  const SceneType& scene_type;
  const Cues& cues;
  TickMemory& memory;
  const Movers& movers;
  const std::vector<Watched*>& watched;
  // Whether the bodies of things are as the components say, or were put where things have been moved since: from the step
  // "pilots" on to that of the meetings, unless a step of the game's own comes between.
  bool bodies_known = false;
  std::vector<Problem> problems = {};  // what the game threw in it
  // Things take no step in a tick, one or several (world/own_time.hpp). This is the one under way, from 0 on.
  int step = 0;
  int most_steps = 1;
  bool frozen = false;
  bool has_own_times = false;  // of single things

  const OwnTime& time_of(Entity thing) const {
    const OwnTime* const own = has_own_times ? std::as_const(world.entities).find<OwnTime>(thing) : nullptr;
    return own ? *own : world.time;
  }
  // Whether it takes the step under way.
  bool goes_on(Entity thing) const { return step < time_of(thing).steps; }
  // How far it has come in it.
  Vec2 motion_of(Entity thing, const Pose& pose) const {
    return goes_on(thing) ? pose.at - pose.before : Vec2{0, 0};
  }

  void know_bodies() {
    if (!bodies_known) stage.update_bodies();
    bodies_known = true;
  }
};

void take_changed_files(Tick& tick);
void pass_time(Tick& tick);
void remember_poses(Tick& tick);
void run_timers(Tick& tick);
void use_pointer(Tick& tick);
void run_scene(Tick& tick);
// When the scene has had its say: it may have frozen them.
void settle_steps(Tick& tick);
// What is pressed while a thing takes no step, until it takes one.
void keep_presses(Tick& tick);
// Where the action is pressed that does so.
void hurry_sequences(Tick& tick);
void run_pilots(Tick& tick);
void run_sequences(Tick& tick);
void move_platforms(Tick& tick);
void run_movers(Tick& tick);
void tell_meetings(Tick& tick);
// The part of it that is about tiles. They are found before any cue is called: what cues do, to the level too, is not known.
void find_tile_meetings(Tick& tick);
void tell_tile_meetings(Tick& tick);
// Tells those that what was removed is parted from.
void part_removed(Tick& tick);
void run_tweens(Tick& tick);
void run_clips(Tick& tick);
void follow_points(Tick& tick);
void aim_camera(Tick& tick);
void go_along(Tick& tick);
void remove_things(Tick& tick);
void tell_values(Tick& tick);

// Between two steps of things in one tick, and when all are taken.
void begin_next_step(Tick& tick);
void end_steps(Tick& tick);

// What waits for the name hears it.
void hear_sequences(Tick& tick, const Told& told);

// Calls the cues of the names that were told up to now; what they tell waits for the next call.
void hear_told(Tick& tick);

}  // namespace vole
