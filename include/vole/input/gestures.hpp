// What fingers do on a touch screen, as gestures: a tap, a hold, a swipe to one of four sides.
//
//   gestures.take({finger, FingerPhase::down, at});
//   gestures.pass(0.016);
//   for (Gesture made : gestures.made()) ...
#pragma once

#include <cstdint>
#include <vector>

#include "vole/base/vec.hpp"

namespace vole {

enum class FingerPhase : std::uint8_t { down, moves, up };

struct FingerEvent {
  std::int64_t finger = 0;  // the same while it touches the screen
  FingerPhase phase = FingerPhase::down;
  Vec2 at{0, 0};  // pixels of the canvas
};

// In the order of the controls "touch tap" and so on.
enum class Gesture : std::uint8_t { tap, hold, swipe_left, swipe_right, swipe_up, swipe_down };

class Gestures {
 public:
  static constexpr float still = 8;     // pixels within which a finger counts as not moved
  static constexpr float far = 24;      // pixels that make a swipe
  static constexpr double quick = 0.4;  // seconds within which a tap and a swipe are over
  static constexpr double long_ = 0.5;  // seconds after which a finger that did not move holds
  static constexpr std::size_t most_fingers = 16;

  struct Finger {
    std::int64_t number = 0;
    Vec2 began{0, 0}, at{0, 0};
    double seconds = 0;
    bool moved = false;  // further than `still`
    bool held = false;   // was given as a hold
  };

  void take(const FingerEvent& event);
  // Time goes by for the fingers that touch the screen.
  void pass(double seconds);
  // All fingers are gone, and made nothing.
  void forget();
  // Those that touch it, in the order in which they came.
  const std::vector<Finger>& fingers() const { return fingers_; }
  // Since it was asked last.
  std::vector<Gesture> take_made();

 private:
  void end(const Finger& finger);

  std::vector<Finger> fingers_;
  std::vector<Gesture> made_;
};

}  // namespace vole
