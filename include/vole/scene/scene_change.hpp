// What a scene has asked to come when the tick is over: another scene in its place, one over it, its own end, or another level.
#pragma once

#include <string>

#include "vole/scene/argument.hpp"
#include "vole/scene/level_going.hpp"
#include "vole/scene/transition.hpp"

namespace vole {

struct SceneChange {
  enum class How : std::uint8_t { leaves, opens, closes, goes };

  How how = How::leaves;
  std::string scene;      // that comes; none when it closes or goes
  SceneArgument handed;   // what that is entered with; what the one that closes hands back
  Transition transition;  // none: at once
  // Of one that leaves: how it looked at last stays, and is seen below the one that comes.
  bool stays_seen = false;
  LevelGoing to = {};  // where it goes

  // What is shown meanwhile (transition.hpp).
  SceneChange& with(Transition shown);
  // The scene's last moment is what lies below the one that comes, which darkens or blurs it by its cover (cover.hpp).
  SceneChange& over_last_moment();
};
constexpr auto enum_names(SceneChange::How) {
  return std::array<std::string_view, 4>{"leaves", "opens", "closes", "goes"};
}
// Without what is handed: its type is a scene's to say.
template <class V>
void describe(V& v, SceneChange& change) {
  v.state("how", change.how);
  v.state("scene", change.scene);
  v.state("transition", change.transition);
  v.state("stays_seen", change.stays_seen);
  v.state("to", change.to);
}

}  // namespace vole
