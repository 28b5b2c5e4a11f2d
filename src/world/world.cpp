#include "vole/world/world.hpp"

#include <fmt/format.h>

namespace vole {

void World::write(StateWriter& out) const {
  write_state(out, *this);
  entities.write(out);
}

void World::read(StateReader& in) {
  read_state(in, *this);
  entities.read(in);
}

std::string World::to_toml() const {
  return "[world]\n" + vole::to_toml(*this) + "\n" + entities.to_toml();
}

void World::from_node(const Node& node, Report& report) {
  const Node* const own = node.find("world");
  const Node* const things = node.find("entities");
  if (!own || !things)
    return report.error(node.where, fmt::format("\"{}\" is missing here", own ? "entities" : "world"));
  vole::read(*own, *this, report, TableOf::state);
  entities.from_node(*things, report);
}

void World::bind(const Binding& binding) {
  Report report;
  const auto gather = [&report](const auto& work) {
    try {
      work();
    } catch (const Error& error) {
      report.add(error);
    }
  };
  gather([&] { level.bind(binding); });
  entities.visit<Sprite>([&](Entity, Sprite& sprite) {
    gather([&] {
      bind_sprite(sprite, binding);
      sprite.links.layer = layer_of(sprite, level);
    });
  });
  for (Tween& tween : tweens) tween.bound = bind_field(binding.types, tween.component, tween.field);
  std::erase_if(tweens, [](const Tween& tween) { return tween.bound.type == nullptr; });
  report.throw_if_errors();
}

}  // namespace vole
