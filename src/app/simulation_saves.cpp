// What leaves a simulation to be kept, and what comes back.
#include <fmt/core.h>

#include <algorithm>

#include "state_format.hpp"
#include "vole/app/simulation.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/saves/save_file.hpp"

namespace vole {
namespace {

// What a save holds.
struct SavedKeys {
  TomlValue values, state, scenes;
};
template <class V>
void describe(V& v, SavedKeys& keys) {
  v("values", keys.values);
  v("state", keys.state);
  v("scenes", keys.scenes);
}

// Of its scenes.
struct SavedState {
  int format = 0;
  std::optional<TomlValue> transition;
};
template <class V>
void describe(V& v, SavedState& state) {
  v("format", state.format);
  v("transition", state.transition);
}

SavedKeys keys_in(const ArrivedSave& saved, const SaveVersions& versions) {
  TomlValue holds = parse_toml(saved.holds, saved.name, SaveFile::most_values);
  versions.bring_up(holds, saved.version);
  SavedKeys keys;
  Report report;
  read(holds, keys, report);
  report.throw_if_errors();
  return keys;
}

// As ScenePile reads it.
TomlValue pile_of(const SavedKeys& keys) {
  Report report;
  SavedState state;
  read(keys.state, state, report);
  report.throw_if_errors();
  if (state.format != state_format)
    throw Error(keys.state.where, "it is of a game made with another version of Vole");
  TomlValue pile;
  pile.entries.push_back({"scenes", {}, keys.scenes});
  if (state.transition) pile.entries.push_back({"transition", {}, *state.transition});
  return pile;
}

std::string reason(const Error& error) {
  return error.problems().front().text;
}

void copy_value(const DescribedType& type, const void* from, void* to) {
  StateWriter out;
  type.write_state(out, from);
  const StateBytes bytes = out.take();
  StateReader in(bytes);
  type.read_state(in, to);
}

}  // namespace

Outbox Simulation::take_outbox() {
  Outbox out = pile_.take_outbox();
  const std::vector<ValueTypes::One>& types = game_.values().all();
  for (SaveAsked& asked : out.saves) {
    if (asked.does != SaveAsked::Does::saves) continue;
    for (std::size_t i = 0; i < types.size(); ++i)
      if (types[i].lasts == Lasts::run) asked.holds += values_.to_toml(i);
    if (!asked.as.scenes) continue;
    asked.holds += fmt::format("\n[state]\nformat = {}\n{}", state_format, pile_.transition_toml());
    asked.holds += pile_.to_toml();
  }
  for (std::size_t i = 0; i < types.size(); ++i) {
    if (types[i].lasts != Lasts::between_runs) continue;
    kept_now_.clear();
    types[i].type->write_state(kept_now_, values_.at(i));
    const auto now = kept_now_.written();
    if (std::equal(now.begin(), now.end(), kept_[i].begin(), kept_[i].end())) continue;
    kept_[i].assign(now.begin(), now.end());
    out.kept.push_back({types[i].name, values_.to_toml(i)});
  }
  return out;
}

std::vector<Problem> Simulation::arrive(const Arrived& arrived) {
  std::vector<SaveAnswer> answers = arrived.answers;
  for (const ArrivedSave& value : arrived.values) try {
      arrive(value);
    } catch (const Error& error) {
      answers.push_back(
          {SaveAnswer::Done::kept, value.name,
           fmt::format("What was kept as \"{}\" cannot be used: {}.", value.name, reason(error))});
    }
  if (arrived.lists) saves_.put(arrived.slots);
  if (arrived.saved) {
    SaveAnswer answer{SaveAnswer::Done::loaded, arrived.saved->name};
    try {
      bring_back(*arrived.saved);
    } catch (const Error& error) {
      answer.problem = fmt::format("The save \"{}\" cannot be used: {}.", arrived.saved->name, reason(error));
    }
    answers.push_back(std::move(answer));
  }
  std::vector<Problem> unheard;
  for (const SaveAnswer& answer : answers) {
    bool heard = answer.ok();
    for (std::size_t i = 0; i < pile_.size(); ++i)
      if (!pile_.is_left(i)) heard = pile_.at(i).hear_answer(answer) || heard;
    if (!heard) unheard.push_back({FilePosition{}, Severity::warning, answer.problem, ""});
  }
  return unheard;
}

void Simulation::arrive(const ArrivedSave& value) {
  const std::vector<ValueTypes::One>& types = game_.values().all();
  const std::size_t index = index_named(types, value.name);
  if (index == types.size() || types[index].lasts != Lasts::between_runs)
    throw Error(FilePosition{}, "the game keeps no value of this name");
  const SavedKeys keys = keys_in(value, game_.save_versions());
  Values values(game_.values());
  Report report;
  values.from_toml(keys.values, report);
  report.throw_if_errors();
  StateWriter out;
  types[index].type->write_state(out, values.at(index));
  kept_[index] = out.take();
  // What scenes have changed since it was kept stays: it is kept the next time.
  if (types[index].join && ticks_ > 0)
    types[index].join(values_.at(index), values.at(index));
  else
    copy_value(*types[index].type, values.at(index), values_.at(index));
}

void Simulation::bring_back(const ArrivedSave& saved) {
  if (pile_.empty()) throw Error(FilePosition{}, "no scene has begun yet");
  const SavedKeys keys = keys_in(saved, game_.save_versions());
  const std::vector<ValueTypes::One>& types = game_.values().all();
  Values values(game_.values());
  Report report;
  values.from_toml(keys.values, report);
  report.throw_if_errors();
  for (std::size_t i = 0; i < types.size(); ++i)
    if (types[i].lasts == Lasts::between_runs) copy_value(*types[i].type, values_.at(i), values.at(i));
  if (keys.scenes.items.empty()) return put(values);
  const std::shared_ptr<ScenePile::Scenes> scenes = pile_.from_toml(pile_of(keys), report);
  report.throw_if_errors();
  ScenePile::bind(*scenes);
  put(values);
  pile_.put(*scenes);
  pile_.forget_changes();
}

// Nothing throws any more. Values stay where they are: scenes look at them.
void Simulation::put(const Values& values) {
  const std::vector<ValueTypes::One>& types = game_.values().all();
  for (std::size_t i = 0; i < types.size(); ++i) copy_value(*types[i].type, values.at(i), values_.at(i));
}

}  // namespace vole
