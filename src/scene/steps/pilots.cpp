// People, routines and minds say what things want.
#include <array>
#include <utility>

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

// What its mover has no use for may be missing in the controls; what it is told to use instead may not.
const Player usual;
bool is_asked_for(const Located<std::string>& name, const Located<std::string>& usual_name, bool is_there) {
  return is_there || name.value != usual_name.value;
}

// Where its player pushes.
Vec2 pushed(const Input& input, const Player& player, bool from_above) {
  Vec2 direction = input.direction(player.walk.value, player.number, player.walk.where);
  if (input.is_flat(player.walk.value)) return direction;
  if (from_above || is_asked_for(player.walk_down, usual.walk_down, input.has_axis(player.walk_down.value)))
    direction.y = input.axis(player.walk_down.value, player.number, player.walk_down.where);
  return direction;
}

Intent asked(const Tick& tick, Entity entity, const Player& player) {
  const Input& input = tick.world.input;
  const Entities& entities = tick.world.entities;
  const auto state = [&](const Located<std::string>& action, const Located<std::string>& usual_name,
                         bool needed = false) {
    if (!needed && !is_asked_for(action, usual_name, input.has_action(action.value)))
      return TickInput::ActionState{};
    return input.action_state(action.value, player.number, action.where);
  };
  Intent intent;
  intent.direction = pushed(input, player, goes_from_above(entities, entity));
  intent.drop_pressed = state(player.drop, usual.drop).presses > 0;
  intent.dash_pressed = state(player.dash, usual.dash).presses > 0;
  const TickInput::ActionState act = state(player.act, usual.act);
  intent.act_pressed = act.presses > 0;
  intent.act_held = act.held;
  const TickInput::ActionState jump = state(player.jump, usual.jump, entities.has<SideMover>(entity));
  intent.jump_pressed = jump.presses > 0;
  intent.jump_held = jump.held;
  return intent;
}

constexpr std::array presses{&Intent::jump_pressed, &Intent::drop_pressed, &Intent::dash_pressed,
                             &Intent::act_pressed};

// A press is for one step: the first that comes.
void ask_players(Tick& tick) {
  tick.world.entities.visit<Intent, Player>([&](Entity entity, Intent& intent, const Player& player) {
    if (!tick.goes_on(entity)) return;
    const Intent before = std::exchange(intent, asked(tick, entity, player));
    const bool waited = tick.step == 0 && tick.time_of(entity).stood;
    for (bool Intent::*const press : presses)
      intent.*press = tick.step == 0 && (intent.*press || (waited && before.*press));
  });
}

// All decide by what they see at the begin of the step.
void ask_minds(Tick& tick) {
  if (!tick.world.entities.any<Mind>()) return;
  tick.know_bodies();
  tick.memory.targets.forget();
  tick.world.entities.visit<Intent, Mind, Pose>([&](Entity entity, Intent& intent, Mind& mind, const Pose&) {
    if (!tick.stage.removed(entity) && tick.goes_on(entity)) intent = think(tick, entity, mind, intent);
  });
}

}  // namespace

void keep_presses(Tick& tick) {
  tick.world.entities.visit<Intent, Player>([&](Entity entity, Intent& intent, const Player& player) {
    const OwnTime& time = tick.time_of(entity);
    if (time.steps > 0) return;
    const Intent now = asked(tick, entity, player);
    for (bool Intent::*const press : presses) intent.*press = now.*press || (time.stood && intent.*press);
  });
}

void run_pilots(Tick& tick) {
  ask_players(tick);
  tick.world.entities.visit<Intent, Routine>([&](Entity entity, Intent& intent, Routine& routine) {
    if (tick.goes_on(entity)) intent = next_intent(routine, tick.setting.ticks_per_second);
  });
  ask_minds(tick);
}

}  // namespace vole
