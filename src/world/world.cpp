#include "vole/world/world.hpp"

#include <fmt/core.h>

#include <utility>

#include "vole/base/names.hpp"
#include "vole/base/positions.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"
#include "vole/level/level.hpp"
#include "vole/world/binding.hpp"
#include "vole/world/sprite.hpp"

namespace vole {

void World::write(StateWriter& out) const {
  write_state(out, *this);
  entities.write(out);
  out.add_count(left.size());
  for (const std::unique_ptr<LeftLevel>& each : left) {
    write_state(out, *each);
    each->things.write(out);
  }
}

void World::read(StateReader& in) {
  read_state(in, *this);
  entities.read(in);
  left.clear();
  for (std::size_t count = in.take_count(); count > 0; --count) {
    LeftLevel& each = *left.emplace_back(std::make_unique<LeftLevel>(entities.types()));
    read_state(in, each);
    each.things.read(in);
  }
}

std::string World::to_toml(std::string_view within) const {
  // Texts may be long: they are added, and not formatted anew.
  std::string text = fmt::format("[{}world]\n{}\n", within, vole::to_toml(*this));
  text += entities.to_toml(within);
  for (const std::unique_ptr<LeftLevel>& each : left) {
    text += fmt::format("\n[[{}left]]\n{}\n", within, vole::to_toml(*each));
    text += each->things.to_toml(fmt::format("{}left.", within));
  }
  return text;
}

void World::from_toml(const TomlValue& toml, Report& report) {
  const TomlValue* const own = toml.find("world");
  const TomlValue* const things = toml.find("entities");
  if (!own || !things)
    return report.error(toml.where, fmt::format("\"{}\" is missing here", own ? "entities" : "world"));
  vole::read(*own, *this, report, TableOf::state);
  entities.from_toml(*things, report);
  left.clear();
  const TomlValue* const levels = toml.find("left");
  if (!levels) return;
  for (const TomlValue& item : levels->items) {
    const TomlValue* const its = item.find("entities");
    if (!its) return report.error(item.where, "\"entities\" is missing here");
    LeftLevel& each = *left.emplace_back(std::make_unique<LeftLevel>(entities.types()));
    TomlValue rest = item;
    std::erase_if(rest.entries, [](const TomlValue::Entry& entry) { return entry.key == "entities"; });
    vole::read(rest, each, report, TableOf::state);
    each.things.from_toml(*its, report);
  }
}

void World::move_origin(IVec2 cells, const ComponentTypes& types) {
  level.move_origin(cells);
  const OriginMove by{-cells, Vec2(-cells * level.tile_size())};
  const auto stays = [this](Entity entity) {
    const Sprite* const sprite = std::as_const(entities).find<Sprite>(entity);
    return sprite && level.file().layers.at(sprite->links.layer).parallax != Vec2{1, 1};
  };
  for (const ComponentTypes::Type& type : types.all()) type.move_positions(entities, by, stays);
  move_positions(*this, by);
  for (Tween& tween : tweens) {
    if (!tween.bound.is_position || stays(tween.entity)) continue;
    const Vec2 way = tween.bound.in_cells ? Vec2(by.cells) : by.pixels;
    tween.from += Vec4(way.x, way.y, 0, 0);
    for (TweenLeg& leg : tween.legs) leg.value += Vec4(way.x, way.y, 0, 0);
  }
}

void World::find_layer(Sprite& sprite) const {
  sprite.links.has_layer = true;
  sprite.links.layer = 0;
  if (!level) return;
  const std::vector<LevelLayer>& layers = level.file().layers;
  sprite.links.layer = std::min(index_named(layers, sprite.layer_name.value), layers.size() - 1);
}

void World::find_layers() {
  entities.visit<Sprite>([this](Entity, Sprite& sprite) { find_layer(sprite); });
}

void World::bind(const Binding& binding) {
  Report report;
  report.gather([&] { level.bind(binding); });
  timers.find_due();
  bind_things(binding, report);
  report.throw_if_errors();
}

void World::bind_things(const Binding& binding, Report& report) {
  sequences.make_fit();
  find_layers();
  for (const ComponentTypes::Type& type : binding.types.all()) type.bind_all(*this, binding, report);
  for (Tween& tween : tweens) tween.bound = bind_field(binding.types, tween.component, tween.field);
  std::erase_if(tweens, [](const Tween& tween) { return tween.bound.type == nullptr; });
}

}  // namespace vole
