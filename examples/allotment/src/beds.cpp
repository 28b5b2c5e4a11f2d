#include "names.hpp"
#include "scenes.hpp"

namespace {

// The count jumps when it changes.
const vole::Track& count_hop() {
  static const vole::Track track{
      .name = "hop",
      .offset = {
          {0, {0, 0}, vole::Ease::quad_out}, {80'000, {0, -4}, vole::Ease::bounce_out}, {400'000, {0, 0}}}};
  return track;
}

}  // namespace

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
    hop_ = 0;
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
  notice_landing(stage);
  ++hop_;
}

// Who falls into a ditch begins again at the start, with what was gathered so far.
void Beds::climb_out(vole::Stage& stage) {
  auto& pose = stage.get<vole::Pose>(vole_);
  if (pose.at.y < static_cast<float>(stage.level().size().y) + 32) return;
  pose.at = pose.before = start_;
  stage.get<vole::Body>(vole_).velocity = {0, 0};
  stage.follow(vole_);
}

// All else that the vole's clip rules ask for, its body tells by itself.
void Beds::notice_landing(vole::Stage& stage) {
  constexpr int landing_ticks = 6;
  const bool in_air = !stage.get<vole::Body>(vole_).on_ground;
  auto& sprite = stage.get<vole::Sprite>(vole_);
  if (was_in_air_ && !in_air) {
    landing_ = landing_ticks;
    sprite.play_track(vole::tracks::squash(), 0.6f);
  } else if (!was_in_air_ && in_air && stage.get<vole::Body>(vole_).velocity.y < 0) {
    sprite.play_track(vole::tracks::stretch(), 0.6f);
  }
  was_in_air_ = in_air;
  if (landing_ > 0) --landing_;
  sprite.set_fact("landing", landing_ > 0 ? 1 : 0);
}

void Beds::draw(vole::Drawing& drawing) const {
  const float right = static_cast<float>(drawing.canvas().x);
  drawing.box(names::sheet::sign::name, {{4, 4}, {64, 20}});
  drawing.frame(names::sheet::bulb::name, 0, {16, 22});
  drawing.label(count_, vole::Vec2{26, 9} + count_hop().at(hop_, drawing.stage().ticks_per_second()).offset);
  drawing.box(names::sheet::sign::name, {{right - 58, 4}, {54, 20}});
  drawing.label(clock_, {right - 31, 9});
}

void Beds::add_to(vole::Hash& hash) const {
  hash.add(std::int64_t{gathered_});
  hash.add(std::int64_t{landing_});
}
