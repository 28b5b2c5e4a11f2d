#include <cmath>

#include "scenes.hpp"

void Beds::enter(vole::Stage& stage) {
  stage.load_level("beds");
  vole_ = stage.first("vole");
  start_ = stage.get<vole::Pose>(vole_).at;
  planted_ = stage.count("bulb");

  stage.camera.offset = {0, -24};
  stage.camera.slack = {12, 20};
  stage.camera.smoothing = 0.08f;
  stage.follow(vole_);

  stage.when_meet("vole", "bulb", [this, &stage](vole::Entity, vole::Entity bulb) {
    gathered_ += stage.get<Bulb>(bulb).worth;
    stage.remove(bulb);
  });
  stage.when_meet("vole", "shed", [this, &stage](vole::Entity, vole::Entity) {
    stage.go("finish", Harvest{gathered_, planted_, stage.tick_count()});
  });
}

void Beds::tick(vole::Stage& stage) {
  if (stage.input().pressed("title")) stage.go("title");
  climb_out(stage);
  choose_clip(stage);
}

// Who falls into a ditch begins again at the start, with what was gathered so far.
void Beds::climb_out(vole::Stage& stage) {
  auto& pose = stage.get<vole::Pose>(vole_);
  if (pose.at.y < static_cast<float>(stage.level().size().y) + 32) return;
  pose.at = pose.before = start_;
  stage.get<vole::Body>(vole_).velocity = {0, 0};
  stage.follow(vole_);
}

void Beds::choose_clip(vole::Stage& stage) {
  constexpr int landing_ticks = 6;
  const auto& body = stage.get<vole::Body>(vole_);
  auto& sprite = stage.get<vole::Sprite>(vole_);
  const bool in_air = !body.on_ground;
  if (was_in_air_ && !in_air) landing_ = landing_ticks;
  was_in_air_ = in_air;
  if (landing_ > 0) --landing_;

  if (in_air)
    sprite.play(body.velocity.y < 0 ? "jump" : "fall");
  else if (std::abs(body.velocity.x) > 8)
    sprite.play("run");
  else
    sprite.play(landing_ > 0 ? "land" : "idle");
}

void Beds::draw(vole::Drawing& drawing) const {
  drawing.frame("bulb", 0, {14, 18});
  drawing.text("letters", std::to_string(gathered_) + "/" + std::to_string(planted_), {24, 6});
  const auto& stage = drawing.stage();
  drawing.text("letters", time_text(stage.tick_count(), stage.ticks_per_second()),
               {static_cast<float>(drawing.canvas().x) - 6, 6}, {.anchor = vole::Anchor::top_right});
}

void Beds::add_to(vole::Hash& hash) const {
  hash.add(std::int64_t{gathered_});
  hash.add(std::int64_t{landing_});
}
