// Gathers what a host hears of keys, pads, mouse and fingers, and makes sure that each press reaches exactly one tick.
//
//   gather.add({*find_control("key Space"), 1});   // the host, whenever something arrives
//   const TickInput& input = gather.latch();       // the loop, once a tick
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <utility>
#include <vector>

#include "vole/input/controls.hpp"
#include "vole/input/gestures.hpp"
#include "vole/input/input_devices.hpp"
#include "vole/input/tick_input.hpp"

namespace vole {

class InputGather {
 public:
  explicit InputGather(std::shared_ptr<const Controls> controls);
  explicit InputGather(const Controls& controls);

  void add(const ControlEvent& event);
  // A finger presses the areas that it is in, and makes gestures; the first one moves the pointer.
  void add(const FingerEvent& event);
  // Where the mouse is, in pixels of the canvas; nothing: outside of the window.
  void point_at(std::optional<Vec2> at);
  // Goes by other controls from now on. What is held stays held, gestures under way go on, and pads stay with their players; an action
  // that a held key is bound to now is pressed, and what it was bound to is released.
  void use(std::shared_ptr<const Controls> controls);

  // Notches of its wheel: to the right, down.
  void turn_wheel(IVec2 notches);
  // Time goes by, for gestures.
  void pass(double seconds);

  // From now on what is pressed is given by its name alone (TickInput::asked_control), and no action or axis hears it; or no more.
  void ask_for_control(bool asks);

  // Everything since the latch before. The result stays until the next latch.
  const TickInput& latch();
  // Lets go of everything: what is held must be pressed again to count. For a change of scene or a lost window
  // focus.
  void release_all();
  // The same for what is held on one device: a pad that was unplugged. Its player gets the next pad that is used.
  void release(std::uint8_t device);
  // Counts how often a control is pressed, beside what the controls make of it: for keys of the library's own.
  void count_presses_of(Control control) { counted_control_ = control; }
  // Since it was taken last.
  int take_counted() { return std::exchange(counted_, 0); }

 private:
  // What one player's controls come to.
  struct Seat {
    std::vector<std::vector<Control>> chords;  // that are bound
    std::vector<TickInput::AxisState> tapped;  // of every axis: its last push since the latch before
    std::vector<TickInput::AxisState> pushed;  // and where it was at that latch
  };

  std::vector<Seat> seats_for(const Controls& controls) const;
  void fit_devices();
  void seat(std::uint8_t pad);
  void note_asked(const ControlEvent& event);
  void press_for_a_moment(Control control);
  void press_areas();
  bool touches(const IRect& area) const;
  bool held(const std::vector<Control>& all, std::size_t player) const;
  bool held(const Chord& binding, std::size_t player) const;
  bool any_held(const std::vector<Chord>& bindings, std::size_t player) const;
  TickInput::AxisState axis_value(const Axis& axis, std::size_t player) const;
  void take_values();
  void take_values(std::size_t player);

  std::shared_ptr<const Controls> controls_;
  InputDevices devices_;
  std::vector<Seat> seats_;
  Gestures gestures_;
  bool finger_gone_ = false;  // after the next latch it points nowhere
  TickInput gathered_;
  TickInput latched_;
  std::optional<Control> counted_control_;
  int counted_ = 0;
  bool asks_ = false;
};

}  // namespace vole
