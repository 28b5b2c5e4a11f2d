// Rules decide what is played, sets turn, clips and tracks go on, switches follow, and then the cues for events are called.
#include <fmt/core.h>

#include <algorithm>
#include <functional>

#include "scene/cue_call.hpp"
#include "scene/facts.hpp"
#include "vole/base/names.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/conditions.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/switches.hpp"

namespace vole {
namespace {

// Facts that are named as a part of the thing's mind.
void look_into_mind(const Mind& mind, Sprite& sprite) {
  const std::vector<std::string>& facts = sprite.sheet()->rules.facts();
  const MindPart* const deciding = mind.deciding();
  for (const Located<MindPart>& part : mind.parts)
    for (std::size_t i = 0; i < facts.size() && !part.value.name.empty(); ++i)
      if (facts[i] == part.value.name)
        sprite.playing.facts[i] = deciding && deciding->name == part.value.name ? 1.0f : 0.0f;
}

// The same of its probes.
void look(Tick& tick, Entity entity, Sprite& sprite) {
  if (const Mind* const mind = tick.world.entities.find<Mind>(entity)) look_into_mind(*mind, sprite);
  const Probes* const probes = tick.world.entities.find<Probes>(entity);
  if (!probes) return;
  const std::vector<std::string>& facts = sprite.sheet()->rules.facts();
  for (std::size_t i = 0; i < facts.size(); ++i)
    if (const auto* const item = find_named(probes->all, facts[i]))
      sprite.playing.facts[i] = fact_of_probe(tick, entity, item->value);
}

void follow_rules(Sprite& sprite, const OwnFacts& own, int ticks_per_second) {
  const ClipRules& rules = sprite.sheet()->rules;
  Playing& playing = sprite.playing;
  for (std::size_t i = 0; i < playing.facts.size(); ++i)
    if (const FactSource source = sprite.links.fact_sources[i]; source != FactSource::game)
      playing.facts[i] = own.value(source);
  ++playing.rule_ticks;
  const int decided = rules.decide(playing.facts);
  if (decided < 0 || decided == playing.rule) return;
  if (playing.rule >= 0) {
    const ClipRules::Rule& now = rules.rules()[static_cast<std::size_t>(playing.rule)];
    const std::int64_t shown = playing.rule_ticks * 1000 / ticks_per_second;
    if (shown < now.hold_milliseconds || (now.finish && !own.finished)) return;
  }
  playing.rule = decided;
  playing.rule_ticks = 0;
  sprite.play(rules.rules()[static_cast<std::size_t>(decided)].clip);
}

// A set by direction shows the way that the thing wants to go, or else goes; on lanes, where it may have to wait for a turn, the way it
// goes.
void turn_along(Sprite& sprite, const Intent* intent, const Motion* motion, bool on_lanes) {
  if (on_lanes && motion && motion->velocity != Vec2{0, 0})
    sprite.face(motion->velocity);
  else if (intent && intent->direction != Vec2{0, 0})
    sprite.face(intent->direction);
  else if (motion)
    sprite.face(motion->velocity);
}

void go_on(Tick& tick, Entity entity, Sprite& sprite) {
  const int rate = tick.setting.ticks_per_second;
  if (!sprite.sheet()) return;
  const bool asks = !sprite.sheet()->rules.empty();
  if (asks || sprite.links.set >= 0) {
    const Motion* const motion = tick.world.entities.find<Motion>(entity);
    if (asks) look(tick, entity, sprite);
    if (asks && !sprite.playing.held) follow_rules(sprite, own_facts(tick, entity), rate);
    if (sprite.links.set >= 0)
      turn_along(sprite, tick.world.entities.find<Intent>(entity), motion,
                 tick.world.entities.has<GridMover>(entity));
  }
  for (PlayingTrack& playing : sprite.playing.tracks)
    if (playing.track && playing.track->over_at(++playing.ticks, rate)) playing = {};
  const std::uint32_t starts = sprite.playhead().starts();
  const auto remember = [&](const ClipEvent& event) {
    tick.memory.happenings.push_back({entity, event.name, starts});
  };
  sprite.playing.playhead.tick(
      rate, std::cref(remember));  // itself, it would be too large to be passed without allocating
}

void follow_conditions(Tick& tick, Entity entity, Switches& switches) {
  read_conditions(switches);
  const OwnFacts own = own_facts(tick, entity);
  const Conditions& conditions = *switches.conditions;
  for (std::size_t i = 0; i < switches.list.size(); ++i) {
    const std::vector<ClipRules::Condition>& when = conditions.when(i);
    switches.list[i].value.holds =
        !when.empty() && std::all_of(when.begin(), when.end(), [&](const ClipRules::Condition& condition) {
          return condition.holds(fact_of(tick, entity, own, conditions.facts()[condition.fact]));
        });
  }
}

void switch_at_event(Tick& tick, const ClipHappening& now) {
  Entities& entities = tick.world.entities;
  const Switches* const switches = entities.find<Switches>(now.entity);
  if (!switches) return;
  for (const Located<Switch>& item : switches->list) {
    if (item.value.event.value != now.event) continue;
    Body* const body = entities.find<Body>(now.entity);
    Shapes* const shapes = entities.find<Shapes>(now.entity);
    const std::size_t place = shapes ? shapes->find(item.value.shape) : 0;
    if (item.value.shape.empty() && body)
      body->use = item.value.use;
    else if (shapes && place < shapes->list.size())
      shapes->list[place].value.use = item.value.use;
  }
}

// The thing may be gone since, or play something else.
bool still_plays(const Tick& tick, const ClipHappening& now) {
  const Sprite* const sprite = std::as_const(tick.world.entities).find<Sprite>(now.entity);
  return sprite && !tick.stage.removed(now.entity) && sprite->playhead().starts() == now.starts;
}

void tell_events(Tick& tick) {
  for (const ClipHappening& now : tick.memory.happenings) {
    if (still_plays(tick, now)) switch_at_event(tick, now);
    for (const Cues::Event& cue : tick.cues.events()) {
      if (!still_plays(tick, now)) break;
      if (cue.event == now.event && cue.kind == tick.stage.kind_of(now.entity))
        call_cue(
            tick,
            [&] {
              return fmt::format("when {} came to \"{}\" in its clip",
                                 described_thing(tick.stage, now.entity), cue.event);
            },
            [&] { cue.handler(tick.stage, now.entity); });
    }
  }
}

}  // namespace

void run_clips(Tick& tick) {
  tick.memory.happenings.clear();
  if (tick.world.entities.any<Probes>()) tick.stage.update_bodies();
  tick.world.entities.visit<Sprite>([&tick](Entity entity, Sprite& sprite) {
    if (tick.goes_on(entity)) go_on(tick, entity, sprite);
  });
  tick.world.entities.visit<Switches>(
      [&tick](Entity entity, Switches& switches) { follow_conditions(tick, entity, switches); });
  tell_events(tick);
}

}  // namespace vole
