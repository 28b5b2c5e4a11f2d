#include "vole/app/simulation.hpp"

#include <fmt/core.h>

#include <stdexcept>
#include <utility>

#include "scene/handed_state.hpp"
#include "state_format.hpp"
#include "vole/base/output_files.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"
#include "vole/world/live_numbers.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

SceneChange first_change(const SceneType& type, SceneArgument handed) {
  SceneChange change;
  change.scene = type.name;
  change.handed = std::move(handed);
  return change;
}

}  // namespace

Simulation::Simulation(const Game& game, const SimulationSetting& setting, std::uint64_t seed)
    : game_(game),
      binding_{setting.catalog, game.types(), game.tracks()},
      kinds_(setting.kinds, binding_),
      values_(game.values()),
      stage_setting_{kinds_,
                     game.scenes(),
                     setting.controls,
                     setting.canvas,
                     setting.ticks_per_second,
                     make_scene_caches(),
                     &game.transitions(),
                     &values_,
                     &saves_},
      pile_(stage_setting_, game.steps()),
      chance_(seed),
      history_(seed) {
  // As they are made they are nothing to keep.
  for (std::size_t i = 0; i < game.values().all().size(); ++i) {
    StateWriter out;
    game.values().all()[i].type->write_state(out, values_.at(i));
    kept_.push_back(out.take());
  }
}

void Simulation::ask_for(std::string_view scene, const FilePosition& asked) {
  const SceneType& type = game_.scenes().get(scene, asked);
  first_ = first_change(type, type.given);
}

void Simulation::ask_for(std::string_view scene, SceneArgument argument, const FilePosition& asked) {
  ask_for(scene, asked);
  first_->handed = game_.scenes().argument_for(game_.scenes().get(scene), std::move(argument));
}

const SceneChange* Simulation::change() const {
  return first_ ? &*first_ : pile_.change();
}

void Simulation::make_change() {
  const SceneChange* const due = change();
  if (!due) return;
  // Before chance is drawn from for the next scene: see checksum().
  const std::uint64_t ended = checksum();
  const Snapshot before = snapshot();
  const SceneChange asked = *due;
  const std::size_t asking = first_ ? 0 : pile_.asking();
  try {
    const std::uint64_t seed =
        asking == 0 && asked.how == SceneChange::How::leaves ? chance_.next_wide() : passing_seed();
    if (first_)
      pile_.begin(game_.scenes().get(asked.scene), asked.handed, seed);
    else
      pile_.make_change(seed);
  } catch (const std::exception&) {
    undo_change(before);
    failed_ = asked;
    failed_for_ = asking;
    throw;
  }
  failed_.reset();
  first_.reset();
  history_ = ended;
  changed_at_ = ticks_;
}

// For a scene over others: whether it is opened changes nothing for those that come after it.
std::uint64_t Simulation::passing_seed() const {
  Hash hash;
  hash.add(chance_.state());
  hash.add(ticks_);
  return hash.value();
}

void Simulation::undo_change(const Snapshot& before) {
  try {
    restore(before);
  } catch (const Error&) {
    // A file has changed meanwhile, and what was there cannot be had again: what is there now goes on.
  }
  pile_.forget_changes();
}

bool Simulation::ask_again() {
  if (!failed_) return false;
  if (!first_ && !change()) pile_.at(failed_for_).ask(std::move(failed_));
  failed_.reset();
  return true;
}

void Simulation::tick(const TickInput& input) {
  if (pile_.empty()) throw std::logic_error("Simulation::tick: no scene has begun");
  ++ticks_;
  pile_.tick(input);
}

std::uint64_t Simulation::checksum() const {
  // Scenes that have changed and have seen no tick since add nothing to how they were before.
  if (ticks_ == changed_at_) return history_;
  StateWriter out;
  values_.write(out);
  write_state(out, saves_);
  pile_.write(out);
  Hash hash;
  hash.add(history_);
  hash.add(ticks_);
  hash.add(chance_.state());
  hash.add_bytes(out.take());
  return hash.value();
}

// What is known of a state before its scenes: the same for bytes and for TOML.
struct Simulation::StateHead {
  std::int64_t ticks = 0;
  std::int64_t changed_at = 0;
  Random chance;
  std::uint64_t history = 0;
  Located<std::string> first;  // that is to be entered; empty: it was
};
template <class V>
void describe(V& v, Simulation::StateHead& head) {
  v.state("ticks", head.ticks, within(0, most_ticks));
  v.state("changed_at", head.changed_at, within(0, most_ticks));
  v.state("chance", head.chance);
  v.state("history", head.history);
  v.state("first", head.first);
}

Simulation::StateHead Simulation::head() const {
  StateHead head{ticks_, changed_at_, chance_, history_, {}};
  if (first_) head.first.value = first_->scene;
  return head;
}

Snapshot Simulation::snapshot() const {
  StateWriter out;
  write_state(out, head());
  if (first_) write_handed(out, first_->handed);
  values_.write(out);
  write_state(out, saves_);
  pile_.write(out);
  return {out.take()};
}

void Simulation::restore(const Snapshot& snapshot) {
  StateReader in(snapshot.bytes);
  StateHead head;
  read_state(in, head);
  take(
      head, [&in](const SceneType& first) { return read_handed(in, first.argument); },
      [&in](Values& values, KnownSaves& saves) {
        values.read(in);
        read_state(in, saves);
      },
      [&] {
        auto scenes = pile_.read(in);
        if (!in.at_end()) StateReader::broken();
        return scenes;
      });
}

namespace {

// The keys of a written state besides its head; ScenePile reads the others.
struct StateKeys {
  int format = 0;
  std::optional<TomlValue> first_with;
  TomlValue values, saves, transition, scenes;
};
template <class V>
void describe(V& v, StateKeys& keys) {
  v("format", keys.format);
  v("first_with", keys.first_with);
  v("values", keys.values);
  v("saves", keys.saves);
  v("transition", keys.transition);
  v("scenes", keys.scenes);
}

}  // namespace

std::string Simulation::to_toml() const {
  return fmt::format(
      "{}format = {}\n{}{}{}{}{}{}", output_mark(OutputKind::state), state_format, vole::to_toml(head()),
      first_ ? handed_to_toml("first_with", first_->handed) : std::string(), pile_.transition_toml(),
      values_.to_toml(), saves_.slots().empty() ? std::string() : "\n[saves]\n" + vole::to_toml(saves_),
      pile_.to_toml());
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
  take(
      head,
      [&](const SceneType& first) {
        return read_handed(keys.first_with ? &*keys.first_with : nullptr, first.argument, report);
      },
      [&](Values& values, KnownSaves& saves) {
        values.from_toml(keys.values, report);
        read(keys.saves, saves, report, TableOf::state);
        report.throw_if_errors();
      },
      [&] {
        auto scenes = pile_.from_toml(toml, report);
        report.throw_if_errors();
        return scenes;
      });
}

void Simulation::take(const StateHead& head,
                      const std::function<SceneArgument(const SceneType& first)>& read_first,
                      const std::function<void(Values& values, KnownSaves& saves)>& read_values,
                      const std::function<std::shared_ptr<ScenePile::Scenes>()>& read) {
  std::optional<SceneChange> first;
  if (!head.first.value.empty()) {
    const SceneType& type = game_.scenes().get(head.first.value, head.first.where);
    first = first_change(type, read_first(type));
  }
  Values values(game_.values());
  KnownSaves saves;
  read_values(values, saves);
  const std::shared_ptr<ScenePile::Scenes> scenes = read();
  ScenePile::bind(*scenes);
  put(values);
  saves_ = std::move(saves);
  ticks_ = head.ticks;
  changed_at_ = head.changed_at;
  chance_ = head.chance;
  history_ = head.history;
  first_ = std::move(first);
  pile_.put(*scenes);
}

void Simulation::use(std::shared_ptr<const Controls> controls) {
  pile_.use(controls);
  stage_setting_.controls = std::move(controls);
}

void Simulation::recompile_kinds(Report& report) {
  for (const CompiledKinds::Recompiled& kind : kinds_.recompile(report))
    for (std::size_t i = 0; i < pile_.size(); ++i)
      change_numbers(pile_.at(i).world(), *kind.before, *kind.now);
}

}  // namespace vole
