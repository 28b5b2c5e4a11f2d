// A pilot that follows the controls. In kinds.toml:
//
//   person = {}                                  # or person = { walk = "stroll", jump = "leap" }
//   person = { player = 2 }
#pragma once

#include <string>

#include "vole/base/describe.hpp"
#include "vole/input/players.hpp"

namespace vole {

// What its mover can do without may be missing in the controls.
struct Person {
  int player = 1;
  Located<std::string> walk{"walk", {}};  // an axis: left and right; of two dimensions also up and down
  Located<std::string> walk_down{
      "walk_down", {}};  // an axis: up and down; needed seen from above where walk has one dimension
  Located<std::string> jump{"jump", {}};  // an action; needed with a side_mover
  Located<std::string> drop{"drop", {}};  // an action: down through boards
  Located<std::string> dash{"dash", {}};
  Located<std::string> act{"act", {}};
};
template <class V>
void describe(V& v, Person& person) {
  v("player", person.player, within(1, most_players));
  v("walk", person.walk);
  v("walk_down", person.walk_down);
  v("jump", person.jump);
  v("drop", person.drop);
  v("dash", person.dash);
  v("act", person.act);
}

}  // namespace vole
