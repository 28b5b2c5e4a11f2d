// Ways over ledges for minds: which crossings lead from one to another, found by playing the mover, a few in each tick, and which of
// them to take. Of what stands in a level its tiles alone count.
#pragma once

#include <deque>
#include <limits>
#include <map>
#include <tuple>
#include <utility>
#include <vector>

#include "crossings.hpp"
#include "ledges.hpp"

namespace vole {

struct Crossing {
  CrossingKind kind = CrossingKind::none;
  float across = 0;
  std::size_t from = 0, to = 0;  // ledges
  Vec2 start{0, 0}, end{0, 0};
  float run_up = 0;  // pixels for a run before the start; 0: from where it stands
  int ticks = 0;
};

// A body and the numbers of its mover.
struct LedgeWalker {
  SideMover side;
  Body body;
  CategoryMask blocked_by = all_categories;
  float seconds = 0;      // of a tick
  std::uint64_t key = 0;  // of all this
};

// Of one kind of body and mover in one level.
class LedgeWays {
 public:
  // Beyond this a level is too large, and nothing is known of it.
  static constexpr std::size_t most_spots = 4096;
  static constexpr IVec2 most_pixels{65536, 8192};

  LedgeWays(const LevelNow& level, const LedgeWalker& walker);

  // Looks on among the level's tiles: as far as in so many ticks from the begin. Whether all is known then.
  bool look(const CollisionWorld& tiles, const LevelNow& level, std::int64_t ticks);

  std::optional<std::size_t> ledge_at(Vec2 feet) const;
  // The first that is below a point.
  std::optional<std::size_t> ledge_below(Vec2 point) const;
  // The place of the crossing to take next, on the fastest way from a place on a ledge to another; none where there is no way.
  std::optional<std::size_t> next(float x, std::size_t from, std::size_t to, std::int64_t avoided = -1) const;
  const Crossing& crossing(std::size_t place) const { return crossings_[place]; }
  bool has(std::size_t place) const { return place < crossings_.size(); }

 private:
  static constexpr int columns_in_a_tick_ = 8, spots_in_a_tick_ = 3;
  static constexpr float never_ = std::numeric_limits<float>::infinity();
  using Costs = std::vector<float>;

  bool look_at_spots(const SidePlay& play, std::int64_t ticks);
  void take_ledges();
  void try_spot(const SidePlay& play, std::size_t ledge, std::size_t spot);
  void try_running(const SidePlay& play, std::size_t ledge, std::size_t spot, float across);
  void try_crossing(const SidePlay& play, const SidePlay::State& from, std::size_t ledge, CrossingKind kind,
                    float across, float run_up);
  std::optional<SidePlay::State> standing(const SidePlay& play, Vec2 at) const;
  std::size_t column_of(float x) const;
  // That of a ledge in a column where it has one.
  Vec2 spot_in(std::size_t ledge, std::size_t column) const;
  bool ends_at(std::size_t ledge, std::size_t spot, float across) const;
  float walked(float from, const Crossing& crossing) const;
  const Costs& costs_to(std::size_t ledge) const;

  LedgeWalker walker_;
  float ticks_per_pixel_;
  float apart_;  // columns: half a tile, so that the middle of each counts, as on ladders and in shafts
  LedgeSeeker seeker_;
  std::vector<Ledge> ledges_;
  std::vector<std::vector<std::size_t>> columns_;  // the ledges in each
  bool has_ledges_ = false;
  std::int64_t columns_looked_ = 0, spots_looked_ = 0;
  std::size_t ledge_ = 0, spot_ = 0;  // to be tried next
  std::vector<Crossing> crossings_;
  std::vector<std::vector<std::size_t>> crossings_from_, crossings_to_;  // of each ledge
  // The fastest of those that are much alike.
  std::map<std::tuple<std::size_t, std::size_t, CrossingKind, float, bool, int>, std::size_t> alike_;
  // To a ledge, from the begin of each crossing: in ticks. The oldest first.
  mutable std::deque<std::pair<std::size_t, Costs>> costs_;
};

}  // namespace vole
