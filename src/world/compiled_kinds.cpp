#include "vole/world/compiled_kinds.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "vole/base/names.hpp"
#include "vole/input/intent.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/body.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/person.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/side_mover.hpp"

namespace vole {
namespace {

// Things may carry things, but not for ever.
constexpr std::size_t most_carried_in_turn = 8;

template <class Work>
void gather(Report& report, const Work& work) {
  try {
    work();
  } catch (const Error& error) {
    report.add(error);
  }
}

bool has(const CompiledKind& kind, std::string_view component) {
  return std::any_of(kind.parts.begin(), kind.parts.end(),
                     [component](const auto& part) { return part.type->name == component; });
}

// Finds the sheet, and starts the clip or shows the frame that the kind says.
void start_sprite(Sprite& sprite, const Binding& binding, Report& report) {
  gather(report, [&] { bind_sprite(sprite, binding); });
  const Sheet* const sheet = sprite.sheet();
  if (!sheet || sheet->missing) return;
  gather(report, [&] {
    if (!sprite.frame_name.value.empty()) sheet->frame(sprite.frame_name.value, sprite.frame_name.where);
  });
  if (sprite.first_clip.value.empty()) return;
  gather(report, [&] {
    sheet->expect_played(sprite.first_clip.value, sprite.first_clip.where);
    sprite.play(sprite.first_clip.value);
  });
}

// What moves has these besides.
void add_motion(CompiledKind& kind, const ComponentTypes& types) {
  const auto add = [&]<class T>(T component) {
    kind.parts.push_back({types.of<T>(), std::make_shared<T>(component)});
  };
  if (has(kind, "side_mover") || has(kind, "person")) add(Intent{});
  if (has(kind, "side_mover")) {
    add(Motion{});
    add(Touching{});
  }
}

}  // namespace

std::shared_ptr<const CompiledKind> KindCompiler::compile(std::string_view name, const Node& components,
                                                          Report& report,
                                                          std::vector<std::string> carried_by) const {
  const auto kind = std::make_shared<CompiledKind>();
  kind->name = name;
  const Carries* carries = nullptr;
  for (const Node::Entry& entry : components.entries) {
    const ComponentTypes::Type* const type = binding.types.find_in_files(entry.key);
    if (!type) {
      const std::vector<std::string> known = binding.types.names_in_files();
      // A game's own component may be unknown here, but not one that looks like a slip of the pen.
      if (binding.unknown == UnknownComponents::report || !nearest_name(entry.key, known).empty())
        report.error(entry.where, fmt::format("no component \"{}\"", entry.key),
                     did_you_mean(entry.key, known));
      continue;
    }
    const std::shared_ptr<void> component = type->parse(entry.value, report);
    if (type == binding.types.of<Sprite>()) {
      auto* const sprite = static_cast<Sprite*>(component.get());
      kind->sprite = sprite;
      if (!sprite->sheet_name.value.empty()) start_sprite(*sprite, binding, report);
    }
    if (type == binding.types.of<Carries>()) carries = static_cast<const Carries*>(component.get());
    kind->parts.push_back({type, component});
  }
  if (has(*kind, "side_mover") && !has(*kind, "body"))
    report.error(components.where, fmt::format("kind \"{}\" has a side_mover but no body to move", name));
  add_motion(*kind, binding.types);
  if (!carries) return kind;

  carried_by.emplace_back(name);
  for (const auto& item : carries->things) {
    const FilePosition& where = item.value.where;
    if (carried_by.size() > most_carried_in_turn ||
        std::find(carried_by.begin(), carried_by.end(), item.value.value) != carried_by.end()) {
      report.error(where, fmt::format("\"{}\" carries something that carries it", item.value.value),
                   "take one of them out of the ring");
      continue;
    }
    const Sheet* const sheet = kind->sprite ? kind->sprite->sheet() : nullptr;
    if (!kind->sprite)
      report.error(item.where, "a thing without a sprite has no points to attach to");
    else if (sheet && !sheet->missing)
      gather(report, [&] { sheet->point(item.name, item.where); });
    gather(report, [&] {
      kind->carried.push_back(
          {item.name, compile(item.value.value, kinds.kind(item.value.value, where), report, carried_by)});
    });
  }
  return kind;
}

std::shared_ptr<const CompiledKind> CompiledKinds::get(std::string_view kind, const FilePosition& asked) {
  if (const auto found = compiled_.find(kind); found != compiled_.end()) return found->second;
  return compiled_[std::string(kind)] = with(kind, {}, asked);
}

std::shared_ptr<const CompiledKind> CompiledKinds::with(std::string_view kind, const Node& over,
                                                        const FilePosition& asked) const {
  Node components = compiler_.kinds.kind(kind, asked);
  components.merge(over);
  Report report;
  auto compiled = compiler_.compile(kind, components, report);
  report.throw_if_errors();
  return compiled;
}

void CompiledKinds::recompile(Report& report) {
  std::erase_if(compiled_, [this](const auto& kind) { return !written().has(kind.first); });
  for (auto& [name, kind] : compiled_)
    gather(report, [&, &name = name, &kind = kind] { kind = with(name, {}); });
}

void check_layers(const CompiledKind& kind, const LevelNow& level) {
  if (kind.sprite) layer_of(*kind.sprite, level);
  for (const CompiledKind::Carried& carried : kind.carried) check_layers(*carried.kind, level);
}

Entity put_down(World& world, const CompiledKind& kind, Vec2 at, const Binding& binding) {
  Entities& entities = world.entities;
  const Entity entity = entities.create();
  const Vec2 stands = on_lattice(at);
  entities.add(entity, KindOf{kind.name});
  entities.add(entity, Pose{stands, stands});
  for (const CompiledKind::Part& part : kind.parts) part.type->attach(entities, entity, part.component.get());
  if (kind.sprite) {
    Sprite& sprite = entities.get<Sprite>(entity);
    // A sheet may have changed since the kind was compiled.
    if (sprite.links.asset.shared() != sprite.links.sheet) bind_sprite(sprite, binding);
    sprite.links.layer = layer_of(sprite, world.level);
  }
  for (const CompiledKind::Carried& carried : kind.carried) {
    const Entity thing = put_down(world, *carried.kind, stands, binding);
    entities.add(thing, Attached{entity, carried.point, {0, 0}, true});
  }
  return entity;
}

}  // namespace vole
