#include <algorithm>
#include <utility>

#include "names.hpp"
#include "scenes.hpp"

void Garden::enter(vole::Stage& stage) {
  stage.load_level(stage.argument<GardenStart>().level);
  forager_.enter(stage);
  begin_here(stage);
}

void Garden::begin_here(vole::Stage& stage) {
  forager_.begin_here(stage);
  const std::string& level = stage.level().name();
  if (std::find(known_levels_.begin(), known_levels_.end(), level) != known_levels_.end()) return;
  known_levels_.push_back(level);
  forager_.count_food(stage);
  if (level == "beds" && stage.value<Wishes>().falling_leaves) scatter_leaves(stage);
}

void Garden::cues(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  forager_.cues(cues);
  cues.when_event("vole", "scrape", [this](Stage& stage, Entity) { scrape(stage); });
  Pause::cues_below(cues);
  say_welcome(cues);
  say_ways(cues);
  say_cellar(cues);
}

// Down through the shed, up the ladder again, and out. Each level stays as it was left.
void Garden::say_ways(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  cues.while_touching("vole", "shed", [](Stage& stage, Entity vole, Entity shed) {
    if (stage.get<vole::Body>(shed).use != vole::BodyUse::sensor) return;
    stage.go_to_level(names::level::cellar, "foot of the ladder", {vole})
        .with(vole::iris(stage.on_canvas(vole), {58, 90}, 0.8f));
  });
  cues.when_meet("vole", vole::zone("way up"), [](Stage& stage, Entity vole, Entity) {
    stage.go_to_level(names::level::beds, "before the shed", {vole}).with(vole::fade(0.8f));
  });
  cues.when_meet("vole", vole::zone("way out"), [this](Stage& stage, Entity, Entity) {
    stage.leave_for<Finish>(forager_.harvest()).with(vole::wipe(vole::Direction::up, 0.5f));
  });
  for (const auto level : {names::level::cellar, names::level::beds})
    cues.when_arrived(level, [this](Stage& stage) { begin_here(stage); });
}

// The shed opens when the vole stands before it, and the first time its lodger goes out for the night.
void Garden::say_welcome(vole::Cues& cues) {
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
void Garden::scrape(vole::Stage& stage) {
  const vole::Entity found = stage.found(forager_.vole(), "paws");
  if (!found) return;
  auto& sprite = stage.get<vole::Sprite>(found);
  sprite.play(names::sheet::mound::set::earth, Earth::dug);
  sprite.play_track(vole::tracks::squash());
  if (--stage.get<Mound>(found).scrapes > 0) return;
  stage.spawn("bulb", stage.get<vole::Pose>(found).at);
  stage.remove(found);
}

void Garden::tick(vole::Stage& stage) {
  if (stage.input().pressed("pause")) {
    stage.save("garden", {.title = "The " + stage.level().name(), .scenes = true});
    stage.open<Pause>();
  }
  forager_.tick(stage);
  if (stage.frozen()) return;
  fly(stage);
  if (stage.value<Wishes>().falling_leaves) drop_leaves(stage);
}

void Garden::shows(vole::Shown& shown) {
  forager_.shows(shown, shown.value<Wishes>().counters);
}
