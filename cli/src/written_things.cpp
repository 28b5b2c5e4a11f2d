#include "written_things.hpp"

#include "vole/app/project.hpp"
#include "vole/scene/body_shapes.hpp"
#include "vole/world/body.hpp"

namespace {

vole::Categories categories_of(const std::string& root) {
  const std::string project = vole::join_path(root, "game.toml");
  return vole::file_exists(project) ? vole::read_project(project).categories : vole::Categories{};
}

}  // namespace

std::optional<vole::Frame> WrittenThing::frame() const {
  const vole::Sprite* const sprite = kind->sprite;
  const int shown = sprite && sprite->sheet() ? sprite->frame(60) : -1;
  if (shown < 0) return std::nullopt;
  return sprite->sheet()->posed(shown, sprite->playhead().clip());
}

WrittenThings::WrittenThings(vole::Catalog& catalog)
    : catalog_(catalog), kinds_(vole::read_kinds(catalog.root(), categories_of(catalog.root()))) {}

WrittenThing WrittenThings::of_kind(const std::string& kind) const {
  return made_of(kind, kinds_.kind(kind));
}

WrittenThing WrittenThings::at_place(const vole::LevelPlace& place) const {
  vole::Node components = kinds_.kind(place.kind, place.where);
  components.merge(place.overrides);
  return made_of(place.kind, components);
}

WrittenThing WrittenThings::made_of(std::string_view kind, const vole::Node& components) const {
  const vole::KindCompiler compiler{kinds_, {catalog_, types_, no_tracks_, vole::UnknownComponents::skip}};
  vole::Report report;
  WrittenThing thing;
  thing.kind = compiler.compile(kind, components, report);
  report.throw_if_errors();
  const vole::Shapes* shapes = nullptr;
  for (const vole::CompiledKind::Part& part : thing.kind->parts) {
    if (part.type == types_.of<vole::Checks>())
      thing.checks = static_cast<const vole::Checks*>(part.component.get());
    if (part.type == types_.of<vole::PathMover>())
      thing.way = static_cast<const vole::PathMover*>(part.component.get());
    if (part.type == types_.of<vole::Shapes>())
      shapes = static_cast<const vole::Shapes*>(part.component.get());
    if (part.type != types_.of<vole::Body>()) continue;
    const auto& body = *static_cast<const vole::Body*>(part.component.get());
    thing.body = vole::CollisionBody{
        .box = body.box({0, 0}), .shapes = nullptr, .use = body.use, .one_way = body.one_way};
  }
  if (!thing.body || !shapes) return thing;
  vole::BodyShapes made;
  made.follow(shapes, catalog_);
  thing.body->shapes = made.list(false);
  made.put_uses(*shapes, nullptr, *thing.body);
  return thing;
}
