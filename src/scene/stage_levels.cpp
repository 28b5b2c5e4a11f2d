// The level that a scene is in: loaded, and left for another.
#include <fmt/core.h>

#include <algorithm>

#include "endless_level.hpp"
#include "level_cameras.hpp"
#include "level_places.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/scene/stage.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/left_level.hpp"
#include "vole/world/player.hpp"
#include "vole/world/zone.hpp"

namespace vole {

// Those that go along: what is attached to one that goes does, too. What has no pose is in no level.
class Travellers {
 public:
  Travellers(const World& world, const std::vector<Entity>& asked) : world_(world), asked_(asked) {
    for (const Entity thing : asked)
      if (const Pose* const pose = world.entities.find<Pose>(thing)) add(thing, pose->at);
    for (bool found = true; found;) {
      found = false;
      world.entities.visit<Attached>([&](Entity thing, const Attached& attached) {
        if (goes(thing) || !goes(attached.to)) return;
        add(thing, *from_[attached.to.index]);
        found = true;
      });
    }
  }
  bool stays(Entity thing) const { return thing && !goes(thing) && world_.entities.find<Pose>(thing); }
  // Whether one of them is of the kind, and steered by the same player: the new level needs no other.
  bool include(const CompiledKind& kind) const {
    const Player* const its = kind.find<Player>();
    return its && std::any_of(asked_.begin(), asked_.end(), [&](Entity thing) {
             const KindOf* const kind_of = world_.entities.find<KindOf>(thing);
             const Player* const player = world_.entities.find<Player>(thing);
             return kind_of && kind_of->name == kind.name && player && player->number == its->number;
           });
  }
  // At a place; what is attached stays where it is on those.
  void put(World& world, Vec2 at) const {
    world.entities.visit<Attached>([&](Entity thing, const Attached& attached) {
      if (goes(thing) && !goes(attached.to)) world.entities.remove<Attached>(thing);
    });
    world.entities.visit<Pose>([&](Entity thing, Pose& pose) {
      if (!goes(thing)) return;
      pose.at = pose.before = on_lattice(pose.at + at - *from_[thing.index]);
      world.arrived.push_back(thing);
    });
  }

 private:
  bool goes(Entity thing) const { return thing.index < from_.size() && from_[thing.index].has_value(); }
  void add(Entity thing, Vec2 from) {
    if (thing.index >= from_.size()) from_.resize(thing.index + 1);
    from_[thing.index] = from;
  }

  const World& world_;
  const std::vector<Entity>& asked_;
  std::vector<std::optional<Vec2>> from_;  // by index: where the one that was asked for was
};

namespace {

void forget_meetings(World& world, const Travellers& travellers) {
  const auto is_over = [&](const MetPair& pair) {
    return travellers.stays(pair.first) || travellers.stays(pair.second);
  };
  std::erase_if(world.met, is_over);
  std::erase_if(world.squeezed, is_over);
  world.met_on_arrival.clear();
  world.met_tiles.clear();
  if (travellers.stays(world.dragged.thing)) world.dragged = {};
}

void put_aside(World& world, const Travellers& travellers) {
  const auto stays = [&](Entity thing) { return travellers.stays(thing); };
  auto left = std::make_unique<LeftLevel>(world.entities.types());
  left->timers = world.timers.hand_over(stays);
  left->sequences = world.sequences.hand_over(stays);
  const auto own = std::stable_partition(world.tweens.begin(), world.tweens.end(),
                                         [&](const Tween& tween) { return !travellers.stays(tween.entity); });
  std::move(own, world.tweens.end(), std::back_inserter(left->tweens));
  world.tweens.erase(own, world.tweens.end());
  world.entities.put_aside(stays, left->things);
  left->level = std::move(world.level);
  world.left.push_back(std::move(left));
}

// What came from a level before this one and goes on is no longer from a place.
void forget_places(Entities& entities) {
  entities.visit<FromPlace>(
      [&entities](Entity entity, const FromPlace&) { entities.remove<FromPlace>(entity); });
}

auto find_left(World& world, std::string_view level) {
  return std::find_if(world.left.begin(), world.left.end(),
                      [&](const auto& each) { return each->level.name() == level; });
}

void bring_back(World& world, std::string_view level, const Binding& binding) {
  const auto kept = find_left(world, level);
  const std::unique_ptr<LeftLevel> left = std::move(*kept);
  world.left.erase(kept);
  world.level = std::move(left->level);
  if (!world.level) world.level.bind(binding);
  world.entities.bring_back(left->things);
  world.timers.take_back(std::move(left->timers));
  for (RunningSequence& running : left->sequences) world.sequences.add(std::move(running));
  std::move(left->tweens.begin(), left->tweens.end(), std::back_inserter(world.tweens));
  // What code has removed meanwhile.
  const auto is_gone = [&world](Entity thing) { return thing && !world.entities.alive(thing); };
  world.timers.remove_of(is_gone);
  world.sequences.remove_of(is_gone);
  std::erase_if(world.tweens, [&](const Tween& tween) { return is_gone(tween.entity); });
  Report report;
  world.bind_things(binding, report);
  report.throw_if_errors();
}

}  // namespace

void Stage::load_level(std::string_view name) {
  LevelNow level;
  level.load(name, setting_.binding());
  expect_places(setting_, level);
  forget_left(name);
  begin_level(std::move(level), Travellers(world_, {}));
}

// The camera and what is drawn follow the level as it is.
void Stage::show_level() {
  world_.find_layers();
  camera().bounds = bounds_of(world_.level);
  for (ShownView& view : world_.views)
    if (!view.camera.bounds.empty()) view.camera.bounds = camera().bounds;
  const bool begins_at_end = world_.level.endless() && !is_forward(world_.level.file().endless->side);
  camera().jump_to(begins_at_end ? camera().bounds.at + camera().bounds.size : camera().bounds.at);
}

// All that could fail has been tried.
void Stage::begin_level(LevelNow level, const Travellers& travellers) {
  if (level.wants_seed()) level.seed(random().next_wide());
  world_.level = std::move(level);
  show_level();
  forget_places(entities());
  for (std::uint32_t i = 0; i < world_.level.places().size(); ++i) {
    const LevelPlace& place = world_.level.places()[i];
    if (!place.kind.empty() && travellers.include(*kind_at(setting_, place))) continue;
    put_place(setting_, world_, {i, 0, place.keep});
  }
  entities().visit<Zone>([this](Entity entity, const Zone& zone) {
    if (zone.piece != 0) entities().remove(entity);
  });
  put_zones(world_);
  link_places(world_, setting_.binding().types);
  EndlessGoing(setting_, world_).go_along(Haste::at_once);
}

SceneChange& Stage::go_to_level(std::string_view level, std::string_view place,
                                std::vector<Entity> travellers, LeftBehind left) {
  static_cast<void>(catalog().get<Level>(level)->place(place));
  SceneChange change;
  change.how = SceneChange::How::goes;
  change.to = {std::string(level), std::string(place), std::move(travellers), left};
  return ask(std::move(change));
}

// Its things are gone.
void Stage::forget_left(std::string_view level) {
  const auto kept = find_left(world_, level);
  if (kept == world_.left.end()) return;
  std::as_const((*kept)->things).visit<Pose>([this](Entity thing, const Pose&) {
    if (entities().alive(thing)) remove(thing);
  });
  world_.left.erase(kept);
}

void Stage::arrive(const LevelGoing& going) {
  const Travellers travellers(world_, going.travellers);
  if (!world_.level || world_.level.name() != going.level) change_level(going, travellers);
  travellers.put(world_, place(going.place));
  follow(world_.followed);
}

void Stage::change_level(const LevelGoing& going, const Travellers& travellers) {
  const auto kept = find_left(world_, going.level);
  const bool comes_back = kept != world_.left.end();
  LevelNow now;
  if (!comes_back) {
    now.load(going.level, setting_.binding());
    expect_places(setting_, now);
  }
  const std::string before = world_.level.name();
  forget_meetings(world_, travellers);
  if (world_.level) put_aside(world_, travellers);
  if (going.left == LeftBehind::forgotten) forget_left(before);
  forget_places(entities());
  if (!comes_back) return begin_level(std::move(now), travellers);
  bring_back(world_, going.level, setting_.binding());
  show_level();
}

}  // namespace vole
