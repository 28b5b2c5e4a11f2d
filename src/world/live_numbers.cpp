#include "vole/world/live_numbers.hpp"

#include <algorithm>

#include "vole/base/field.hpp"
#include "vole/level/level.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/routine.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

const CompiledKind::Part* part_of(const CompiledKind& kind, const ComponentTypes::Type* type) {
  const auto found = std::find_if(kind.parts.begin(), kind.parts.end(),
                                  [type](const CompiledKind::Part& part) { return part.type == type; });
  return found == kind.parts.end() ? nullptr : &*found;
}

struct ChangedNumber {
  const ComponentTypes::Type* type = nullptr;
  std::size_t field = 0;
  Vec4 before{0, 0, 0, 0};
  Vec4 now{0, 0, 0, 0};
};

std::vector<ChangedNumber> changed_numbers(const CompiledKind& before, const CompiledKind& now) {
  std::vector<ChangedNumber> changed;
  for (const CompiledKind::Part& part : now.parts) {
    const CompiledKind::Part* const old = part_of(before, part.type);
    if (!old) continue;
    for (std::size_t i = 0; i < part.type->fields().size(); ++i) {
      const Vec4 was = part.type->value_of(old->component.get(), i);
      const Vec4 is = part.type->value_of(part.component.get(), i);
      if (was != is) changed.push_back({part.type, i, was, is});
    }
  }
  return changed;
}

// What the place of a thing says of a component itself; nullptr: nothing.
const TomlValue* said_by_place(const World& world, Entity entity, std::string_view component) {
  const FromPlace* const from = world.entities.find<FromPlace>(entity);
  const LevelPlace* const place = from && world.level ? world.level.place(*from) : nullptr;
  return place ? place->overrides.find(component) : nullptr;
}

bool set_by_place(const World& world, Entity entity, const ChangedNumber& number) {
  const TomlValue* const component = said_by_place(world, entity, number.type->name);
  return component && component->find(number.type->fields()[number.field].name);
}

// What a mind or a routine says is more than numbers: it is taken over as a whole, but where a place says it itself.
template <class Pilot, class Take>
void change_pilots(World& world, const CompiledKind& before, const CompiledKind& now,
                   std::string_view component, const Take& take) {
  const Pilot* const written = now.find<Pilot>();
  if (!written || !before.find<Pilot>()) return;
  world.entities.visit<KindOf, Pilot>([&](Entity entity, const KindOf& kind, Pilot& its) {
    if (kind.name == now.name && !said_by_place(world, entity, component)) take(its, *written);
  });
}

}  // namespace

void change_numbers(World& world, const CompiledKind& before, const CompiledKind& now) {
  const std::vector<ChangedNumber> changed = changed_numbers(before, now);
  if (!changed.empty())
    world.entities.visit<KindOf>([&](Entity entity, const KindOf& kind) {
      if (kind.name != now.name) return;
      for (const ChangedNumber& number : changed) {
        FieldRef field = number.type->field(world.entities, entity, number.field);
        if (field && field.value() == number.before && !set_by_place(world, entity, number))
          field.put(number.now);
      }
    });
  change_pilots<Mind>(world, before, now, "mind", [](Mind& mind, const Mind& written) {
    mind.parts = written.parts;
    mind.conditions = written.conditions;
  });
  change_pilots<Routine>(world, before, now, "routine", [](Routine& routine, const Routine& written) {
    routine.steps = written.steps;
    routine.read = written.read;
    routine.loop = written.loop;
  });
  for (const CompiledKind::Carried& carried : now.carried)
    for (const CompiledKind::Carried& old : before.carried)
      if (old.point == carried.point && old.kind->name == carried.kind->name)
        change_numbers(world, *old.kind, *carried.kind);
}

}  // namespace vole
