#include "vole/scene/minds/reach.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <deque>
#include <unordered_map>
#include <unordered_set>

#include "ledges.hpp"
#include "side_play.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/within.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/bodies/solid_things.hpp"

namespace vole {
namespace {

constexpr float spot_size = 8;        // pixels; what is nearer counts as the same place
constexpr float step_seconds = 0.1f;  // for which one thing is pushed

std::vector<Intent> possible_intents(const SideMover& mover) {
  std::vector<Intent> all;
  for (const float x : {1.0f, -1.0f, 0.0f})
    for (const bool jump : {false, true}) {
      Intent intent;
      intent.direction.x = x;
      intent.jump_held = intent.jump_pressed = jump;
      all.push_back(intent);
    }
  if (mover.climb > 0 || mover.swim > 0 || mover.crouch > 0)
    for (const float y : {-1.0f, 1.0f})
      for (const float x : {0.0f, 1.0f, -1.0f}) {
        Intent intent;
        intent.direction = {x, y};
        all.push_back(intent);
      }
  if (mover.dash > 0)
    for (const float x : {1.0f, -1.0f}) {
      Intent intent;
      intent.direction.x = x;
      intent.dash_pressed = true;
      all.push_back(intent);
    }
  Intent drop;
  drop.drop_pressed = true;
  all.push_back(drop);
  return all;
}

}  // namespace

class ReachSearch {
 public:
  ReachSearch(const Stage& stage, Entity thing, const ReachLimits& limits, Reach& reach)
      : stage_(stage),
        thing_(thing),
        limits_(limits),
        reach_(reach),
        play_{stage.bodies(),
              stage.level(),
              stage.solids().body(thing),
              stage.solids().rules(thing, stage.categories()),
              stage.seconds_per_tick(),
              &stage.solids(),
              &stage.entities()},
        step_ticks_(play_.ticks_in(step_seconds)) {}

  void search() {
    Mover start{stage_.get<Pose>(thing_),      stage_.get<Motion>(thing_), stage_.get<Touching>(thing_),
                stage_.get<SideMover>(thing_), stage_.get<Body>(thing_),   false};
    intents_ = possible_intents(start.side);
    gather_things();
    reach_.stretches_.push_back({});
    reach_.stretches_[0].at = start.pose.at;
    movers_.push_back(start);
    is_new(start);
    if (start.touching.ground) reach_.spots_.push_back({start.pose.at, 0});
    for (std::uint32_t stretch = 0; stretch < reach_.stretches_.size(); ++stretch) {
      for (const Intent& intent : intents_) try_intent(stretch, intent);
      // What was tried from it is not needed any more.
      movers_.pop_front();
      if (reach_.ticks_ > limits_.ticks || reach_.stretches_.size() > limits_.stretches) {
        reach_.complete_ = false;
        break;
      }
    }
    find_ledges();
  }

 private:
  using Mover = SidePlay::State;

  void gather_things() {
    std::as_const(stage_.entities()).visit<Body, Pose>([&](Entity thing, const Body& body, const Pose& pose) {
      if (thing == thing_ || !stage_.solids().has(thing)) return;
      things_.push_back({thing, body.box(pose.at).joined_with(stage_.solids().body(thing).bounds()), false});
      put_into_squares(static_cast<std::uint32_t>(things_.size() - 1));
    });
  }

  // Only those that lie in the squares that the box is in are looked at, and only until they are touched.
  void touch_things(const Rect& box) {
    touch_those_of(large_things_, box);
    const IRect squares = squares_of(box);
    for (int y = squares.top(); y < squares.bottom(); ++y)
      for (int x = squares.left(); x < squares.right(); ++x)
        if (const auto found = things_by_square_.find(square_key({x, y})); found != things_by_square_.end())
          touch_those_of(found->second, box);
  }
  void touch_those_of(std::vector<std::uint32_t>& numbers, const Rect& box) {
    std::erase_if(numbers, [&](std::uint32_t number) {
      Thing& thing = things_[number];
      if (!thing.touched && thing.box.overlaps(box)) {
        thing.touched = true;
        reach_.touched_.push_back(thing.entity);
      }
      return thing.touched;
    });
  }
  void put_into_squares(std::uint32_t number) {
    constexpr int most = 64;
    const IRect squares = squares_of(things_[number].box);
    if (squares.size.x > most || squares.size.y > most || squares.size.x * squares.size.y > most)
      return large_things_.push_back(number);
    for (int y = squares.top(); y < squares.bottom(); ++y)
      for (int x = squares.left(); x < squares.right(); ++x)
        things_by_square_[square_key({x, y})].push_back(number);
  }
  static IRect squares_of(const Rect& box) {
    constexpr float side = 64;  // pixels
    const IVec2 first = floor_to_int(box.at / side);
    return {first, floor_to_int((box.at + box.size) / side) - first + IVec2{1, 1}};
  }
  static std::uint64_t square_key(IVec2 square) {
    return std::uint64_t{static_cast<std::uint32_t>(square.x)} << 32 | static_cast<std::uint32_t>(square.y);
  }

  void play(Mover& mover, const Intent& intent) {
    play_.tick(mover, intent);
    ++reach_.ticks_;
  }

  void try_intent(std::uint32_t from, const Intent& wanted) {
    Mover mover = movers_.front();
    Intent intent = wanted;
    // A jump that is held on is not begun again.
    intent.jump_pressed = wanted.jump_held && !mover.jump_held;
    const Intent first = intent;
    const std::size_t places = reach_.places_.size();
    int played = 0;
    for (; played < step_ticks_; ++played) {
      play(mover, intent);
      intent.jump_pressed = intent.drop_pressed = intent.dash_pressed = false;
      if (play_.outside(mover)) break;
      reach_.places_.push_back(mover.pose.at);
      if (!things_.empty()) touch_things(mover.body.box(mover.pose.at));
    }
    if (played < step_ticks_ || !is_new(mover)) {
      reach_.places_.resize(places);
      return;
    }
    const auto stretch = static_cast<std::uint32_t>(reach_.stretches_.size());
    reach_.stretches_.push_back({from, static_cast<std::uint16_t>(step_ticks_), mover.touching.ground, first,
                                 mover.pose.at, static_cast<std::uint32_t>(places)});
    movers_.push_back(mover);
    if (mover.touching.ground) reach_.spots_.push_back({mover.pose.at, stretch});
  }

  // Whether nothing much like it was tried from before.
  bool is_new(const Mover& mover) {
    const auto bucket = [](float value, float size) {
      return static_cast<std::int64_t>(std::floor(value / size));
    };
    const Vec2 velocity = mover.motion.velocity;
    const float fast = std::max(mover.side.speed, 1.0f);
    const std::array<std::int64_t, 10> parts{
        bucket(mover.pose.at.x, spot_size),
        bucket(mover.pose.at.y, spot_size),
        velocity.x > fast * 0.5f    ? 2
        : velocity.x < -fast * 0.5f ? 0
                                    : 1,
        mover.touching.ground ? 0 : 1 + bucket(velocity.y, std::max(mover.side.jump, 60.0f) / 4),
        mover.jump_held ? 1 : 0,
        mover.side.now.rising ? 1 : 0,
        mover.side.now.jumped_in_air,
        static_cast<std::int64_t>(mover.side.now.state),
        mover.side.now.dashed_in_air ? 1 : 0,
        mover.touching.wall() ? 1 : 0};
    Hash hash;
    for (const std::int64_t part : parts) hash.add(part);
    return known_.insert(hash.value()).second;
  }

  void find_ledges() {
    LedgeSeeker seeker(stage_.get<SideMover>(thing_).steepest, spot_size);
    while (seeker.look_at_next_column(play_)) {
    }
    reach_.ledges_ = seeker.take_ledges();
    for (const ReachedSpot& spot : reach_.spots_)
      for (Ledge& ledge : reach_.ledges_) {
        if (ledge.reached) continue;
        const bool on_it = std::any_of(ledge.spots.begin(), ledge.spots.end(), [&](Vec2 at) {
          return std::abs(at.x - spot.at.x) <= spot_size && std::abs(at.y - spot.at.y) <= spot_size / 2;
        });
        if (!on_it) continue;
        ledge.reached = true;
        ledge.first = spot;
      }
  }

  struct Thing {
    Entity entity;
    Rect box;
    bool touched = false;
  };

  const Stage& stage_;
  Entity thing_;
  ReachLimits limits_;
  Reach& reach_;
  SidePlay play_;
  int step_ticks_;
  std::vector<Intent> intents_;
  std::vector<Thing> things_;
  std::unordered_map<std::uint64_t, std::vector<std::uint32_t>> things_by_square_;  // their numbers
  std::vector<std::uint32_t> large_things_;  // which would be in very many
  std::deque<Mover> movers_;                 // of the stretches from which nothing was tried yet
  std::unordered_set<std::uint64_t> known_;
};

Reach::Reach(const Stage& stage, Entity thing, const ReachLimits& limits) {
  stage.update_bodies();
  if (!stage.entities().has<SideMover>(thing) || !stage.solids().has(thing))
    throw Error(FilePosition{}, "what has no side_mover and no body reaches nothing");
  ReachSearch(stage, thing, limits, *this).search();
}

std::vector<const Reach::Stretch*> Reach::stretches_to(const ReachedSpot& spot) const {
  std::vector<const Stretch*> stretches;
  for (std::size_t at = spot.stretch; at != 0; at = stretches_[at].before)
    stretches.push_back(&stretches_[at]);
  std::reverse(stretches.begin(), stretches.end());
  return stretches;
}

std::vector<Located<std::string>> Reach::steps_to(const ReachedSpot& spot) const {
  const auto words_of = [](const Intent& intent) {
    std::string words;
    if (intent.direction.x != 0) words += intent.direction.x < 0 ? " left" : " right";
    if (intent.direction.y != 0) words += intent.direction.y < 0 ? " up" : " down";
    if (intent.jump_held) words += " jump";
    if (intent.dash_pressed) words += " dash";
    if (intent.drop_pressed) words += " drop";
    return words;
  };
  std::vector<Located<std::string>> steps;
  std::string last;
  int ticks = 0;
  const auto finish = [&] {
    if (ticks > 0) steps.push_back({fmt::format("{} ticks{}", ticks, last), {}});
    ticks = 0;
  };
  for (const Stretch* const stretch : stretches_to(spot)) {
    const std::string words = words_of(stretch->intent);
    // What is pressed in the middle of its being held is a step of its own.
    if (words != last || stretch->intent.jump_pressed || stretch->intent.dash_pressed ||
        stretch->intent.drop_pressed)
      finish();
    last = words;
    ticks += stretch->ticks;
  }
  finish();
  return steps;
}

std::vector<Vec2> Reach::way_to(const ReachedSpot& spot, Part part) const {
  const std::vector<const Stretch*> stretches = stretches_to(spot);
  std::size_t first = 0;
  if (part == Part::last)
    for (std::size_t i = 0; i + 1 < stretches.size(); ++i)
      if (stretches[i]->stands) first = i;
  std::vector<Vec2> way;
  for (std::size_t i = first; i < stretches.size(); ++i)
    for (int tick = 0; tick < stretches[i]->ticks; ++tick)
      way.push_back(places_[stretches[i]->first_place + static_cast<std::size_t>(tick)]);
  return way;
}

}  // namespace vole
