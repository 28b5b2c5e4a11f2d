#include "vole/scene/scene_pile.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "cue_call.hpp"
#include "vole/base/names.hpp"
#include "vole/base/state.hpp"
#include "vole/base/within.hpp"
#include "vole/input/controls.hpp"
#include "vole/world/binding.hpp"

namespace vole {

ScenePile::ScenePile(const StageSetting& setting, const TickSteps& steps) : base_(setting), steps_(steps) {}

ScenePile::Piled ScenePile::make(const SceneType& type, SceneArgument argument, std::uint64_t seed, Role role,
                                 const std::vector<Piled>& among) {
  const auto taken = [&among](std::size_t place) {
    return std::any_of(among.begin(), among.end(), [&](const Piled& other) { return other.place == place; });
  };
  std::size_t place = 0;
  while (taken(place)) ++place;
  // Pictures of several scenes are drawn from one list: what is kept for them must not be shared.
  while (settings_.size() <= place) {
    settings_.push_back(base_);
    settings_.back().caches = make_scene_caches();
  }
  return {std::make_unique<RunningScene>(settings_[place], steps_, type, std::move(argument), seed), role,
          false, place};
}

void ScenePile::begin(const SceneType& type, SceneArgument argument, std::uint64_t seed) {
  scenes_.push_back(make(type, std::move(argument), seed, Role::there, scenes_));
  try {
    lay();
    top().enter();
  } catch (...) {
    scenes_.clear();
    throw;
  }
}

std::size_t ScenePile::top_index() const {
  std::size_t index = scenes_.size() - 1;
  while (index > 0 && is_left(index)) --index;
  return index;
}

std::size_t ScenePile::below(std::size_t index) const {
  while (index-- > 0)
    if (!is_left(index)) return index;
  return scenes_.size();
}

std::vector<std::string> ScenePile::names() const {
  std::vector<std::string> names;
  for (const Piled& piled : scenes_)
    if (piled.role != Role::leaving) names.push_back(piled.running->type().name);
  return names;
}

// Tells each scene where it lies.
void ScenePile::lay() {
  const auto count = static_cast<int>(std::count_if(
      scenes_.begin(), scenes_.end(), [](const Piled& piled) { return piled.role != Role::leaving; }));
  for (std::size_t i = 0; i < scenes_.size(); ++i)
    scenes_[i].running->lie(i < top_index(), below(i) < scenes_.size(), count);
}

std::size_t ScenePile::asking() const {
  std::size_t index = 0;
  while (index < scenes_.size() && (is_left(index) || !scenes_[index].running->change())) ++index;
  return index;
}

const SceneChange* ScenePile::change() const {
  if (passing_) return nullptr;
  const std::size_t index = asking();
  return index < scenes_.size() ? scenes_[index].running->change() : nullptr;
}

void ScenePile::forget_changes() {
  for (Piled& piled : scenes_) piled.running->ask(std::nullopt);
}

void ScenePile::expect_known(const Transition& transition) const {
  if (transition.look == Transition::Look::dissolve)
    static_cast<void>(base_.binding().catalog.get<Picture>(transition.name));
  if (transition.look == Transition::Look::own)
    static_cast<void>((base_.transitions ? *base_.transitions : OwnTransitions()).get(transition.name));
}

void ScenePile::make_change(std::uint64_t seed) {
  const std::size_t index = asking();
  const SceneChange change = *scenes_[index].running->change();
  expect_known(change.transition);
  forget_changes();
  if (change.transition.look != Transition::Look::cut && change.transition.seconds > 0)
    passing_ = PassingTransition{change.transition, 0};
  switch (change.how) {
    case SceneChange::How::opens:
      open(index, change, seed);
      break;
    case SceneChange::How::leaves:
      leave(index, change, seed);
      break;
    case SceneChange::How::closes:
      close(index, change);
      break;
    case SceneChange::How::goes:
      go(index, change);
      break;
  }
  if (!passing_) end_transition();
}

void ScenePile::open(std::size_t over, const SceneChange& change, std::uint64_t seed) {
  scenes_[over].running->covered();
  come(change, seed);
}

void ScenePile::leave(std::size_t index, const SceneChange& change, std::uint64_t seed) {
  end_from(index, change.stays_seen);
  come(change, seed);
}

void ScenePile::close(std::size_t index, const SceneChange& change) {
  RunningScene& next = *scenes_[below(index)].running;
  const SceneType& closed = scenes_[index].running->type();
  end_from(index, false);
  lay();
  next.uncovered();
  if (!next.hear_closed(closed, change.handed))
    throw Error(FilePosition{},
                fmt::format("the scene \"{}\" hands back a {}, and \"{}\" has no cue for it", closed.name,
                            change.handed.type()->name(), next.type().name),
                fmt::format("say cues.when_closed(\"{}\", ...) there", closed.name));
}

void ScenePile::go(std::size_t index, const SceneChange& change) {
  RunningScene& scene = *scenes_[index].running;
  if (passing_) keep_last_moment(index);
  lay();
  scene.go_to_level(change.to);
}

// While a transition lasts, a copy of the scene is what was before it, and the scene itself comes.
void ScenePile::keep_last_moment(std::size_t index) {
  const RunningScene& scene = *scenes_[index].running;
  StateWriter out;
  scene.write(out);
  const StateBytes bytes = out.take();
  Piled copy = make(scene.type(), {}, 0, Role::leaving, scenes_);
  copy.seen = true;
  StateReader in(bytes);
  copy.running->read(in);
  copy.running->bind();
  scenes_[index].role = Role::coming;
  scenes_.insert(scenes_.begin() + static_cast<std::ptrdiff_t>(index), std::move(copy));
}

void ScenePile::end_from(std::size_t index, bool stays_seen) {
  for (std::size_t i = scenes_.size(); i-- > index;)
    if (!is_left(i)) scenes_[i].running->leave();
  for (std::size_t i = index + 1; i < scenes_.size(); ++i) scenes_[i].role = Role::leaving;
  if (stays_seen && make_room_over(index)) {
    scenes_[index].seen = true;
    return;
  }
  // What is only seen below it goes with it.
  do scenes_[index].role = Role::leaving;
  while (index-- > 0 && scenes_[index].seen);
}

// Of moments that are only seen yet the lowest go where there would be too many. False where there is none of them below.
bool ScenePile::make_room_over(std::size_t index) {
  std::size_t lowest = index;
  while (lowest > 0 && scenes_[lowest - 1].seen) --lowest;
  const auto stays = [](const Piled& piled) { return piled.role != Role::leaving; };
  while (std::count_if(scenes_.begin(), scenes_.end(), stays) >= StageScenes::most_in_pile) {
    if (lowest == index) return false;
    scenes_[lowest++].role = Role::leaving;
  }
  return true;
}

void ScenePile::come(const SceneChange& change, std::uint64_t seed) {
  scenes_.push_back(make(base_.scenes.get(change.scene), change.handed, seed, Role::coming, scenes_));
  lay();
  top().enter();
}

void ScenePile::end_transition() {
  remove_leaving();
  for (Piled& piled : scenes_) piled.role = Role::there;
  passing_.reset();
  lay();
}

void ScenePile::remove_leaving() {
  std::erase_if(scenes_, [this](Piled& piled) {
    if (piled.role != Role::leaving) return false;
    outbox_.add(piled.running->stage().take_outbox());
    return true;
  });
}

// Scenes that leave count among themselves, as the others do.
bool ScenePile::goes_on(std::size_t index) const {
  if (scenes_[index].seen || (passing_ && !passing_->transition.goes_on)) return false;
  const bool leaves = scenes_[index].role == Role::leaving;
  for (std::size_t i = index + 1; i < scenes_.size(); ++i)
    if (!scenes_[i].seen && (scenes_[i].role == Role::leaving) == leaves &&
        !scenes_[i].running->world().cover.below_goes_on)
      return false;
  return true;
}

// Whether all that lie over it let an action or axis through.
bool ScenePile::lets_through(std::size_t index, std::string_view name) const {
  if (passing_) return false;
  for (std::size_t i = index + 1; i < scenes_.size(); ++i) {
    const std::vector<std::string>& through = scenes_[i].running->world().cover.lets_through;
    if (!is_left(i) && std::find(through.begin(), through.end(), name) == through.end()) return false;
  }
  return true;
}

const TickInput& ScenePile::heard(std::size_t index, const TickInput& input) {
  if (index == top_index() && !passing_) return input;
  heard_ = input;
  const Controls& controls = *input.controls();
  const std::vector<TickInput::Player>& before = scenes_[index].running->world().input.players;
  for (std::size_t p = 0; p < heard_.players.size(); ++p) {
    TickInput::Player& player = heard_.players[p];
    for (std::size_t i = 0; i < player.actions.size(); ++i) {
      if (lets_through(index, controls.actions[i].name)) continue;
      // What was held is let go.
      const bool was_held = p < before.size() && i < before[p].actions.size() && before[p].actions[i].held;
      player.actions[i] = {false, 0, static_cast<std::uint8_t>(was_held ? 1 : 0)};
    }
    for (std::size_t i = 0; i < player.axes.size(); ++i)
      if (!lets_through(index, controls.axes_of(p)[i].name)) player.axes[i] = {};
  }
  heard_.seen_pointer.inside = false;
  heard_.seen_pointer.wheel = {0, 0};
  heard_.asked_control.clear();
  return heard_;
}

namespace {

void expect_let_through(const Cover& cover, const TickInput& input) {
  for (const std::string& name : cover.lets_through) {
    if (input.has_action(name) || input.has_axis(name)) continue;
    std::vector<std::string> known;
    for (const auto& action : input.controls()->actions) known.push_back(action.name);
    for (const auto& axis : input.controls()->axes) known.push_back(axis.name);
    throw Error(FilePosition{},
                fmt::format("no action or axis \"{}\", which is let through to the scene below", name),
                did_you_mean(name, known));
  }
}

}  // namespace

void ScenePile::tick(const TickInput& input) {
  std::vector<Problem> problems;
  for (std::size_t i = 0; i < scenes_.size(); ++i) {
    if (scenes_[i].seen) continue;
    RunningScene& scene = *scenes_[i].running;
    std::vector<Problem> its;
    try {
      expect_let_through(scene.world().cover, input);
      if (goes_on(i))
        scene.tick(heard(i, input));
      else
        scene.take_files();
    } catch (const std::exception&) {
      note_thrown(its, i == top_index() ? std::string()
                                        : fmt::format("in the scene \"{}\" below", scene.type().name));
    }
    problems.insert(problems.end(), its.begin(), its.end());
  }
  if (passing_ && ++passing_->ticks >= length()) end_transition();
  if (!problems.empty()) throw Error(std::move(problems));
}

std::int64_t ScenePile::length() const {
  const float seconds = brought_within(passing_->transition.seconds, 0, Transition::longest);
  return std::max<std::int64_t>(
      static_cast<std::int64_t>(seconds * static_cast<float>(base_.ticks_per_second) + 0.5f), 1);
}

float ScenePile::transition_share(float share) const {
  if (!passing_) return 1;
  const float passed = static_cast<float>(passing_->ticks) - 1 + share;
  return eased(passing_->transition.ease, brought_within(passed / static_cast<float>(length()), 0, 1));
}

bool ScenePile::is_drawn(std::size_t index, Side side) const {
  return scenes_[index].role != (side == Side::before ? Role::coming : Role::leaving);
}

std::size_t ScenePile::lowest_drawn(Side side) const {
  std::size_t lowest = 0;
  for (std::size_t i = scenes_.size(); i-- > 0;) {
    if (!is_drawn(i, side)) continue;
    lowest = i;
    if (scenes_[i].running->world().cover.hides_below) break;
  }
  return lowest;
}

Colour ScenePile::sky(Side side) const {
  return scenes_[lowest_drawn(side)].running->sky();
}

void ScenePile::draw(DrawList& list, float share, XrayParts xray, Side side) {
  const std::size_t lowest = lowest_drawn(side);
  for (std::size_t i = lowest; i < scenes_.size(); ++i) {
    if (!is_drawn(i, side)) continue;
    RunningScene& scene = *scenes_[i].running;
    const Cover& cover = scene.world().cover;
    if (i > lowest && (cover.darkens > 0 || cover.blurs > 0)) {
      const LayerId above = list.add_layer({0, 0});
      if (cover.blurs > 0) list.blur(above, {{0, 0}, list.canvas()}, std::min(cover.blurs, Cover::most_blur));
      if (cover.darkens > 0)
        list.fill(above, {{0, 0}, Vec2(list.canvas())},
                  {0, 0, 0, static_cast<std::uint8_t>(brought_within(cover.darkens, 0, 1) * 255 + 0.5f)});
    }
    // What stands still is drawn as it was at the end of its last tick.
    scene.draw(list, goes_on(i) ? share : 1, i == top_index() ? xray : xray.without(XrayPart::legend),
               i == lowest ? RunningScene::Before::sky : RunningScene::Before::others);
  }
}

Outbox ScenePile::take_outbox() {
  for (Piled& piled : scenes_) outbox_.add(piled.running->stage().take_outbox());
  return std::exchange(outbox_, {});
}

void ScenePile::use(const std::shared_ptr<const Controls>& controls) {
  base_.controls = controls;
  for (StageSetting& setting : settings_) setting.controls = controls;
}

}  // namespace vole
