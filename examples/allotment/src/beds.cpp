#include <utility>

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

Beds::Beds() {
  count_.of(gathered_, planted_);
  clock_.of(time_);
}

void Beds::enter(vole::Stage& stage) {
  stage.load_level(names::level::beds);
  vole_ = stage.first("vole");
  start_ = stage.get<vole::Pose>(vole_).at;
  planted_ = stage.count("bulb") + stage.count("mound");

  stage.camera.offset = {0, -24};
  stage.camera.slack = {12, 20};
  stage.camera.smoothing = 0.08f;
  stage.follow(vole_);
  scatter_leaves(stage);
}

void Beds::cues(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  cues.when_meet("vole", vole::tagged("food"),
                 [this](Stage& stage, Entity, Entity bulb) { gather(stage, bulb); });
  cues.when_meet("vole", vole::tagged("danger"),
                 [this](Stage& stage, Entity, Entity magpie) { take_fright(stage, magpie); });
  cues.when_event("vole", "scrape", [this](Stage& stage, Entity) { scrape(stage); });
  cues.while_touching("vole", "shed", [this](Stage& stage, Entity, Entity shed) {
    if (stage.get<vole::Body>(shed).use == vole::BodyUse::sensor)
      stage.leave_for<Finish>({gathered_, planted_, stage.ticks()});
  });
  say_welcome(cues);
}

// The shed opens when the vole stands before it, and the first time its lodger goes out for the night.
void Beds::say_welcome(vole::Cues& cues) {
  using vole::Entity, vole::Stage;
  const auto shed = names::sheet::shed::name;
  cues.while_touching("vole", vole::zone("doorstep"), [this](Stage& stage, Entity, Entity) {
    if (!std::exchange(door_moves_, true))
      stage.get<vole::Sprite>(stage.first("shed")).play(names::sheet::shed::clip::welcome);
  });
  cues.when_event(shed, "wide", [this](Stage& stage, Entity door) {
    if (std::exchange(lodger_is_out_, true)) return;
    const vole::Vec2 inside = stage.get<vole::Pose>(door).at + vole::Vec2{-2, -2};
    stage.get<vole::Intent>(stage.spawn("hedgehog", inside)).direction = {-1, 0};
  });
  cues.when_event(shed, "shut", [this](Stage& stage, Entity door) {
    stage.get<vole::Sprite>(door).play(names::sheet::shed::clip::lamp);
    door_moves_ = false;
  });
}

void Beds::gather(vole::Stage& stage, vole::Entity bulb) {
  gathered_ += stage.get<Bulb>(bulb).worth;
  hop_ = 0;
  stage.remove(bulb);
}

// Each scrape of the paws takes something off the mound that the vole stands at.
void Beds::scrape(vole::Stage& stage) {
  const vole::Entity found = stage.found(vole_, "paws");
  if (!found) return;
  auto& sprite = stage.get<vole::Sprite>(found);
  sprite.play(names::sheet::mound::set::earth, Earth::dug);
  sprite.play_track(vole::tracks::squash());
  if (--stage.get<Mound>(found).scrapes > 0) return;
  stage.spawn("bulb", stage.get<vole::Pose>(found).at);
  stage.remove(found);
}

// A magpie takes nothing but the vole's breath.
void Beds::take_fright(vole::Stage& stage, vole::Entity magpie) {
  if (hurt_ > 0) return;
  constexpr int ticks_safe = 60;
  hurt_ = ticks_safe;
  const bool from_left = stage.get<vole::Pose>(magpie).at.x < stage.get<vole::Pose>(vole_).at.x;
  stage.get<vole::Motion>(vole_).velocity = {from_left ? 110.0f : -110.0f, -130};
  stage.get<vole::Sprite>(vole_).play_track(vole::tracks::blink());
  stage.freeze(0.08f);
}

void Beds::tick(vole::Stage& stage) {
  time_ = {stage.ticks(), stage.ticks_per_second()};
  if (stage.input().pressed("title")) stage.leave_for<Title>();
  climb_out(stage);
  notice_landing(stage);
  tell_facts(stage);
  if (!stage.frozen()) {
    fly(stage);
    drop_leaves(stage);
  }
  ++hop_;
}

// A vole that falls into a ditch begins again at the start, with what it has gathered.
void Beds::climb_out(vole::Stage& stage) {
  auto& pose = stage.get<vole::Pose>(vole_);
  if (pose.at.y < static_cast<float>(stage.level().size().y) + 32) return;
  pose.at = pose.before = start_;
  stage.get<vole::Motion>(vole_).velocity = {0, 0};
  stage.follow(vole_);
}

// The other facts of the vole's clip rules come from its motion.
void Beds::tell_facts(vole::Stage& stage) {
  constexpr int hurt_ticks_shown = 40;
  auto& sprite = stage.get<vole::Sprite>(vole_);
  if (hurt_ > 0) --hurt_;
  if (landing_ > 0) --landing_;
  sprite.set_fact("hurt", hurt_ > hurt_ticks_shown ? 1 : 0);
  sprite.set_fact("landing", landing_ > 0 ? 1 : 0);
  sprite.set_fact("digging", stage.input().held("dig") ? 1 : 0);
}

void Beds::notice_landing(vole::Stage& stage) {
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

void Beds::draw(vole::Drawing& drawing) const {
  const float right = static_cast<float>(drawing.canvas().x);
  drawing.box(names::sheet::sign::name, {{4, 4}, {64, 20}});
  drawing.frame(names::sheet::bulb::name, 0, {16, 22});
  drawing.label(count_, vole::Vec2{26, 9} + count_hop().at(hop_, drawing.stage().ticks_per_second()).offset);
  drawing.box(names::sheet::sign::name, {{right - 58, 4}, {54, 20}});
  drawing.label(clock_, {right - 31, 9});
}
