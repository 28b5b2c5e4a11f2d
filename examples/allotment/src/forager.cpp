#include "forager.hpp"

#include <utility>

#include "names.hpp"
#include "scenes.hpp"
#include "vole/asset/track.hpp"

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

void Forager::enter(vole::Stage& stage) {
  vole_ = stage.first("vole");
  stage.camera().offset = {0, -24};
  stage.camera().slack = {12, 20};
  stage.camera().smoothing = 0.08f;
  stage.follow(vole_);
}

void Forager::count_food(const vole::Stage& stage) {
  planted_ += stage.count("bulb") + stage.count("mound");
}

void Forager::begin_here(const vole::Stage& stage) {
  start_ = stage.get<vole::Pose>(vole_).at;
}

void Forager::cues(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  cues.when_meet("vole", vole::tagged("food"),
                 [this](Stage& stage, Entity, Entity bulb) { gather(stage, bulb); });
  cues.when_meet("vole", vole::tagged("danger"),
                 [this](Stage& stage, Entity, Entity magpie) { take_fright(stage, magpie); });
}

void Forager::tick(vole::Stage& stage) {
  time_ = {stage.ticks(), stage.ticks_per_second()};
  climb_out(stage);
  notice_landing(stage);
  tell_facts(stage);
}

void Forager::gather(vole::Stage& stage, vole::Entity bulb) {
  gathered_ += stage.get<Bulb>(bulb).worth;
  stage.remove(bulb);
}

// A magpie takes nothing but the vole's breath.
void Forager::take_fright(vole::Stage& stage, vole::Entity magpie) {
  if (hurt_ > 0) return;
  constexpr int ticks_safe = 60;
  hurt_ = ticks_safe;
  const bool from_left = stage.get<vole::Pose>(magpie).at.x < stage.get<vole::Pose>(vole_).at.x;
  stage.get<vole::Motion>(vole_).velocity = {from_left ? 110.0f : -110.0f, -130};
  stage.get<vole::Sprite>(vole_).play_track(vole::tracks::blink());
  stage.freeze(0.08f);
}

// A vole that falls into a ditch begins again at the start, with what it has gathered.
void Forager::climb_out(vole::Stage& stage) {
  auto& pose = stage.get<vole::Pose>(vole_);
  if (pose.at.y < static_cast<float>(stage.level().size().y) + 32) return;
  pose.at = pose.before = start_;
  stage.get<vole::Motion>(vole_).velocity = {0, 0};
  stage.follow(vole_);
}

// The other facts of the vole's clip rules come from its motion.
void Forager::tell_facts(vole::Stage& stage) {
  constexpr int hurt_ticks_shown = 40;
  auto& sprite = stage.get<vole::Sprite>(vole_);
  if (hurt_ > 0) --hurt_;
  if (landing_ > 0) --landing_;
  sprite.set_fact("hurt", hurt_ > hurt_ticks_shown ? 1 : 0);
  sprite.set_fact("landing", landing_ > 0 ? 1 : 0);
  sprite.set_fact("digging", stage.input().held("dig") ? 1 : 0);
}

void Forager::notice_landing(vole::Stage& stage) {
  constexpr int landing_ticks = 6;
  const bool in_air = !stage.get<vole::Touching>(vole_).ground;
  auto& sprite = stage.get<vole::Sprite>(vole_);
  if (was_in_air_ && !in_air) {
    landing_ = landing_ticks;
    sprite.play_track(vole::tracks::squash(), 0.6f);
  } else if (!was_in_air_ && in_air && stage.get<vole::Motion>(vole_).velocity.y < 0) {
    sprite.play_track(vole::tracks::stretch(), 0.6f);
  }
  was_in_air_ = in_air;
}

void Forager::shows(vole::Shown& shown, const bool& counters) const {
  shown.box(names::sheet::sign::name, {{4, 4}, {64, 20}}).when(counters);
  shown.frame(names::sheet::bulb::name, 0, {16, 22}).when(counters);
  shown.text("letters", "{}/{}", {26, 9}).of(gathered_, planted_).plays(count_hop()).when(counters);
  shown.box(names::sheet::sign::name, {{-58, 4}, {54, 20}}).from(vole::Anchor::top_right).when(counters);
  shown.text("letters", "{}", {-31, 9}, {.anchor = vole::Anchor::top})
      .of(time_)
      .from(vole::Anchor::top_right)
      .when(counters);
}
