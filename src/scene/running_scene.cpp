#include "vole/scene/running_scene.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "cue_call.hpp"
#include "cue_names.hpp"
#include "handed_state.hpp"
#include "tick.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"
#include "vole/world/compiled_kinds.hpp"

namespace vole {

RunningScene::RunningScene(const StageSetting& setting, const TickSteps& steps, const SceneType& type,
                           SceneArgument argument, std::uint64_t seed)
    : setting_(setting),
      steps_(steps),
      type_(type),
      argument_(std::move(argument)),
      world_(setting.binding().types),
      stage_(setting, world_, argument_),
      scene_(type.make()),
      cues_(setting.kinds.written(), setting.values),
      shown_(setting.values),
      memory_(std::make_unique<TickMemory>()) {
  world_.random = Random(seed);
  world_.camera.canvas = setting.canvas;
  world_.input.use(setting.controls, setting.ticks_per_second);
  stage_.type_ = &type;
}

RunningScene::~RunningScene() = default;

void RunningScene::enter() {
  scene_->enter(stage_);
  say_cues();
  world_.entities.sweep();
}

void RunningScene::say_cues() {
  stage_.cues_ = nullptr;
  cues_ = Cues(setting_.kinds.written(), setting_.values);
  scene_->cues(cues_);
  shown_ = Shown(setting_.values);
  scene_->shows(shown_);
  watch_values();
  stage_.cues_ = &cues_;
  // What enter() set going is asked for now that it can be known.
  for (const Timer& timer : world_.timers.all()) cues_.expect_name(timer.name);
  for (const Told& told : world_.told) cues_.expect_name(told.name);
  for (std::size_t i = 0; i < world_.sequences.size(); ++i)
    for (const Sequence& sequence : world_.sequences.at(i).own)
      for (const Located<SequenceStep>& step : sequence.steps)
        if (step.value.does == StepDoes::tell) cues_.expect_name(step.value.told.value);
  for (const Tween& tween : world_.tweens)
    if (!tween.told.empty()) cues_.expect_name(tween.told);
  expect_closing_scenes(cues_, setting_.scenes);
  expect_arrival_levels(cues_, setting_.binding().catalog);
  expect_cue_names(cues_, setting_.kinds.written(), world_.level, setting_.binding().catalog);
}

// Those that were watched before go on from what was told last.
void RunningScene::watch_values() {
  shown_.watch();
  watched_.clear();
  for (const auto* list : {&cues_.watched(), &shown_.watched()})
    for (const std::unique_ptr<Watched>& each : *list) watched_.push_back(each.get());
  const std::size_t known = std::min(world_.watched.size(), watched_.size());
  world_.watched.resize(watched_.size());
  for (std::size_t i = 0; i < watched_.size(); ++i)
    if (i >= known || !watched_[i]->go_on(world_.watched[i])) watched_[i]->begin(stage_, world_.watched[i]);
}

Tick RunningScene::make_tick() {
  return {setting_, world_, stage_, *scene_, type_, cues_, *memory_, steps_.movers(), watched_};
}

void RunningScene::take_files() {
  Tick tick = make_tick();
  take_changed_files(tick);
  if (!tick.problems.empty()) throw Error(std::move(tick.problems));
}

void RunningScene::lie(bool covered, bool covers, int in_pile) {
  stage_.covered_ = covered;
  stage_.covers_ = covers;
  stage_.in_pile_ = in_pile;
}

bool RunningScene::hear_closed(const SceneType& closed, const SceneArgument& result) {
  bool heard = !result.type();
  // By place: a cue may do anything.
  for (std::size_t i = 0; i < cues_.closings().size(); ++i) {
    const Cues::Closed& cue = cues_.closings()[i];
    if (cue.mark ? cue.mark != closed.mark : cue.scene != closed.name) continue;
    if (cue.handed && cue.handed != result.type()) continue;
    heard = heard || cue.handed;
    cue.handler(stage_, result.data());
  }
  return heard;
}

bool RunningScene::hear_answer(const SaveAnswer& answer) {
  if (cues_.saved().empty()) return false;
  // A scene that stands still hears them later; the first go where there are too many.
  if (world_.answers.size() == World::most_answers) world_.answers.erase(world_.answers.begin());
  world_.answers.push_back(answer);
  return true;
}

void RunningScene::go_to_level(const LevelGoing& going) {
  stage_.arrive(going);
  for (std::size_t i = 0; i < cues_.arrivals().size(); ++i)
    if (cues_.arrivals()[i].level == going.level) cues_.arrivals()[i].handler(stage_);
  world_.entities.sweep();
}

void RunningScene::run(const TickStep& step, Tick& tick) {
  // The game's own are of things that have no time of their own.
  if (step.of_things && !step.run && tick.step >= world_.time.steps) return;
  try {
    if (step.run)
      step.run(tick);
    else
      step.run_own(stage_);
  } catch (const std::exception&) {
    note_thrown(tick.problems, "");
  }
  if (!step.run) tick.bodies_known = false;
}

void RunningScene::tick(const TickInput& input) {
  world_.input.take(input);
  Tick tick = make_tick();
  const std::vector<TickStep>& steps = steps_.all();
  const auto is_of_things = [](const TickStep& step) { return step.of_things; };
  const auto first = std::find_if(steps.begin(), steps.end(), is_of_things);
  const auto end = std::find_if_not(first, steps.end(), is_of_things);
  std::for_each(steps.begin(), first, [&](const TickStep& step) { run(step, tick); });
  try {
    settle_steps(tick);
  } catch (const std::exception&) {
    note_thrown(tick.problems, "");
  }
  while (tick.step < tick.most_steps) {
    if (tick.step > 0) begin_next_step(tick);
    std::for_each(first, end, [&](const TickStep& step) { run(step, tick); });
    ++tick.step;
  }
  end_steps(tick);
  std::for_each(end, steps.end(), [&](const TickStep& step) { run(step, tick); });
  if (tick.frozen) --world_.frozen_ticks;
  ++world_.ticks;
  if (!tick.problems.empty()) throw Error(std::move(tick.problems));
}

namespace {

// What is handed on is of a type that the scene says: the one that comes, or this one where it closes.
const DescribedType* handed_by(const SceneChange& change, const SceneTypes& scenes, const SceneType& own) {
  if (change.how == SceneChange::How::closes) return own.result;
  if (change.how == SceneChange::How::goes) return nullptr;
  return scenes.get(change.scene).argument;
}

}  // namespace

void RunningScene::write(StateWriter& out) const {
  write_handed(out, argument_);
  write_state(out, stage_.change_.has_value());
  if (stage_.change_) {
    write_state(out, *stage_.change_);
    write_handed(out, stage_.change_->handed);
  }
  world_.write(out);
  type_.described->write_state(out, type_.members(*scene_));
}

void RunningScene::read(StateReader& in) {
  argument_ = read_handed(in, type_.argument);
  bool asks = false;
  read_state(in, asks);
  stage_.change_.reset();
  if (asks) {
    SceneChange change;
    read_state(in, change);
    change.handed = read_handed(in, handed_by(change, setting_.scenes, type_));
    stage_.change_ = std::move(change);
  }
  world_.read(in);
  type_.described->read_state(in, type_.members(*scene_));
}

std::string RunningScene::to_toml(std::string_view within) const {
  std::string text = handed_to_toml("argument", argument_);
  if (stage_.change_) {
    text += fmt::format("asks = {}\n", described_type<SceneChange>().to_inline_toml(&*stage_.change_));
    text += handed_to_toml("asks_with", stage_.change_->handed);
  }
  text += fmt::format("\n[{}scene_state]\n{}\n", within, type_.described->to_toml(type_.members(*scene_)));
  text += world_.to_toml(within);
  return text;
}

void RunningScene::from_toml(const TomlValue& toml, Report& report) {
  argument_ = read_handed(toml.find("argument"), type_.argument, report);
  stage_.change_.reset();
  if (const TomlValue* const asks = toml.find("asks")) {
    SceneChange change;
    vole::read(*asks, change, report, TableOf::state);
    const DescribedType* const type = handed_by(change, setting_.scenes, type_);
    change.handed = read_handed(toml.find("asks_with"), type, report);
    stage_.change_ = std::move(change);
  }
  if (const TomlValue* const own = toml.find("scene_state"))
    type_.described->read(*own, type_.members(*scene_), {}, report, TableOf::state);
  else
    report.error(toml.where, "\"scene_state\" is missing here");
  world_.from_toml(toml, report);
}

void RunningScene::bind() {
  world_.input.use(setting_.controls, setting_.ticks_per_second);
  world_.bind(setting_.binding());
  say_cues();
}

}  // namespace vole
