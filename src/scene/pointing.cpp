// What the pointer is on.
#include <tuple>

#include "vole/level/level.hpp"
#include "vole/scene/stage.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

// What is drawn later compares as more.
using Height = std::tuple<std::size_t, float, std::uint32_t>;

Height height_of(const World& world, Entity entity) {
  const Sprite* const sprite = world.entities.find<Sprite>(entity);
  if (!sprite) return {0, 0.0f, entity.index};
  const std::size_t layer = sprite->links.layer;
  float depth = sprite->depth;
  if (world.level && layer < world.level.file().layers.size() &&
      world.level.file().layers[layer].order == LayerOrder::feet)
    depth += world.entities.get<Pose>(entity).at.y;
  return {layer, depth, entity.index};
}

}  // namespace

Vec2 Stage::pointer() const {
  // The middle of its pixel.
  return camera().to_level(Vec2(input().pointer().at) + Vec2(0.5f));
}

Entity Stage::under_pointer() const {
  Entity top;
  if (!input().pointer().inside) return top;
  std::vector<BodyOrCell> found;
  bodies().find(pointer(), {.tiles = false}, found);
  for (const BodyOrCell& one : found) {
    const Entity entity = thing(one.body);
    if (!entity || removed(entity)) continue;
    if (!top || height_of(world_, entity) >= height_of(world_, top)) top = entity;
  }
  return top;
}

}  // namespace vole
