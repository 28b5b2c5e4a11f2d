// What persons do, as a scene asks for it: this tick's input, and what it remembers of the ticks before.
//
//   if (stage.input().pressed("jump")) ...                 // in this tick
//   if (stage.input().held_for("charge") > 0.5f) ...       // seconds
//   if (stage.input().pressed_twice("dash", 0.25f)) ...
//   if (stage.take_press("jump", 0.1f)) ...                // in the last tenth of a second, and by nobody else any more
//   pose.at += stage.input().smooth("steer") * speed;
#pragma once

#include <vector>

#include "vole/input/tick_input.hpp"

namespace vole {

class Input : public TickInput {
 public:
  // What is asked for in seconds is counted in ticks.
  void use(std::shared_ptr<const Controls> controls, int ticks_per_second);
  // One tick: remembers what was, and has this from now on.
  void take(const TickInput& now);

  // Seconds since it is held; 0 in the tick in which it was pressed, and while it is not held.
  float held_for(std::string_view action, int player = 1) const;
  // Whether it was pressed now, for the second time within so many seconds.
  bool pressed_twice(std::string_view action, float within, int player = 1) const;
  // Whether it was pressed within the last seconds, this tick among them, and nobody has taken the press.
  bool pressed_lately(std::string_view action, float within, int player = 1) const;
  // The same, and takes it: who asks next gets no. For a press that is made a little early, and for one that is meant
  // for what lies on top.
  bool take_press(std::string_view action, float within = 0, int player = 1);
  // Follows the axis in as many seconds as controls.toml says ("smooth"), evenly, from rest to its end.
  Vec2 smooth(std::string_view axis, int player = 1) const;
  // Whether this player's last pad went away since the tick before.
  bool lost_pad(int player = 1) const;
  // Forgets every press and pushes nothing: what is held counts as let go until it is pressed anew.
  void forget();

  template <class V>
  friend void describe(V& v, Input& input) {
    describe(v, static_cast<TickInput&>(input));
    v.state("memory", input.memory_);
  }

 private:
  struct Pressed {
    bool held = false;       // nothing made it forget since
    bool taken = false;      // the last press
    int since_press = most;  // ticks
    int since_other = most;  // from the press before it
    int held_ticks = 0;

    template <class V>
    friend void describe(V& v, Pressed& its) {
      v.state("held", its.held);
      v.state("taken", its.taken);
      v.state("since_press", its.since_press);
      v.state("since_other", its.since_other);
      v.state("held_ticks", its.held_ticks);
    }
  };
  struct Memory {
    std::vector<Pressed> actions;
    std::vector<Vec2> axes;  // smoothed
    bool lost_pad = false;

    template <class V>
    friend void describe(V& v, Memory& memory) {
      v.state("actions", memory.actions);
      v.state("axes", memory.axes);
      v.state("lost_pad", memory.lost_pad);
    }
  };
  static constexpr int most = 1'000'000'000;

  void fit();
  // What is remembered goes along with the names, where other controls have them elsewhere.
  void sort_memory(const std::shared_ptr<const Controls>& now);
  static void remember(ActionState& now, Pressed& its);
  const Pressed& pressed_of(std::string_view action, int player) const;
  int in_ticks(float seconds) const;

  std::vector<Memory> memory_;  // of each player
  int ticks_per_second_ = 60;
};

}  // namespace vole
