#include "../tick.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/person.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {
namespace {

// Where its player pushes. What its mover has no use for may be missing in the controls.
Vec2 pushed(const Input& input, const Person& person, bool from_above) {
  Vec2 direction = input.direction(person.walk.value, person.player, person.walk.where);
  if (input.is_flat(person.walk.value)) return direction;
  if (from_above || input.has_axis(person.walk_down.value))
    direction.y = input.axis(person.walk_down.value, person.player, person.walk_down.where);
  return direction;
}

}  // namespace

void run_pilots(Tick& tick) {
  const Input& input = tick.world.input;
  const Entities& entities = tick.world.entities;
  tick.world.entities.visit<Intent, Person>([&](Entity entity, Intent& intent, const Person& person) {
    intent.direction = pushed(input, person, entities.has<TopMover>(entity));
    intent.jump_pressed = intent.jump_held = intent.drop_pressed = false;
    if (input.has_action(person.drop.value))
      intent.drop_pressed = input.pressed(person.drop.value, person.player);
    if (!entities.has<SideMover>(entity) && !input.has_action(person.jump.value)) return;
    const TickInput::ActionState& jump =
        input.action_state(person.jump.value, person.player, person.jump.where);
    intent.jump_pressed = jump.presses > 0;
    intent.jump_held = jump.held;
  });
}

}  // namespace vole
