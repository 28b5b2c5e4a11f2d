// A pile of scenes as bytes and as TOML.
#include <fmt/core.h>

#include <algorithm>

#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"
#include "vole/scene/scene_pile.hpp"

namespace vole {

// What is known of a scene before its own state.
struct ScenePile::PiledHead {
  Located<std::string> scene;
  Role role = Role::there;
  bool seen = false;
};
template <class V>
void describe(V& v, ScenePile::PiledHead& head) {
  v.state("scene", head.scene);
  v.state("role", head.role);
  v.state("seen", head.seen);
}

namespace {

// What stands beside the head in the table of a scene, which RunningScene reads.
struct PiledKeys {
  TomlValue argument, asks, asks_with, scene_state, world, entities, left;
};
template <class V>
void describe(V& v, PiledKeys& keys) {
  v("argument", keys.argument);
  v("asks", keys.asks);
  v("asks_with", keys.asks_with);
  v("scene_state", keys.scene_state);
  v("world", keys.world);
  v("entities", keys.entities);
  v("left", keys.left);
}

// Twice as many as may lie over one another: while a transition lasts all of them may leave.
constexpr std::size_t most_saved = 2 * StageScenes::most_in_pile;

}  // namespace

struct ScenePile::Scenes {
  std::vector<Piled> all;
  std::optional<PassingTransition> passing;

  // Whether a pile can be so.
  bool whole() const {
    const auto is_there = [](const Piled& piled) { return !piled.seen && piled.role != Role::leaving; };
    const auto changes = [](const Piled& piled) { return piled.role != Role::there; };
    if (all.empty()) return !passing;
    return std::any_of(all.begin(), all.end(), is_there) &&
           (passing || std::none_of(all.begin(), all.end(), changes));
  }
};

void ScenePile::write(StateWriter& out) const {
  write_state(out, passing_.has_value());
  if (passing_) write_state(out, *passing_);
  out.add_count(scenes_.size());
  for (const Piled& piled : scenes_) {
    write_state(out, PiledHead{{piled.running->type().name, {}}, piled.role, piled.seen});
    piled.running->write(out);
  }
}

std::shared_ptr<ScenePile::Scenes> ScenePile::read(StateReader& in) {
  auto scenes = std::make_shared<Scenes>();
  bool passes = false;
  read_state(in, passes);
  if (passes) read_state(in, scenes->passing.emplace());
  const std::size_t count = in.take_count();
  if (count > most_saved) StateReader::broken();
  for (std::size_t i = 0; i < count; ++i) {
    PiledHead head;
    read_state(in, head);
    scenes->all.push_back(make(base_.scenes.get(head.scene.value), {}, 0, head.role, scenes->all));
    scenes->all.back().seen = head.seen;
    scenes->all.back().running->read(in);
  }
  if (!scenes->whole()) StateReader::broken();
  return scenes;
}

std::string ScenePile::transition_toml() const {
  if (!passing_) return {};
  return fmt::format("transition = {}\n", described_type<PassingTransition>().to_inline_toml(&*passing_));
}

std::string ScenePile::to_toml() const {
  std::string text;
  for (const Piled& piled : scenes_) {
    const PiledHead head{{piled.running->type().name, {}}, piled.role, piled.seen};
    text += "\n[[scenes]]\n" + vole::to_toml(head);
    text += piled.running->to_toml("scenes.");
  }
  return text;
}

std::shared_ptr<ScenePile::Scenes> ScenePile::from_toml(const TomlValue& toml, Report& report) {
  auto scenes = std::make_shared<Scenes>();
  if (const TomlValue* const passing = toml.find("transition"))
    vole::read(*passing, scenes->passing.emplace(), report, TableOf::state);
  const TomlValue* const written = toml.find("scenes");
  const std::size_t count = written ? written->items.size() : 0;
  if (count > most_saved)
    report.error(written->where, fmt::format("more than {} scenes lie over one another", most_saved));
  for (std::size_t i = 0; i < count && !report.has_errors(); ++i) {
    const TomlValue& one = written->items[i];
    PiledHead head;
    PiledKeys keys;
    Reader reader(one, report, TableOf::state);
    described_type<PiledHead>().read_fields(reader, &head);
    described_type<PiledKeys>().read_fields(reader, &keys);
    reader.finish();
    if (report.has_errors()) break;
    scenes->all.push_back(
        make(base_.scenes.get(head.scene.value, head.scene.where), {}, 0, head.role, scenes->all));
    scenes->all.back().seen = head.seen;
    scenes->all.back().running->from_toml(one, report);
  }
  if (!report.has_errors() && !scenes->whole())
    report.error(toml.where, "no scene is there, or some come and leave without a transition");
  return scenes;
}

void ScenePile::bind(Scenes& scenes) {
  for (Piled& piled : scenes.all) piled.running->bind();
}

void ScenePile::put(Scenes& scenes) noexcept {
  scenes_ = std::move(scenes.all);
  passing_ = std::move(scenes.passing);
  lay();
}

}  // namespace vole
