// What persons did, as one tick sees it: what a recording holds.
//
//   const TickInput& input = gather.latch();  // gather.hpp
//   if (input.pressed("jump")) ...
//   if (input.pressed("jump", 2)) ...         // the second player
//
// What a scene asks knows also what was before: input.hpp.
#pragma once

#include <cstdint>
#include <memory>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"

namespace vole {

struct Controls;

// The mouse, or the finger that touched the screen first. Only where controls.toml says pointer = true.
struct Pointer {
  IVec2 at{0, 0};       // pixel of the canvas
  bool inside = false;  // false: it is outside of the window, or no finger touches it
  IVec2 wheel{0, 0};    // notches since the tick before: to the right, down

  friend bool operator==(const Pointer&, const Pointer&) = default;
};
template <class V>
void describe(V& v, Pointer& pointer) {
  v.state("at", pointer.at);
  v.state("inside", pointer.inside);
  v.state("wheel", pointer.wheel);
}

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
  // In hundredths; y is that of an axis of two dimensions, and points down.
  struct AxisState {
    std::int8_t x = 0, y = 0;

    friend bool operator==(const AxisState&, const AxisState&) = default;
    template <class V>
    friend void describe(V& v, AxisState& state) {
      v.state("x", state.x);
      v.state("y", state.y);
    }
  };
  struct Player {
    std::vector<ActionState> actions;  // by position in Controls; for recordings
    std::vector<AxisState> axes;
    std::uint8_t pads = 0;  // that are there and have been used

    friend bool operator==(const Player& a, const Player& b);
    template <class V>
    friend void describe(V& v, Player& player) {
      v.state("actions", player.actions);
      v.state("axes", player.axes);
      v.state("pads", player.pads);
    }
  };

  TickInput() = default;
  // Holds on to the controls for their names, also when the game has newer ones by now.
  explicit TickInput(std::shared_ptr<const Controls> controls);
  explicit TickInput(const Controls& controls);
  // Goes by these names from now on; what they do not have counts as let go.
  void use(std::shared_ptr<const Controls> controls);

  // All throw Error, at `asked` where it is given, with the nearest name when there is no action or axis of this name, or no such
  // player. Players are counted from 1.
  bool held(std::string_view action, int player = 1) const { return action_state(action, player).held; }
  // Whether it was pressed since the tick before, even if it was let go again in between.
  bool pressed(std::string_view action, int player = 1) const {
    return action_state(action, player).presses > 0;
  }
  bool released(std::string_view action, int player = 1) const {
    return action_state(action, player).releases > 0;
  }
  const ActionState& action_state(std::string_view action, int player = 1,
                                  const FilePosition& asked = {}) const;
  // In [-1, 1], in steps of a hundredth.
  float axis(std::string_view axis, int player = 1, const FilePosition& asked = {}) const;
  // Of an axis of two dimensions, at most 1 long; of one with one dimension y is 0.
  Vec2 direction(std::string_view axis, int player = 1, const FilePosition& asked = {}) const;
  // Throws Error when controls.toml does not say pointer = true.
  const Pointer& pointer() const;

  bool has_action(std::string_view action) const;
  bool has_axis(std::string_view axis) const;
  // Whether that axis has two dimensions.
  bool is_flat(std::string_view axis) const;
  int player_count() const { return static_cast<int>(players.size()); }
  const std::shared_ptr<const Controls>& controls() const { return controls_; }

  std::vector<Player> players;
  Pointer seen_pointer;
  // The first control that was pressed, by name, while the game asks for one (Stage::ask_for_control); else empty.
  std::string asked_control;

  friend bool operator==(const TickInput& a, const TickInput& b);
  template <class V>
  friend void describe(V& v, TickInput& input) {
    v.state("players", input.players);
    v.state("pointer", input.seen_pointer);
    v.state("asked_control", input.asked_control);
  }

 protected:
  std::size_t player_index(int player) const;
  std::size_t action_index(std::string_view action, const FilePosition& asked = {}) const;
  std::size_t axis_index(std::string_view axis, const FilePosition& asked = {}) const;

 private:
  std::shared_ptr<const Controls> controls_;
};

}  // namespace vole
