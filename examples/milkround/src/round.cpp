// One round: bottles to every doorstep that waits, before it is day.
#include <algorithm>
#include <string>
#include <vector>

#include "scenes.hpp"
#include "village.hpp"

namespace milk {

namespace {

using vole::Entity;
using vole::Stage;
using vole::Vec2;

constexpr float speed = 62, slowed = 14;
constexpr float bell_reach = 60, bell_seconds = 1.5f, bell_pause = 4;

// More of everything in each round, but for the time for each door.
int doors_of(int round) {
  return std::min(3 + 2 * round, 15);
}
int dogs_of(int round) {
  return std::min(round, 4);
}
float seconds_of(int round, Dawn dawn) {
  const float usual = 12 + 5.5f * static_cast<float>(doors_of(round));
  return dawn == Dawn::late ? usual * 1.5f : dawn == Dawn::early ? usual * 0.8f : usual;
}

}  // namespace

void Round::enter(Stage& stage) {
  morning_ = stage.argument<Morning>();
  enter_village(stage, dogs_of(morning_.round));
  floats_[0] = stage.first("float");
  if (morning_.players > 1) floats_[1] = stage.spawn("other float", stage.place("depot"));
  std::vector<Entity> steps;
  stage.each("step", [&](Entity step) { steps.push_back(step); });
  for (to_go_ = 0; to_go_ < doors_of(morning_.round) && !steps.empty(); ++to_go_) {
    const std::uint32_t chosen = stage.random().below(static_cast<std::uint32_t>(steps.size()));
    show_step(stage, steps[chosen], Step::waits);
    steps.erase(steps.begin() + chosen);
  }
  seconds_ = seconds_left_ = seconds_of(morning_.round, stage.value<Wishes>().dawn);
  brighten(stage, 1);
}

void Round::cues(vole::Cues& cues) {
  cues.when_meet(vole::tagged("float"), "step",
                 [this](Stage& stage, Entity, Entity step) { leave_bottles(stage, step); });
  cues.when_meet(vole::tagged("float"), "dog",
                 [this](Stage& stage, Entity milk_float, Entity) { spill(stage, milk_float); });
  cues.when_meet(vole::tagged("float"), "postwoman", [](Stage& stage, Entity milk_float, Entity postwoman) {
    stage.get<vole::GridMover>(milk_float).speed = slowed;
    stage.start_sequence("slowed", vole::Steps().wait(1.5f).tween(&vole::GridMover::speed, speed, 0),
                         milk_float);
    stage.start_sequence("greets", postwoman);
  });
  cues.when_told("calm",
                 [](Stage& stage, Entity dog) { stage.get<vole::Sprite>(dog).set_fact("scared", 0); });
  cues.when_closed<Pause>([](Stage& stage, const PauseEnd& end) {
    if (end.to_title) stage.leave_for<Title>().with(vole::fade(0.5f));
  });
  cues.when_told("over", [this](Stage& stage, Entity) {
    if (to_go_ > 0 || morning_.round == rounds) {
      morning_.round += to_go_ > 0 ? 0 : 1;
      stage.leave_for<End>(morning_).with(vole::fade(1, colours::cream));
    } else {
      ++morning_.round;
      stage.leave_for<Round>(morning_).with(vole::wipe(vole::Direction::right, 0.5f));
    }
  });
}

void Round::tick(Stage& stage) {
  if (stage.input().pressed("pause")) stage.open<Pause>();
  if (done_) return;
  for (int player = 1; player <= morning_.players; ++player)
    if (stage.input().pressed("ring", player)) ring(stage, player);
  ring_again_ = std::max(ring_again_ - stage.seconds_per_tick(), 0.0f);
  seconds_left_ -= stage.seconds_per_tick();
  brighten(stage, std::clamp(hurry(), 0.0f, 1.0f));
  done_ = to_go_ == 0 || morning_.bottles <= 0 || seconds_left_ <= 0;
  if (done_) stage.start_sequence("over", vole::Steps().wait(1.5f).tell("over").hurried_by("ring"));
}

void Round::leave_bottles(Stage& stage, Entity step) {
  if (done_ || !stage.get<Doorstep>(step).waits) return;
  show_step(stage, step, Step::full);
  --to_go_;
  ++morning_.left;
}

void Round::spill(Stage& stage, Entity milk_float) {
  vole::Sprite& sprite = stage.get<vole::Sprite>(milk_float);
  if (done_ || sprite.flash.a > 0) return;
  --morning_.bottles;
  stage.camera().shake(3, 0.4f);
  stage.freeze(0.15f);
  // For a moment nobody can harm it, which is seen.
  sprite.flash = colours::cream;
  vole::Colour none = colours::cream;
  none.a = 0;
  stage.tween(milk_float, &vole::Sprite::flash).to(none, 2);
  scare_dogs(stage, stage.get<vole::Pose>(milk_float).at, bell_reach, 2);
}

void Round::ring(Stage& stage, int player) {
  if (ring_again_ > 0) return;
  ring_again_ = bell_pause;
  scare_dogs(stage, stage.get<vole::Pose>(floats_[static_cast<std::size_t>(player) - 1]).at, bell_reach,
             bell_seconds);
}

void Round::scare_dogs(Stage& stage, Vec2 from, float within, float seconds) {
  stage.each("dog", [&](Entity dog) {
    if (vole::length_of(stage.get<vole::Pose>(dog).at - from) > within) return;
    stage.get<vole::Sprite>(dog).set_fact("scared", 1);
    stage.after(seconds, "calm", dog);
  });
}

void Round::shows(vole::Shown& shown) {
  const vole::TextStyle letters{.colour = colours::cream, .outline = colours::bark};
  shown.frame("board", 0, {0, 0});
  shown.text("letters", "Round {}", {8, 5}, letters).of(morning_.round);
  shown.text("letters", "{} to go", {84, 5}, letters).of(to_go_);
  shown.row("bottle", "full", "broken", 3, {150, 5}, {9, 0}).of(morning_.bottles);
  // It is getting late: from gold to rust.
  shown
      .bar({{200, 6}, {110, 7}},
           {.full = colours::gold, .low = colours::rust, .low_at = 0.25f, .back = colours::bark})
      .of(seconds_left_, seconds_);
}

void Round::draw(vole::Drawing& drawing) const {
  if (!done_) return;
  const char* const what = to_go_ == 0             ? "All served!"
                           : morning_.bottles <= 0 ? "The last bottle..."
                                                   : "Too late!";
  drawing.text(
      "letters", what, {160, 90},
      {.anchor = vole::Anchor::centre, .colour = colours::cream, .scale = 2, .outline = colours::bark});
}

}  // namespace milk
