#include "../tick.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/person.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {

// What its mover has no use for may be missing in the controls.
void run_pilots(Tick& tick) {
  const TickInput& input = tick.world.input;
  const Entities& entities = tick.world.entities;
  tick.world.entities.visit<Intent, Person>([&](Entity entity, Intent& intent, const Person& person) {
    intent.direction = {input.axis(person.walk.value, person.walk.where), 0};
    if (entities.has<TopMover>(entity) || input.has_axis(person.walk_down.value))
      intent.direction.y = input.axis(person.walk_down.value, person.walk_down.where);
    intent.jump_pressed = intent.jump_held = intent.drop_pressed = false;
    if (input.has_action(person.drop.value))
      intent.drop_pressed = input.action_state(person.drop.value, person.drop.where).presses > 0;
    if (!entities.has<SideMover>(entity) && !input.has_action(person.jump.value)) return;
    const TickInput::ActionState& jump = input.action_state(person.jump.value, person.jump.where);
    intent.jump_pressed = jump.presses > 0;
    intent.jump_held = jump.held;
  });
}

}  // namespace vole
