#include <utility>

#include "names.hpp"
#include "scenes.hpp"

void Cellar::enter(vole::Stage& stage) {
  stage.load_level(names::level::cellar);
  forager_.enter(stage, stage.argument<Harvest>());
}

void Cellar::cues(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  forager_.cues(cues);
  Pause::cues_below(cues);
  cues.when_meet("vole", "lever", [](Stage& stage, Entity, Entity lever) {
    auto& its = stage.get<Lever>(lever);
    if (std::exchange(its.pulled, true)) return;
    stage.get<vole::Sprite>(lever).play(names::sheet::lever::clip::pulled);
    stage.get<vole::Sprite>(its.gate.thing).play(names::sheet::gate::clip::rise);
  });
  cues.when_meet("vole", vole::zone("way out"), [this](Stage& stage, Entity, Entity) {
    stage.leave_for<Finish>(forager_.harvest()).with(vole::wipe(vole::Direction::up, 0.5f));
  });
}

void Cellar::tick(vole::Stage& stage) {
  if (stage.input().pressed("pause")) stage.open<Pause>();
  forager_.tick(stage);
}

void Cellar::draw(vole::Drawing& drawing) const {
  forager_.draw(drawing);
}
