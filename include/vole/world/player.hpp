// A pilot that follows the controls. In kinds.toml:
//
//   player = {}                                  # or player = { walk = "stroll", jump = "hop" }
//   player = { number = 2 }
#pragma once

#include <string>

#include "vole/base/describe.hpp"
#include "vole/input/players.hpp"

namespace vole {

// What its mover can do without may be missing in the controls.
struct Player {
  int number = 1;
  Located<std::string> walk{"walk", {}};  // an axis: left and right; of two dimensions also up and down
  Located<std::string> walk_down{
      "walk_down", {}};  // an axis: up and down; needed seen from above where walk has one dimension
  Located<std::string> jump{"jump", {}};  // an action; needed with a side_mover
  Located<std::string> drop{"drop", {}};  // an action: down through boards
  Located<std::string> dash{"dash", {}};
  Located<std::string> act{"act", {}};
};
template <class V>
void describe(V& v, Player& player) {
  v("number", player.number, within(1, most_players));
  v("walk", player.walk);
  v("walk_down", player.walk_down);
  v("jump", player.jump);
  v("drop", player.drop);
  v("dash", player.dash);
  v("act", player.act);
}

}  // namespace vole
