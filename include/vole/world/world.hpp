// All state of a running scene, and nothing but state: what is here is checksummed, saved, restored and compared, all
// from one description. What can be found from it (pointers to sheets, indices of layers) is made again by bind().
//
//   World copy(types);
//   StateReader in(bytes);
//   copy.read(in);
//   copy.bind(binding);
#pragma once

#include <memory>

#include "vole/base/colour.hpp"
#include "vole/base/random.hpp"
#include "vole/draw/camera.hpp"
#include "vole/input/arrived.hpp"
#include "vole/input/input.hpp"
#include "vole/world/cover.hpp"
#include "vole/world/entities.hpp"
#include "vole/world/left_level.hpp"
#include "vole/world/level_now.hpp"
#include "vole/world/met_pair.hpp"
#include "vole/world/met_tiles.hpp"
#include "vole/world/own_time.hpp"
#include "vole/world/running_sequences.hpp"
#include "vole/world/timers.hpp"
#include "vole/world/told.hpp"
#include "vole/world/tween.hpp"
#include "vole/world/watched_state.hpp"

namespace vole {

struct Binding;
struct Sprite;

// Another picture of the same scene on a part of the canvas: a second player's, a small map.
struct ShownView {
  std::string name;
  Camera camera;
  std::vector<Entity> followed;
  std::vector<std::string> layers;  // of the level, that it shows; empty: all
  bool light = true;                // whether it is dark where the level is
};
template <class V>
void describe(V& v, ShownView& view) {
  v.state("name", view.name);
  v.state("camera", view.camera);
  v.state("followed", view.followed);
  v.state("layers", view.layers);
  v.state("light", view.light);
}

// The thing that goes along with the pointer, and how.
struct Dragged {
  Entity thing;        // none: nothing does
  Vec2 grip{0, 0};     // from the pointer to its position
  std::string action;  // that holds it
};
template <class V>
void describe(V& v, Dragged& dragged) {
  v.state("thing", dragged.thing);
  v.state("grip", dragged.grip);
  v.state("action", dragged.action);
}

class World {
 public:
  explicit World(const ComponentTypes& types) : entities(types) {}

  Entities entities;
  LevelNow level;
  std::vector<std::unique_ptr<LeftLevel>> left;  // levels that are kept, in the order in which they were left
  Camera camera;
  Random random;
  std::int64_t ticks = 0;        // since the scene began
  int frozen_ticks = 0;          // for which things stand still yet
  OwnTime time;                  // of all things that have no time of their own
  std::vector<Entity> followed;  // by the camera: one, or several that it keeps in view
  std::vector<ShownView> views;  // besides the camera's
  Input input;                   // of the last tick, and what it remembers
  Dragged dragged;
  bool asks_for_control = false;
  Colour background{0, 0, 0, 255};  // behind everything, where no level is loaded
  Cover cover;                      // over the scenes below
  Timers timers;
  RunningSequences sequences;
  bool shows_said = true;  // what sequences say, in the library's plain way
  std::vector<Tween> tweens;
  std::vector<Told> told;
  std::vector<MetPair> met;  // of bodies that cues ask for, under way
  std::vector<MetTiles> met_tiles;
  std::vector<MetPair> squeezed;        // things and what leaves them no room
  std::vector<Entity> arrived;          // from another level since the last tick
  std::vector<MetPair> met_on_arrival;  // what those touched, and have not left since
  std::vector<WatchedState> watched;    // values that cues follow, in their order
  std::vector<SaveAnswer> answers;      // that cues have not heard yet
  static constexpr std::size_t most_answers = 16;

  // As bytes; what was removed must be swept out before.
  void write(StateWriter& out) const;
  void read(StateReader& in);
  // As TOML, for files and comparisons; `within` is before the names of its tables: "scenes.".
  std::string to_toml(std::string_view within = "") const;
  void from_toml(const TomlValue& toml, Report& report);

  // Moves the origin of an endless level (LevelNow::room_behind), and with it all places in the level that components hold. What
  // is in a layer that does not go along with the level stays.
  void move_origin(IVec2 cells, const ComponentTypes& types);

  // The layer of each sprite by its name, after the level has become another. One that there is no layer of this name for goes to
  // the front: that is not worth ending the game for.
  void find_layers();
  void find_layer(Sprite& sprite) const;
  // Finds what a state that was read names. Throws Error for what is not there any more, all at once.
  void bind(const Binding& binding);
  // The same but for the level, and reported.
  void bind_things(const Binding& binding, Report& report);

 private:
  template <class V>
  friend void describe(V& v, World& world) {
    v.state("ticks", world.ticks, within(0, most_ticks));
    v.state("frozen_ticks", world.frozen_ticks, within(0, 1e9));
    v.state("time", world.time);
    v.state("random", world.random);
    v.state("camera", world.camera);
    v.state("followed", world.followed);
    v.state("views", world.views);
    v.state("level", world.level);
    v.state("input", world.input);
    v.state("dragged", world.dragged);
    v.state("asks_for_control", world.asks_for_control);
    v.state("background", world.background);
    v.state("cover", world.cover);
    v.state("timers", world.timers);
    v.state("sequences", world.sequences);
    v.state("shows_said", world.shows_said);
    v.state("tweens", world.tweens);
    v.state("told", world.told);
    v.state("met", world.met);
    v.state("met_tiles", world.met_tiles);
    v.state("squeezed", world.squeezed);
    v.state("arrived", world.arrived);
    v.state("met_on_arrival", world.met_on_arrival);
    v.state("watched", world.watched);
    v.state("answers", world.answers, items(most_answers));
  }
};

}  // namespace vole
