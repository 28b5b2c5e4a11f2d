#include "vole/app/simulation.hpp"

#include <fmt/core.h>

#include <stdexcept>
#include <utility>

#include "vole/base/output_files.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"
#include "vole/world/live_numbers.hpp"
#include "vole/world/world.hpp"

namespace vole {

Simulation::Simulation(const Game& game, const SimulationSetting& setting, std::uint64_t seed)
    : game_(game),
      binding_{setting.catalog, game.types(), game.tracks()},
      kinds_(setting.kinds, binding_),
      stage_setting_{kinds_, game.scenes(), setting.controls, setting.canvas, setting.ticks_per_second},
      chance_(seed),
      history_(seed) {}

void Simulation::ask_for(std::string_view scene, const FilePosition& asked) {
  const SceneType& type = game_.scenes().get(scene, asked);
  first_ = SceneChange{type.name, type.given};
}

const SceneChange* Simulation::change() const {
  if (running_) return running_->change();
  return first_ ? &*first_ : nullptr;
}

std::unique_ptr<RunningScene> Simulation::make(std::string_view scene, SceneArgument argument,
                                               std::uint64_t seed) const {
  return std::make_unique<RunningScene>(stage_setting_, game_.steps(), game_.scenes().get(scene),
                                        std::move(argument), seed);
}

void Simulation::enter() {
  const SceneChange* const due = change();
  if (!due) return;
  // Before chance is drawn from for the next scene: see checksum().
  const std::uint64_t ended = checksum();
  std::unique_ptr<RunningScene> next = make(due->scene, due->argument, chance_.next_wide());
  if (running_) running_->leave();
  history_ = ended;
  first_.reset();
  running_ = std::move(next);
  half_entered_ = true;
  running_->enter();
  half_entered_ = false;
}

void Simulation::enter_again() {
  running_ = make(running_->type().name, running_->argument(), chance_.next_wide());
  half_entered_ = true;
  running_->enter();
  half_entered_ = false;
}

void Simulation::tick(const TickInput& input) {
  if (!running_) throw std::logic_error("Simulation::tick: no scene has begun");
  ++ticks_;
  running_->tick(input);
}

std::uint64_t Simulation::checksum() const {
  // A scene that has seen no tick adds nothing to how the one before it ended.
  if (!running_ || running_->world().ticks == 0) return history_;
  StateWriter out;
  write_state(out, running_->type().name);
  running_->write(out);
  Hash hash;
  hash.add(history_);
  hash.add(ticks_);
  hash.add(chance_.state());
  hash.add_bytes(out.take());
  return hash.value();
}

// What is known of a state before its scene: the same for bytes and for TOML.
struct Simulation::StateHead {
  std::int64_t ticks = 0;
  Random chance;
  std::uint64_t history = 0;
  Located<std::string> scene;  // empty: none was entered
  Located<std::string> first;  // that is to be entered then
};
template <class V>
void describe(V& v, Simulation::StateHead& head) {
  v.state("ticks", head.ticks, within(0, most_ticks));
  v.state("chance", head.chance);
  v.state("history", head.history);
  v.state("scene", head.scene);
  v.state("first", head.first);
}

Simulation::StateHead Simulation::head() const {
  StateHead head{ticks_, chance_, history_, {}, {}};
  if (running_) head.scene.value = running_->type().name;
  if (first_) head.first.value = first_->scene;
  return head;
}

Snapshot Simulation::snapshot() const {
  StateWriter out;
  write_state(out, head());
  if (running_) running_->write(out);
  return {out.take()};
}

void Simulation::restore(const Snapshot& snapshot) {
  StateReader in(snapshot.bytes);
  StateHead head;
  read_state(in, head);
  take(head, [&in](RunningScene& scene) {
    scene.read(in);
    if (!in.at_end()) StateReader::broken();
  });
}

namespace {

constexpr int state_format = 1;

// The keys of a written state besides its head; RunningScene reads those of the scene.
struct StateKeys {
  int format = 0;
  TomlValue argument, leaves_for, leaves_with, scene_state, world, entities;
};
template <class V>
void describe(V& v, StateKeys& keys) {
  v("format", keys.format);
  v("argument", keys.argument);
  v("leaves_for", keys.leaves_for);
  v("leaves_with", keys.leaves_with);
  v("scene_state", keys.scene_state);
  v("world", keys.world);
  v("entities", keys.entities);
}

}  // namespace

std::string Simulation::to_toml() const {
  return fmt::format("{}format = {}\n{}{}", output_mark(OutputKind::state), state_format,
                     vole::to_toml(head()), running_ ? running_->to_toml() : std::string());
}

void Simulation::restore_toml(const TomlValue& toml) {
  Report report;
  StateKeys keys;
  StateHead head;
  Reader reader(toml, report, TableOf::state);
  described_type<StateKeys>().read_fields(reader, &keys);
  described_type<StateHead>().read_fields(reader, &head);
  reader.finish();
  report.throw_if_errors();
  if (keys.format != state_format)
    throw Error(toml.where, "is not a state that this build reads",
                fmt::format("it wants format = {}", state_format));
  take(head, [&toml, &report](RunningScene& scene) {
    scene.from_toml(toml, report);
    report.throw_if_errors();
  });
}

void Simulation::take(const StateHead& head, const std::function<void(RunningScene&)>& read) {
  std::unique_ptr<RunningScene> scene;
  std::optional<SceneChange> first;
  if (!head.scene.value.empty()) {
    game_.scenes().get(head.scene.value, head.scene.where);
    scene = make(head.scene.value, {}, 0);
    read(*scene);
    scene->bind();
  } else if (!head.first.value.empty()) {
    const SceneType& type = game_.scenes().get(head.first.value, head.first.where);
    first = SceneChange{type.name, type.given};
  }
  // Nothing throws any more.
  ticks_ = head.ticks;
  chance_ = head.chance;
  history_ = head.history;
  first_ = std::move(first);
  running_ = std::move(scene);
  half_entered_ = false;
}

void Simulation::draw(DrawList& list, float share, XrayParts xray) {
  running_->draw(list, share, xray);
}

void Simulation::use(std::shared_ptr<const Controls> controls) {
  stage_setting_.controls = std::move(controls);
}

void Simulation::recompile_kinds(Report& report) {
  for (const CompiledKinds::Recompiled& kind : kinds_.recompile(report))
    if (running_) change_numbers(running_->world(), *kind.before, *kind.now);
}

}  // namespace vole
