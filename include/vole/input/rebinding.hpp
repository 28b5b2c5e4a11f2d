// Controls that a player has bound otherwise than controls.toml says.
//
//   stage.rebind({.name = "jump", .controls = {"key KeyX", "pad south"}});
//   stage.rebind({.name = "walk", .side = "left", .controls = {"key KeyA"}});
//
// They are kept with the player's settings (player_settings.hpp). A scene that lets a player do it: controls_scene.hpp.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/players.hpp"

namespace vole {

struct Controls;

struct Rebinding {
  int player = 1;
  std::string name = {};  // of an action or an axis
  std::string side = {};  // of an axis: "less" and "more", or "left", "right", "up" and "down"
  std::vector<std::string> controls = {};  // all that press it from now on; none: nothing does
};
template <class V>
void describe(V& v, Rebinding& rebinding) {
  v("player", rebinding.player, within(1, most_players));
  v("name", rebinding.name, needed());
  v("side", rebinding.side);
  v("controls", rebinding.controls, items(64));
}

// Whatever can be bound, in the order of controls.toml: actions, then sides of axes, player by player; with what it is bound to.
std::vector<Rebinding> bindings_of(const Controls& controls);
// The controls with these put over them. What they name and the game does not have (any more) is left out.
Controls with_rebindings(Controls controls, std::span<const Rebinding> rebindings);
// What else a control presses, as "jump" or "walk left"; but for pads, of which each player has others, of other players too:
// "jump of player 2".
std::vector<std::string> also_pressed(const Controls& controls, const Rebinding& by,
                                      std::string_view control);
// As a person reads it: "jump", "walk left".
std::string shown_name(const Rebinding& binding);

}  // namespace vole
