// Actions and axes by name, and what they are bound to. Read from controls.toml:
//
//   [actions]
//   jump = ["key Space", "pad south", "touch tap"]
//   save = ["key ControlLeft + key KeyS"]     # both at once; KeyS alone is then no press of its own
//
//   [axes.walk]
//   less = ["key ArrowLeft", "pad left"]      # pushes towards -1
//   more = ["key ArrowRight", "pad right"]    # pushes towards 1
//   stick = ["pad stick left x"]
//   smooth = 0.1                              # seconds in which its smoothed value goes from rest to its end
//
//   [axes.steer]                              # of two dimensions
//   left = ["key KeyA"]
//   right = ["key KeyD"]
//   up = ["key KeyW"]
//   down = ["key KeyS"]
//   stick = ["pad stick left"]
//   dead = 0.2                                # a stick this near to its middle is at rest
//   curve = 2                                 # 1: as it is pushed; 2: finer near the middle
//
//   [touch.brake]                             # a part of the canvas, bound as "touch brake"
//   area = [0, 90, 80, 90]
//
//   [players.2.actions]                       # a second player: what its keys are; its pad is bound as the first one's
//   jump = ["key Enter"]
//
//   pointer = true                            # at the top: the game asks where the mouse or the finger is
#pragma once

#include <string>
#include <vector>

#include "vole/base/rect.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/input/control.hpp"
#include "vole/input/players.hpp"

namespace vole {

// What is pressed: one control, or several at once.
struct Chord {
  std::vector<Control> all;

  Chord(Control one);  // NOLINT: one control is the usual case
  explicit Chord(std::vector<Control> chord);

  friend bool operator==(const Chord&, const Chord&) = default;
};

struct Action {
  std::string name;
  std::vector<Chord> bindings;
};

struct Axis {
  std::string name;
  std::vector<Chord> less = {};  // of two dimensions: to the left
  std::vector<Chord> more = {};
  std::vector<Control> sticks = {};  // the axis of a stick; of two dimensions its x, the next one is its y
  bool is_flat = false;              // of two dimensions
  std::vector<Chord> up = {}, down = {};
  float dead = 0.2f;
  float curve = 1;
  float smooth = 0;  // seconds
};

struct TouchArea {
  std::string name;
  IRect area;  // of the canvas
};

struct Controls {
  std::vector<Action> actions;
  std::vector<Axis> axes;
  // Of the players after the first: the same actions and axes in the same order, with their own bindings.
  struct Player {
    std::vector<Action> actions;
    std::vector<Axis> axes;
  };
  std::vector<Player> others;
  std::vector<TouchArea> areas;
  bool pointer = false;

  int players() const { return 1 + static_cast<int>(others.size()); }
  // From 0 on.
  const std::vector<Action>& actions_of(std::size_t player) const {
    return player == 0 ? actions : others[player - 1].actions;
  }
  const std::vector<Axis>& axes_of(std::size_t player) const {
    return player == 0 ? axes : others[player - 1].axes;
  }
};

// The control that stands for an area of the touch screen, and what controls there are by name: those of every machine, and
// these areas.
Control area_control(std::size_t area);
std::optional<Control> find_control(std::string_view name, const std::vector<TouchArea>& areas);
std::string name_of(const Chord& binding, const std::vector<TouchArea>& areas = {});

// Throws Error for what is wrong in the file, all of it at once.
Controls read_controls(const std::string& path);
// Of its file: see schema.hpp.
TomlValue controls_schema();

}  // namespace vole
