// What the page's events and pads say, as control events.
#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "vole/input/gather.hpp"

namespace vole {

class PageInput {
 public:
  // By names of controls.toml, as "key Space"; unknown ones count nothing.
  void put(std::string_view control, float value, std::uint8_t device = 0);
  // What the layout has on a key: one letter. What was pressed is let go again, whatever the key types by then, as with a modifier.
  void put_letter(std::string_view code, std::string_view typed, bool down);
  // Where the mouse is, in pixels of the canvas; nothing: elsewhere.
  void point_at(std::optional<Vec2> at) { events_.push_back(PointsAt{at}); }
  void turn_wheel(IVec2 notches) { events_.push_back(Wheel{notches}); }
  void touch(const FingerEvent& event) { events_.push_back(event); }
  // Keys that are let go while the page is not in front are never reported.
  void let_go_of_all() { let_go_ = true; }
  // What the pads do now.
  void ask_pads();
  // Hands over what came since the call before, in order.
  void hand_over(InputGather& gather);

 private:
  // As the Gamepad API's standard layout counts them.
  static constexpr int most_pads = 4, buttons = 16, axes = 4;
  struct Pad {
    bool connected = false;
    std::array<float, buttons> button{};
    std::array<float, axes> axis{};
  };
  struct PointsAt {
    std::optional<Vec2> at;
  };
  struct Wheel {
    IVec2 notches;
  };
  void ask_pad(int index);

  std::vector<std::variant<ControlEvent, FingerEvent, PointsAt, Wheel>> events_;
  std::array<Pad, most_pads> pads_;
  std::vector<std::uint8_t> gone_;                    // pads
  std::map<std::string, char, std::less<>> letters_;  // that are held, by the code of their key
  bool let_go_ = false;
};

// Whether the browser would do something with this key that takes the player out of the game: scroll, search, go back.
bool page_would_use(std::string_view code);

}  // namespace vole
