// What is shown while one scene takes the place of another. It belongs to the change, and to neither of the scenes:
//
//   stage.leave_for<Finish>(harvest).with(vole::fade(0.8f));
//   stage.open<Pause>().with(vole::wipe(vole::Direction::down, 0.3f));
//   stage.leave_for("cellar").with(vole::iris(stage.on_canvas(vole), 1));
//   stage.close().with(vole::own_transition("melt", 0.5f));      // Game::transition("melt", ...)
//
// While it lasts both are drawn, nobody has the input, and no scene has its ticks, unless `goes_on` says so.
#pragma once

#include <array>
#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/direction.hpp"
#include "vole/base/easing.hpp"

namespace vole {

class Image;

struct Transition {
  enum class Look : std::uint8_t { cut, fade, wipe, iris, dissolve, own };
  static constexpr float longest = 60;  // seconds

  Look look = Look::cut;
  float seconds = 0;
  Ease ease = Ease::linear;
  Colour colour{0, 0, 0, 255};             // that a fade and an iris go through
  Direction direction = Direction::right;  // in which a wipe goes: one of four
  Vec2 closes_on{0, 0};                    // of an iris, in pixels of the canvas
  Vec2 opens_from{0, 0};
  std::string name;      // of the grey picture of a dissolve; of a transition of the game's own
  bool goes_on = false;  // both scenes have their ticks meanwhile
};
constexpr auto enum_names(Transition::Look) {
  return std::array<std::string_view, 6>{"cut", "fade", "wipe", "iris", "dissolve", "own"};
}
template <class V>
void describe(V& v, Transition& transition) {
  v.state("look", transition.look);
  v.state("seconds", transition.seconds);
  v.state("ease", transition.ease);
  v.state("colour", transition.colour);
  v.state("direction", transition.direction);
  v.state("closes_on", transition.closes_on);
  v.state("opens_from", transition.opens_from);
  v.state("name", transition.name);
  v.state("goes_on", transition.goes_on);
}

// The one before becomes a colour, and that the one after.
Transition fade(float seconds, Colour through = {0, 0, 0, 255}, Ease ease = Ease::linear);
// The one after comes in over the one before; slanting directions go as the one beside them.
Transition wipe(Direction direction, float seconds, Ease ease = Ease::sine_both);
// A circle closes on a point of the canvas, and opens again from there or from another.
Transition iris(Vec2 at, float seconds, Colour through = {0, 0, 0, 255});
Transition iris(Vec2 closes_on, Vec2 opens_from, float seconds, Colour through = {0, 0, 0, 255});
// Pixel by pixel, dark ones of a picture first; it is repeated where it is smaller than the canvas.
Transition dissolve(std::string_view picture, float seconds, Ease ease = Ease::linear);
Transition own_transition(std::string_view name, float seconds, Ease ease = Ease::linear);

// A transition of the game's own: what is shown at a share of its way, from 0 to 1. All three pictures are as large as the canvas;
// `into` shows anything when it is called.
using MixPictures = std::function<void(const Image& before, const Image& after, float share, Image& into)>;

class OwnTransitions {
 public:
  // Throws std::logic_error for a name that is taken.
  void add(std::string_view name, MixPictures mix);
  // Throws Error with the nearest name.
  const MixPictures& get(std::string_view name) const;

 private:
  struct One {
    std::string name;
    MixPictures mix;
  };
  std::vector<One> all_;
};

}  // namespace vole
