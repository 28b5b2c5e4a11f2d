#include <utility>

#include "names.hpp"
#include "scenes.hpp"

void Garden::say_cellar(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  cues.when_meet("vole", "lever", [](Stage& stage, Entity, Entity lever) {
    auto& its = stage.get<Lever>(lever);
    if (std::exchange(its.pulled, true)) return;
    stage.get<vole::Sprite>(lever).play(names::sheet::lever::clip::pulled);
    stage.get<vole::Sprite>(its.gate.thing).play(names::sheet::gate::clip::rise);
  });
}
