#include "step_deeds.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "scene/facts.hpp"
#include "scene/tweens.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/error.hpp"
#include "vole/base/field.hpp"
#include "vole/base/utf8.hpp"
#include "vole/base/within.hpp"
#include "vole/input/intent.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/binding.hpp"
#include "vole/world/conditions.hpp"
#include "vole/world/fly_mover.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

// Nothing, or rather as many ticks as come nearest.
std::int64_t in_ticks(float seconds, int ticks_per_second) {
  return static_cast<std::int64_t>(double{brought_within_seconds(seconds)} * ticks_per_second + 0.5);
}

// How long a text is shown that does not say so: a second, and as much again as its letters take.
std::int64_t ticks_to_read(const SequenceStep& step, int ticks_per_second) {
  return step.seconds > 0 ? in_ticks(step.seconds, ticks_per_second)
                          : ticks_per_second + ticks_of_letters(step.text, ticks_per_second);
}

}  // namespace

std::int64_t ticks_of_letters(std::string_view text, int ticks_per_second) {
  std::int64_t letters = 0;
  for (; !text.empty(); ++letters) next_letter(text);
  return (letters * ticks_per_second + letters_a_second - 1) / letters_a_second;
}

std::string_view shown_letters(std::string_view text, std::int64_t ticks, int ticks_per_second) {
  std::string_view rest = text;
  for (std::int64_t letters = ticks * letters_a_second / ticks_per_second; letters > 0 && !rest.empty();
       --letters)
    next_letter(rest);
  return text.substr(0, text.size() - rest.size());
}

std::int64_t ticks_until_due(const SequenceStep& step, const SequenceBranch& branch, int ticks_per_second) {
  switch (step.does) {
    case StepDoes::wait:
    case StepDoes::tween:
      return std::max<std::int64_t>(in_ticks(step.seconds, ticks_per_second) - branch.ticks, 1);
    case StepDoes::wait_for:
      return step.seconds > 0
                 ? std::max<std::int64_t>(in_ticks(step.seconds, ticks_per_second) - branch.ticks, 1)
                 : INT32_MAX;
    case StepDoes::together:
    case StepDoes::repeat:
      return INT32_MAX;
    default:
      return 1;
  }
}

Entity StepWork::meant_thing() const {
  if (step_.thing.value.empty()) return step_.entity ? step_.entity : running_.owner;
  return tick_.stage.named(step_.thing.value, piece());
}

std::uint32_t StepWork::piece() const {
  return running_.owner ? tick_.stage.piece_of(running_.owner) : 0;
}

Entity StepWork::thing() const {
  const bool is_there = tick_.world.entities.has<Pose>(branch_.thing) && !tick_.stage.removed(branch_.thing);
  return is_there ? branch_.thing : Entity();
}

bool StepWork::time_is_over() const {
  return branch_.ticks >= in_ticks(step_.seconds, tick_.setting.ticks_per_second);
}

void StepWork::begin() {
  branch_.thing = meant_thing();
  switch (step_.does) {
    case StepDoes::tell:
      tick_.cues.expect_name(step_.told.value);
      tick_.world.told.push_back({step_.told.value, branch_.thing});
      return;
    case StepDoes::go:
      branch_.nearest = furthest_position;
      branch_.no_nearer = 0;
      return;
    case StepDoes::play:
      return begin_clip();
    case StepDoes::tween:
      return begin_tween();
    default:
      return;
  }
}

bool StepWork::is_over() {
  switch (step_.does) {
    case StepDoes::wait:
      return branch_.hurried || time_is_over();
    case StepDoes::wait_until:
      return conditions_hold() || (step_.seconds > 0 && time_is_over());
    case StepDoes::wait_for:
      return branch_.heard || (step_.seconds > 0 && time_is_over());
    case StepDoes::go:
      return has_come();
    case StepDoes::play:
      return clip_is_over();
    case StepDoes::tween:
      if (branch_.hurried) hurry_tween();
      return branch_.hurried || time_is_over();
    case StepDoes::say:
      return text_is_over();
    case StepDoes::tell:
    case StepDoes::together:
    case StepDoes::repeat:
      return true;
  }
  return true;
}

bool StepWork::conditions_hold() const {
  const Sequence* const sequence = sequence_of(tick_.world.entities, running_, branch_.list);
  const Entity its = thing();
  if (!sequence || !its) return true;
  read_conditions(*sequence);
  const OwnFacts own = own_facts(tick_, its);
  const std::vector<ClipRules::Condition>& when = sequence->conditions->when(branch_.step);
  return std::all_of(when.begin(), when.end(), [&](const ClipRules::Condition& condition) {
    return condition.holds(fact_of(tick_, its, own, sequence->conditions->facts()[condition.fact]));
  });
}

void StepWork::begin_clip() {
  const Entity its = thing();
  if (!its) return;
  Sprite* const sprite = tick_.world.entities.find<Sprite>(its);
  if (!sprite) throw Error(FilePosition{}, "what plays a clip has a sprite");
  sprite->restart(step_.clip.value);
  sprite->playing.hold();
  branch_.starts = sprite->playhead().starts();
}

// Also where it plays something else by now.
bool StepWork::clip_is_over() {
  const Entity its = thing();
  Sprite* const sprite = its ? tick_.world.entities.find<Sprite>(its) : nullptr;
  if (!sprite) return true;
  const Playhead& playhead = sprite->playhead();
  const int rate = tick_.setting.ticks_per_second;
  const Clip* const clip = playhead.clip();
  const bool whole_round =
      clip && clip->loop && playhead.ticks() * clip->units_per_second() >= clip->length() * rate;
  if (!branch_.hurried && clip && playhead.starts() == branch_.starts && !playhead.finished(rate) &&
      !whole_round)
    return false;
  sprite->playing.let_go();
  return true;
}

void StepWork::begin_tween() {
  const Entity its = thing();
  if (!its) return;
  const std::string& field = step_.field.value;
  const std::size_t dot = std::min(field.find('.'), field.size());
  const Binding& binding = tick_.setting.binding();
  const BoundField bound =
      bind_field(binding.types, field.substr(0, dot), field.substr(std::min(dot + 1, field.size())));
  if (!bound.type && binding.unknown == UnknownComponents::skip) return;
  if (!bound.type) throw Error(step_.field.where, fmt::format("no number, pair or colour \"{}\"", field));
  std::vector<Tween>& all = tick_.world.tweens;
  const std::size_t place = add_tween(all, *bound.type, bound.index, its);
  all[place].legs.push_back({step_.value, step_.seconds, step_.ease});
}

void StepWork::hurry_tween() {
  const Entity its = thing();
  for (Tween& tween : tick_.world.tweens)
    if (tween.entity == its && fmt::format("{}.{}", tween.component, tween.field) == step_.field.value)
      for (TweenLeg& leg : tween.legs) leg.seconds = 0;
}

// Hurried, all of it is shown first.
bool StepWork::text_is_over() {
  const int rate = tick_.setting.ticks_per_second;
  const std::int64_t letters = ticks_of_letters(step_.text, rate);
  if (branch_.hurried && branch_.ticks >= letters) return true;
  if (branch_.hurried) branch_.ticks = letters;
  branch_.hurried = false;
  return branch_.ticks >= letters + ticks_to_read(step_, rate);
}

Vec2 StepWork::way() const {
  const Vec2 to =
      step_.to.value.empty() ? step_.at.value_or(Vec2{0, 0}) : tick_.stage.place(step_.to.value, piece());
  return to - tick_.stage.get<Pose>(thing()).at;
}

bool StepWork::has_come() {
  const Entity its = thing();
  if (!its || (step_.seconds > 0 && time_is_over())) return true;
  const Entities& entities = tick_.world.entities;
  return entities.has<Intent>(its) && entities.has<Motion>(its) ? walks(way()) : is_moved(way());
}

// Straight on, through all that is in the way.
bool StepWork::is_moved(Vec2 way) {
  Pose& pose = tick_.stage.get<Pose>(thing());
  if (step_.speed <= 0 && !branch_.hurried)
    throw Error(FilePosition{}, "what has no mover goes so many pixels a second: say a speed");
  const float length = length_of(way), step = step_.speed * tick_.stage.seconds_per_tick();
  if (branch_.hurried) {
    pose.at = pose.before = on_lattice(pose.at + way);
    return true;
  }
  pose.at = on_lattice(pose.at + (length <= step ? way : way * (step / length)));
  return length <= step;
}

// Its mover does it: it slows down before it is there.
bool StepWork::walks(Vec2 way) {
  constexpr float braking = 8, slowest = 0.15f, near = 1;  // pixels, a share of its speed, pixels
  const Entity its = thing();
  Intent& intent = tick_.stage.get<Intent>(its);
  intent = {};
  if (!goes_from_above(tick_.world.entities, its) && !tick_.world.entities.has<FlyMover>(its)) way.y = 0;
  const float distance = length_of(way);
  branch_.no_nearer = distance < branch_.nearest ? 0 : branch_.no_nearer + 1;
  branch_.nearest = std::min(branch_.nearest, distance);
  if (distance <= near || branch_.no_nearer > tick_.setting.ticks_per_second) return true;
  intent.direction = way * (std::clamp(distance / braking, slowest, 1.0f) / distance);
  return false;
}

}  // namespace vole
