// What a person did, as one tick sees it, and the gathering that makes sure that each press reaches exactly
// one tick.
//
//   gather.add(event);                        // the host, whenever something arrives
//   const TickInput& input = gather.latch();  // the loop, once a tick
//   if (input.pressed("jump")) ...
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string_view>
#include <utility>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/controls.hpp"

namespace vole {

class TickInput {
 public:
  struct ActionState {
    bool held = false;
    std::uint8_t presses = 0;  // since the tick before
    std::uint8_t releases = 0;

    friend bool operator==(const ActionState&, const ActionState&) = default;
    template <class V>
    friend void describe(V& v, ActionState& state) {
      v.state("held", state.held);
      v.state("presses", state.presses);
      v.state("releases", state.releases);
    }
  };

  TickInput() = default;
  // Holds on to the controls for their names, also when the game has newer ones by now.
  explicit TickInput(std::shared_ptr<const Controls> controls);
  explicit TickInput(const Controls& controls) : TickInput(std::make_shared<const Controls>(controls)) {}
  // Goes by these names from now on; what they do not have counts as let go.
  void use(std::shared_ptr<const Controls> controls);

  // All throw Error, at `asked` where it is given, with the nearest name when there is no action or axis of this name.
  bool held(std::string_view action) const { return action_state(action).held; }
  // Whether it was pressed since the tick before, even if it was let go again in between.
  bool pressed(std::string_view action) const { return action_state(action).presses > 0; }
  bool released(std::string_view action) const { return action_state(action).releases > 0; }
  const ActionState& action_state(std::string_view action, const FilePosition& asked = {}) const;
  // In [-1, 1], in steps of a hundredth.
  float axis(std::string_view axis, const FilePosition& asked = {}) const;

  bool has_action(std::string_view action) const;
  bool has_axis(std::string_view axis) const;

  // By position in Controls; for recordings.
  std::vector<ActionState> actions;
  std::vector<std::int8_t> axes;  // hundredths

  friend bool operator==(const TickInput& a, const TickInput& b) {
    return a.actions == b.actions && a.axes == b.axes;
  }
  template <class V>
  friend void describe(V& v, TickInput& input) {
    v.state("actions", input.actions);
    v.state("axes", input.axes);
  }

 private:
  std::shared_ptr<const Controls> controls_;
};

class InputGather {
 public:
  explicit InputGather(std::shared_ptr<const Controls> controls);
  explicit InputGather(const Controls& controls) : InputGather(std::make_shared<const Controls>(controls)) {}

  void add(const ControlEvent& event);
  // Everything since the latch before. The result stays until the next latch.
  const TickInput& latch();
  // Lets go of everything: what is held must be pressed again to count. For a change of scene or a lost window
  // focus.
  void release_all();
  // Counts how often a control is pressed, beside what the controls make of it: for keys of the library's own.
  void count_presses_of(Control control) { counted_control_ = control; }
  // Since it was taken last.
  int take_counted() { return std::exchange(counted_, 0); }
  // The same for what is held on one device: a pad that was unplugged.
  void release(std::uint8_t device);

 private:
  bool any_held(const std::vector<Control>& controls) const;
  std::int8_t axis_value(const Axis& axis) const;

  void take_values();
  float value_of(Control control) const;

  std::shared_ptr<const Controls> controls_;
  std::vector<std::vector<float>> values_;  // of every device: of every control
  TickInput gathered_;
  TickInput latched_;
  std::optional<Control> counted_control_;
  int counted_ = 0;
  std::vector<std::int8_t> tapped_;  // of every axis: its last push since the latch before, 0 for none
};

}  // namespace vole
