// Actions and axes by name, and what they are bound to. Read from controls.toml:
//
//   [actions]
//   jump = ["key Space", "pad south"]
//
//   [axes.walk]
//   less = ["key ArrowLeft", "pad left"]      # pushes towards -1
//   more = ["key ArrowRight", "pad right"]    # pushes towards 1
//   stick = ["pad stick left x"]
#pragma once

#include <string>
#include <vector>

#include "vole/base/node.hpp"
#include "vole/input/control.hpp"

namespace vole {

struct Action {
  std::string name;
  std::vector<Control> controls;
};

struct Axis {
  std::string name;
  std::vector<Control> less;
  std::vector<Control> more;
  std::vector<Control> sticks;
};

struct Controls {
  std::vector<Action> actions;
  std::vector<Axis> axes;
};

// Throws Error for what is wrong in the file, all of it at once.
Controls read_controls(const std::string& path);
// Of its file: see schema.hpp.
Node controls_schema();

}  // namespace vole
