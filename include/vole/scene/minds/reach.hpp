// Where a thing with a side_mover can get to in a level, found by playing its mover: by walking, jumping and whatever else it can
// do. What is found can be done, for each spot comes with the steps to play; what is not found may still be possible with more skill
// than was tried.
//
//   Reach reach(stage, stage.first("vole"));
//   for (const ReachedSpot& spot : reach.spots()) ...        // where it can stand
//   routine.steps = reach.steps_to(spot);                     // see routine.hpp
//
// Only what stands still counts: tiles and bodies are as they are when the search begins.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/input/intent.hpp"
#include "vole/scene/stage.hpp"
#include "vole/world/side_mover.hpp"

namespace vole {

// Somewhere it can stand.
struct ReachedSpot {
  Vec2 at{0, 0};
  std::size_t stretch = 0;  // of the search, for steps_to() and way_to()
};

// Spots beside each other that one can walk along.
struct Ledge {
  std::vector<Vec2> spots;  // from left to right, 8 pixels apart
  bool reached = false;
  ReachedSpot first;  // where it is reached, if it is
};

// How far a search goes; where it ends before it has tried everything, it says so.
struct ReachLimits {
  std::size_t ticks = 6'000'000;
  std::size_t stretches = 400'000;
};

class Reach {
 public:
  // From where the thing is. Throws Error for one without a side_mover and a body.
  Reach(const Stage& stage, Entity thing, const ReachLimits& limits = {});

  const std::vector<ReachedSpot>& spots() const { return spots_; }
  // All ledges of the level on which its body can stand, from top to bottom.
  const std::vector<Ledge>& ledges() const { return ledges_; }
  // Things whose bodies it came to touch.
  const std::vector<Entity>& touched() const { return touched_; }
  bool complete() const { return complete_; }
  std::size_t ticks() const { return ticks_; }

  // The steps of a routine that bring it there from its start.
  std::vector<Located<std::string>> steps_to(const ReachedSpot& spot) const;
  // Where it is on the way, tick by tick; since it last stood on another ledge, or all of it.
  enum class Part : std::uint8_t { last, all };
  std::vector<Vec2> way_to(const ReachedSpot& spot, Part part = Part::last) const;

 private:
  friend class ReachSearch;
  struct Stretch {
    std::uint32_t before = 0;
    std::uint16_t ticks = 0;
    bool stands = false;
    Intent intent;  // pressed in its first tick, held in all
    Vec2 at{0, 0};
    std::uint32_t first_place = 0;  // of its places, one for each tick
  };
  std::vector<const Stretch*> stretches_to(const ReachedSpot& spot) const;

  std::vector<Stretch> stretches_;
  std::vector<Vec2> places_;
  std::vector<ReachedSpot> spots_;
  std::vector<Ledge> ledges_;
  std::vector<Entity> touched_;
  bool complete_ = true;
  std::size_t ticks_ = 0;
};

}  // namespace vole
