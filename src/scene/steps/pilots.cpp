// People, routines and minds say what things want.
#include "scene/facts.hpp"
#include "scene/minds/thinking.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/player.hpp"
#include "vole/world/routine.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {
namespace {

// Where its player pushes. What its mover has no use for may be missing in the controls.
Vec2 pushed(const Input& input, const Player& player, bool from_above) {
  Vec2 direction = input.direction(player.walk.value, player.number, player.walk.where);
  if (input.is_flat(player.walk.value)) return direction;
  if (from_above || input.has_axis(player.walk_down.value))
    direction.y = input.axis(player.walk_down.value, player.number, player.walk_down.where);
  return direction;
}

void ask_persons(Tick& tick) {
  const Input& input = tick.world.input;
  const Entities& entities = tick.world.entities;
  tick.world.entities.visit<Intent, Player>([&](Entity entity, Intent& intent, const Player& player) {
    const bool from_above = goes_from_above(entities, entity);
    intent = {};
    intent.direction = pushed(input, player, from_above);
    const auto pressed = [&](const Located<std::string>& action) {
      return input.has_action(action.value) && input.pressed(action.value, player.number);
    };
    intent.drop_pressed = pressed(player.drop);
    intent.dash_pressed = pressed(player.dash);
    intent.act_pressed = pressed(player.act);
    intent.act_held = input.has_action(player.act.value) && input.held(player.act.value, player.number);
    if (!entities.has<SideMover>(entity) && !input.has_action(player.jump.value)) return;
    const TickInput::ActionState& jump =
        input.action_state(player.jump.value, player.number, player.jump.where);
    intent.jump_pressed = jump.presses > 0;
    intent.jump_held = jump.held;
  });
}

// All decide by what they see at the begin of the step.
void ask_minds(Tick& tick) {
  if (!tick.world.entities.any<Mind>()) return;
  tick.know_bodies();
  tick.memory.targets.forget();
  tick.world.entities.visit<Intent, Mind, Pose>([&](Entity entity, Intent& intent, Mind& mind, const Pose&) {
    if (!tick.stage.removed(entity)) intent = think(tick, entity, mind, intent);
  });
}

}  // namespace

void run_pilots(Tick& tick) {
  ask_persons(tick);
  tick.world.entities.visit<Intent, Routine>([&](Entity, Intent& intent, Routine& routine) {
    intent = next_intent(routine, tick.setting.ticks_per_second);
  });
  ask_minds(tick);
}

}  // namespace vole
