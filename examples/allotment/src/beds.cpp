#include <cmath>

#include "names.hpp"
#include "scenes.hpp"

using Look = names::sheet::vole;  // what the compiler knows of the vole's sheet

void Beds::enter(vole::Stage& stage) {
  stage.load_level(names::level::beds);
  vole_ = stage.first("vole");
  start_ = stage.get<vole::Pose>(vole_).at;
  planted_ = stage.count("bulb");

  stage.camera.offset = {0, -24};
  stage.camera.slack = {12, 20};
  stage.camera.smoothing = 0.08f;
  stage.follow(vole_);
  count_.of(gathered_, planted_);
  clock_.of(time_);

  stage.when_meet("vole", "bulb", [this, &stage](vole::Entity, vole::Entity bulb) {
    gathered_ += stage.get<Bulb>(bulb).worth;
    stage.remove(bulb);
  });
  stage.when_meet("vole", "shed", [this, &stage](vole::Entity, vole::Entity) {
    stage.go("finish", Harvest{gathered_, planted_, stage.tick_count()});
  });
}

void Beds::tick(vole::Stage& stage) {
  time_ = {stage.tick_count(), stage.ticks_per_second()};
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
  vole::SpriteOf<Look> look(stage.get<vole::Sprite>(vole_));
  const bool in_air = !body.on_ground;
  if (was_in_air_ && !in_air) landing_ = landing_ticks;
  was_in_air_ = in_air;
  if (landing_ > 0) --landing_;

  if (in_air)
    look.play(body.velocity.y < 0 ? Look::clip::jump : Look::clip::fall);
  else if (std::abs(body.velocity.x) > 8)
    look.play(Look::clip::run);
  else
    look.play(landing_ > 0 ? Look::clip::land : Look::clip::idle);
}

void Beds::draw(vole::Drawing& drawing) const {
  const float right = static_cast<float>(drawing.canvas().x);
  drawing.box(names::sheet::sign::name, {{4, 4}, {64, 20}});
  drawing.frame(names::sheet::bulb::name, 0, {16, 22});
  drawing.label(count_, {26, 9});
  drawing.box(names::sheet::sign::name, {{right - 58, 4}, {54, 20}});
  drawing.label(clock_, {right - 31, 9});
}

void Beds::add_to(vole::Hash& hash) const {
  hash.add(std::int64_t{gathered_});
  hash.add(std::int64_t{landing_});
}
