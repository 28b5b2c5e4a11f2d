#include "vole/scene/running_scene.hpp"

#include <fmt/core.h>

#include "cue_call.hpp"
#include "cue_names.hpp"
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
      cues_(setting.kinds.written()),
      memory_(std::make_unique<TickMemory>()) {
  world_.random = Random(seed);
  world_.camera.canvas = setting.canvas;
  world_.input.use(setting.controls, setting.ticks_per_second);
}

RunningScene::~RunningScene() = default;

void RunningScene::enter() {
  scene_->enter(stage_);
  say_cues();
  world_.entities.sweep();
}

void RunningScene::say_cues() {
  stage_.cues_ = nullptr;
  cues_ = Cues(setting_.kinds.written());
  scene_->cues(cues_);
  stage_.cues_ = &cues_;
  // What enter() set going is asked for now that it can be known.
  for (const Timer& timer : world_.timers) cues_.expect_name(timer.name);
  for (const Told& told : world_.told) cues_.expect_name(told.name);
  for (const Tween& tween : world_.tweens)
    if (!tween.told.empty()) cues_.expect_name(tween.told);
  expect_cue_names(cues_, setting_.kinds.written(), world_.level, setting_.binding().catalog);
}

void RunningScene::tick(const TickInput& input) {
  world_.input.take(input);
  Tick tick{setting_, world_, stage_, *scene_, type_, cues_, *memory_, steps_.movers()};
  bool frozen = false;
  for (const TickStep& step : steps_.all()) {
    if (step.of_things && frozen) continue;
    try {
      if (step.run)
        step.run(tick);
      else
        step.run_own(stage_);
    } catch (const std::exception&) {
      note_thrown(tick.problems, "");
    }
    if (!step.run) tick.bodies_known = false;
    // Whether things move in this tick is settled once, when the scene has had its say.
    if (step.run == run_scene) frozen = world_.frozen_ticks > 0;
  }
  if (frozen) --world_.frozen_ticks;
  ++world_.ticks;
  if (!tick.problems.empty()) throw Error(std::move(tick.problems));
}

namespace {

// A scene is only ever given what it expects, so its type says what is to be read.
template <class Read>
SceneArgument argument_for(const SceneType& scene, const Read& read) {
  if (!scene.argument) return {};
  SceneArgument argument(*scene.argument);
  read(*scene.argument, argument.data());
  return argument;
}

void write_argument(StateWriter& out, const SceneArgument& argument) {
  write_state(out, argument.type() != nullptr);
  if (argument.type()) argument.type()->write_state(out, argument.data());
}

SceneArgument read_argument(StateReader& in, const SceneType& scene) {
  bool is_there = false;
  read_state(in, is_there);
  if (!is_there) return {};
  return argument_for(scene, [&in](const DescribedType& type, void* data) { type.read_state(in, data); });
}

SceneArgument read_argument(const TomlValue* toml, const SceneType& scene, Report& report) {
  if (!toml) return {};
  return argument_for(scene, [&](const DescribedType& type, void* data) {
    type.read(*toml, data, {}, report, TableOf::state);
  });
}

}  // namespace

void RunningScene::write(StateWriter& out) const {
  write_argument(out, argument_);
  write_state(out, stage_.change_.has_value());
  if (stage_.change_) {
    write_state(out, stage_.change_->scene);
    write_argument(out, stage_.change_->argument);
  }
  world_.write(out);
  type_.described->write_state(out, type_.members(*scene_));
}

void RunningScene::read(StateReader& in) {
  argument_ = read_argument(in, type_);
  bool leaves = false;
  read_state(in, leaves);
  stage_.change_.reset();
  if (leaves) {
    std::string scene;
    read_state(in, scene);
    SceneArgument argument = read_argument(in, setting_.scenes.get(scene));
    stage_.change_ = SceneChange{std::move(scene), std::move(argument)};
  }
  world_.read(in);
  type_.described->read_state(in, type_.members(*scene_));
}

namespace {

void add_argument(std::string& text, std::string_view key, const SceneArgument& argument) {
  if (argument.type())
    text += fmt::format("{} = {}\n", key, argument.type()->to_inline_toml(argument.data()));
}

}  // namespace

std::string RunningScene::to_toml() const {
  std::string text;
  add_argument(text, "argument", argument_);
  if (stage_.change_) {
    text += "leaves_for = ";
    text += in_quotes(stage_.change_->scene);
    text += '\n';
    add_argument(text, "leaves_with", stage_.change_->argument);
  }
  return fmt::format("{}\n[scene_state]\n{}\n{}", text, type_.described->to_toml(type_.members(*scene_)),
                     world_.to_toml());
}

void RunningScene::from_toml(const TomlValue& toml, Report& report) {
  argument_ = read_argument(toml.find("argument"), type_, report);
  stage_.change_.reset();
  if (const TomlValue* const scene = toml.find("leaves_for")) {
    const SceneType& next = setting_.scenes.get(scene->text, scene->where);
    stage_.change_ = SceneChange{next.name, read_argument(toml.find("leaves_with"), next, report)};
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
