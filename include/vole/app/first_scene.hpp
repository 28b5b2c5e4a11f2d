// The scene that a run begins with: that of game.toml, or another with its argument as text: from a command line, or from a recording.
#pragma once

#include <string>

namespace vole {

class Game;
class Simulation;
struct Project;

struct FirstScene {
  // Empty: as game.toml says.
  std::string scene;
  // The keys of its argument as TOML, as "round = 3"; empty: what it is given where nothing is handed to it.
  std::string with;
  // The recording that says so; empty: a command line.
  std::string file = {};

  bool empty() const { return scene.empty() && with.empty(); }
};

// Has the simulation begin with it. Throws Error, with the nearest name, for a scene that the game does not have, and for an argument that
// it does not expect.
void ask_for(Simulation& simulation, const Game& game, const Project& project, const FirstScene& first);

}  // namespace vole
