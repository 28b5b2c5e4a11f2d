// What is clicked, dragged and dropped.
#include <fmt/core.h>

#include "scene/cue_call.hpp"
#include "scene/selected_things.hpp"

namespace vole {
namespace {

void call(Tick& tick, const Cues::PointerCue& cue, Entity entity, std::string_view what) {
  if (!cue.handler) return;
  call_cue(
      tick, [&] { return fmt::format("when {} was {}", described_thing(tick.stage, entity), what); },
      [&] { cue.handler(tick.stage, entity); });
}

void drop(Tick& tick) {
  const Dragged dropped = tick.world.dragged;
  tick.world.dragged = {};
  for (std::size_t i = 0; i < tick.cues.pointers().size(); ++i) {
    const Cues::PointerCue& cue = tick.cues.pointers()[i];
    if (cue.drags && cue.action == dropped.action && fits(tick.stage, dropped.thing, cue.which))
      call(tick, cue, dropped.thing, "dropped");
    if (tick.stage.removed(dropped.thing)) return;
  }
}

void go_on_dragging(Tick& tick) {
  const Dragged& dragged = tick.world.dragged;
  if (!dragged.thing) return;
  Pose* const pose = tick.world.entities.find<Pose>(dragged.thing);
  if (!pose || tick.stage.removed(dragged.thing)) {
    tick.world.dragged = {};
    return;
  }
  pose->at = tick.stage.pointer() + dragged.grip;
  if (!tick.world.input.has_action(dragged.action) || !tick.world.input.held(dragged.action)) drop(tick);
}

}  // namespace

void use_pointer(Tick& tick) {
  if (tick.cues.pointers().empty()) return;
  go_on_dragging(tick);
  Entity under;
  bool looked = false;
  for (std::size_t i = 0; i < tick.cues.pointers().size(); ++i) {
    const Cues::PointerCue& cue = tick.cues.pointers()[i];
    if (!tick.world.input.pressed(cue.action)) continue;
    if (!looked) under = tick.stage.under_pointer();
    looked = true;
    if (!under || tick.stage.removed(under) || !fits(tick.stage, under, cue.which)) continue;
    if (!cue.drags)
      call(tick, cue, under, "clicked");
    else if (!tick.world.dragged.thing)
      tick.world.dragged = {under, tick.stage.entities().get<Pose>(under).at - tick.stage.pointer(),
                            cue.action};
  }
}

}  // namespace vole
