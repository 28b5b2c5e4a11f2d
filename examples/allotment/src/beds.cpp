#include <utility>

#include "names.hpp"
#include "scenes.hpp"

void Beds::enter(vole::Stage& stage) {
  stage.load_level(names::level::beds);
  forager_.enter(stage);
  scatter_leaves(stage);
}

void Beds::cues(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  forager_.cues(cues);
  cues.when_event("vole", "scrape", [this](Stage& stage, Entity) { scrape(stage); });
  cues.while_touching("vole", "shed", [this](Stage& stage, Entity, Entity shed) {
    if (stage.get<vole::Body>(shed).use == vole::BodyUse::sensor) open_cellar(stage);
  });
  Pause::cues_below(cues);
  say_welcome(cues);
}

void Beds::open_cellar(vole::Stage& stage) const {
  stage.leave_for<Cellar>(forager_.harvest())
      .with(vole::iris(stage.on_canvas(forager_.vole()), {58, 90}, 0.8f));
}

// The shed opens when the vole stands before it, and the first time its lodger goes out for the night.
void Beds::say_welcome(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  cues.while_touching("vole", vole::zone("doorstep"), [](Stage& stage, Entity, Entity) {
    const Entity door = stage.first("shed");
    if (!stage.has_sequence("welcome", door)) stage.start_sequence("welcome", door);
  });
  cues.when_event(names::sheet::shed::name, "wide", [this](Stage& stage, Entity door) {
    if (std::exchange(lodger_is_out_, true)) return;
    const vole::Vec2 inside = stage.get<vole::Pose>(door).at + vole::Vec2{-2, -2};
    stage.get<vole::Intent>(stage.spawn("hedgehog", inside)).direction = {-1, 0};
  });
}

// Each scrape of the paws takes something off the mound that the vole stands at.
void Beds::scrape(vole::Stage& stage) {
  const vole::Entity found = stage.found(forager_.vole(), "paws");
  if (!found) return;
  auto& sprite = stage.get<vole::Sprite>(found);
  sprite.play(names::sheet::mound::set::earth, Earth::dug);
  sprite.play_track(vole::tracks::squash());
  if (--stage.get<Mound>(found).scrapes > 0) return;
  stage.spawn("bulb", stage.get<vole::Pose>(found).at);
  stage.remove(found);
}

void Beds::tick(vole::Stage& stage) {
  if (stage.input().pressed("pause")) stage.open<Pause>();
  forager_.tick(stage);
  if (stage.frozen()) return;
  fly(stage);
  drop_leaves(stage);
}

void Beds::draw(vole::Drawing& drawing) const {
  forager_.draw(drawing);
}
