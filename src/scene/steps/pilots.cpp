#include "../tick.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/person.hpp"

namespace vole {

void run_pilots(Tick& tick) {
  const TickInput& input = tick.world.input;
  tick.world.entities.visit<Intent, Person>([&input](Entity, Intent& intent, const Person& person) {
    const TickInput::ActionState& jump = input.action_state(person.jump.value);
    intent.direction = {input.axis(person.walk.value), 0};
    intent.jump_pressed = jump.presses > 0;
    intent.jump_held = jump.held;
  });
}

}  // namespace vole
