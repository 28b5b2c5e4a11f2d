#include "vole/input/gestures.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace vole {

void Gestures::take(const FingerEvent& event) {
  if (!std::isfinite(event.at.x) || !std::isfinite(event.at.y)) return;
  const auto found = std::find_if(fingers_.begin(), fingers_.end(),
                                  [&](const Finger& finger) { return finger.number == event.finger; });
  if (event.phase == FingerPhase::down) {
    if (found == fingers_.end() && fingers_.size() < most_fingers)
      fingers_.push_back({event.finger, event.at, event.at, 0, false, false});
    return;
  }
  if (found == fingers_.end()) return;
  found->at = event.at;
  const Vec2 way = found->at - found->began;
  found->moved = found->moved || std::max(std::abs(way.x), std::abs(way.y)) > still;
  if (event.phase == FingerPhase::moves) return;
  end(*found);
  fingers_.erase(found);
}

void Gestures::end(const Finger& finger) {
  if (finger.held || finger.seconds > quick) return;
  const Vec2 way = finger.at - finger.began;
  const float x = std::abs(way.x), y = std::abs(way.y);
  if (!finger.moved)
    made_.push_back(Gesture::tap);
  else if (x >= far && x >= y)
    made_.push_back(way.x < 0 ? Gesture::swipe_left : Gesture::swipe_right);
  else if (y >= far)
    made_.push_back(way.y < 0 ? Gesture::swipe_up : Gesture::swipe_down);
}

void Gestures::pass(double seconds) {
  if (!(seconds > 0)) return;
  for (Finger& finger : fingers_) {
    finger.seconds += seconds;
    if (finger.moved || finger.held || finger.seconds < long_) continue;
    finger.held = true;
    made_.push_back(Gesture::hold);
  }
}

void Gestures::forget() {
  fingers_.clear();
  made_.clear();
}

std::vector<Gesture> Gestures::take_made() {
  return std::exchange(made_, {});
}

}  // namespace vole
