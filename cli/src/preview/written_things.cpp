#include "written_things.hpp"

#include "vole/app/project.hpp"
#include "vole/scene/bodies/body_shapes.hpp"
#include "vole/world/body.hpp"
#include "vole/world/sprite.hpp"

namespace {

vole::Categories categories_of(const std::string& root) {
  const std::string project = vole::join_path(root, "game.toml");
  return vole::file_exists(project) ? vole::read_project(project).categories : vole::Categories{};
}

}  // namespace

std::optional<vole::Frame> WrittenThing::frame() const {
  const vole::Sprite* const sprite = kind ? kind->sprite : nullptr;
  const int shown = sprite && sprite->sheet() ? sprite->frame(60) : -1;
  if (shown < 0) return std::nullopt;
  return sprite->sheet()->posed(shown, sprite->playhead().clip());
}

WrittenThings::WrittenThings(vole::Catalog& catalog)
    : catalog_(catalog),
      kinds_(vole::read_kinds(catalog.root(), categories_of(catalog.root()))),
      alone_(catalog, kinds_) {}

WrittenThing WrittenThings::of_kind(const std::string& kind) const {
  return made_of(kind, kinds_.kind(kind));
}

WrittenThing WrittenThings::at_place(const vole::LevelPlace& place) const {
  if (place.kind.empty()) return {};
  vole::TomlValue components = kinds_.kind(place.kind, place.where);
  components.merge(place.overrides);
  return made_of(place.kind, components);
}

WrittenThing WrittenThings::made_of(std::string_view kind, const vole::TomlValue& components) const {
  vole::Report report;
  WrittenThing thing;
  thing.kind = alone_.compile(kind, components, report);
  report.throw_if_errors();
  thing.probes = thing.kind->find<vole::Probes>();
  thing.way = thing.kind->find<vole::AlongPath>();
  thing.lamp = thing.kind->find<vole::Lamp>();
  if (const auto* const body = thing.kind->find<vole::Body>())
    thing.body = vole::CollisionBody{
        .box = body->box({0, 0}), .shapes = nullptr, .use = body->use, .one_way = body->one_way};
  const auto* const shapes = thing.kind->find<vole::Shapes>();
  if (!thing.body || !shapes) return thing;
  vole::BodyShapes made;
  made.follow(shapes, catalog_);
  thing.body->shapes = made.list(false);
  made.put_uses(*shapes, nullptr, *thing.body);
  return thing;
}
