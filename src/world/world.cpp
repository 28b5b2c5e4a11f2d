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
}

void World::read(StateReader& in) {
  read_state(in, *this);
  entities.read(in);
}

std::string World::to_toml(std::string_view within) const {
  return fmt::format("[{}world]\n{}\n{}", within, vole::to_toml(*this), entities.to_toml(within));
}

void World::from_toml(const TomlValue& toml, Report& report) {
  const TomlValue* const own = toml.find("world");
  const TomlValue* const things = toml.find("entities");
  if (!own || !things)
    return report.error(toml.where, fmt::format("\"{}\" is missing here", own ? "entities" : "world"));
  vole::read(*own, *this, report, TableOf::state);
  entities.from_toml(*things, report);
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
  sequences.make_fit();
  find_layers();
  for (const ComponentTypes::Type& type : binding.types.all()) type.bind_all(*this, binding, report);
  for (Tween& tween : tweens) tween.bound = bind_field(binding.types, tween.component, tween.field);
  std::erase_if(tweens, [](const Tween& tween) { return tween.bound.type == nullptr; });
  report.throw_if_errors();
}

}  // namespace vole
