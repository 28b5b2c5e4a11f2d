// Rules decide what is played, sets turn, clips and tracks go on, and then the cues for events are called.
#include <fmt/format.h>

#include <cmath>

#include "../checking.hpp"
#include "../cue_call.hpp"
#include "vole/base/names.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {
namespace {

// The facts about a thing itself; one that has no motion counts as standing on the ground.
struct OwnFacts {
  const Motion* motion = nullptr;
  const Touching* touching = nullptr;
  bool finished = false;
  bool from_above = false;  // it walks on what is seen from above

  float value(FactSource source) const {
    const Vec2 velocity = motion ? motion->velocity : Vec2{0, 0};
    switch (source) {
      case FactSource::finished:
        return finished ? 1.0f : 0.0f;
      case FactSource::grounded:
        return !touching || touching->ground || from_above ? 1.0f : 0.0f;
      case FactSource::at_wall:
        return touching && touching->wall() ? 1.0f : 0.0f;
      case FactSource::vx:
        return velocity.x;
      case FactSource::vy:
        return velocity.y;
      case FactSource::speed:
        return from_above ? std::sqrt(velocity.x * velocity.x + velocity.y * velocity.y)
                          : std::abs(velocity.x);
      case FactSource::game:
        break;
    }
    return 0;
  }
};

// Facts that are named as one of the thing's checks.
void look(Tick& tick, Entity entity, Sprite& sprite) {
  const Checks* const checks = tick.world.entities.find<Checks>(entity);
  if (!checks) return;
  const std::vector<std::string>& facts = sprite.sheet()->rules.facts();
  for (std::size_t i = 0; i < facts.size(); ++i)
    if (const auto* const item = find_named(checks->all, facts[i]))
      sprite.playing.facts[i] = finds_something(tick.stage.solids().world(), tick.stage.categories(),
                                                item->value, entity, tick.world.entities.get<Pose>(entity))
                                    ? 1.0f
                                    : 0.0f;
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

// A set by direction shows the way that the thing wants to go, or else goes.
void turn_along(Sprite& sprite, const Intent* intent, const Motion* motion) {
  if (intent && intent->direction != Vec2{0, 0})
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
    if (asks)
      follow_rules(sprite,
                   {motion, tick.world.entities.find<Touching>(entity), sprite.playhead().finished(rate),
                    tick.world.entities.has<TopMover>(entity)},
                   rate);
    if (sprite.links.set >= 0) turn_along(sprite, tick.world.entities.find<Intent>(entity), motion);
  }
  for (PlayingTrack& playing : sprite.playing.tracks)
    if (playing.track && playing.track->over_at(++playing.ticks, rate)) playing = {};
  const std::uint32_t starts = sprite.playhead().starts();
  sprite.playing.playhead.tick(rate, [&](const ClipEvent& event) {
    tick.scratch.happenings.push_back({entity, event.name, starts});
  });
}

void tell_events(Tick& tick) {
  for (const ClipHappening& now : tick.scratch.happenings)
    for (const Cues::Event& cue : tick.cues.events()) {
      const Sprite* const sprite = tick.world.entities.find<Sprite>(now.entity);
      if (!sprite || tick.stage.removed(now.entity) || sprite->playhead().starts() != now.starts) break;
      if (cue.event == now.event && cue.kind == tick.stage.kind_of(now.entity))
        call_cue(
            [&] {
              return fmt::format("when {} came to \"{}\" in its clip",
                                 described_thing(tick.stage, now.entity), cue.event);
            },
            [&] { cue.handler(tick.stage, now.entity); });
    }
}

}  // namespace

void run_clips(Tick& tick) {
  tick.scratch.happenings.clear();
  tick.stage.solids().update(tick.world, tick.stage.categories());
  tick.world.entities.visit<Sprite>([&tick](Entity entity, Sprite& sprite) { go_on(tick, entity, sprite); });
  tell_events(tick);
}

}  // namespace vole
