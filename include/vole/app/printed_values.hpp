// Values of a running game as a line of text: what the option --print asks for.
//
//   PrintedValues values("robin.pose.at, scene.lives");
//   values.line(simulation, game.types());        // robin.pose.at = [12.5, 40.0], scene.lives = 3
//
// A value is that of a thing, by the name of its place or else the first of a kind: NAME.COMPONENT.FIELD; or `scene.FIELD`, `camera.FIELD`,
// `level.FIELD`, `values.NAME.FIELD`. The field may be left out: then it is the whole component. Of a pair `.x` and `.y` are parts. What is not there is `none`.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace vole {

class ComponentTypes;
class Simulation;

class PrintedValues {
 public:
  static constexpr std::size_t most = 64;

  // Values with commas between them. Throws Error for an empty one, and for more than 64.
  explicit PrintedValues(std::string_view text);

  // Throws Error, with the nearest, for a name that the game does not have.
  std::string line(const Simulation& simulation, const ComponentTypes& types) const;

 private:
  std::vector<std::vector<std::string>> paths_;  // the words of each
};

}  // namespace vole
