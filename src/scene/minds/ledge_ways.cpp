#include "ledge_ways.hpp"

#include <algorithm>
#include <cmath>
#include <queue>

namespace vole {

LedgeWays::LedgeWays(const LevelNow& level, const LedgeWalker& walker)
    : walker_(walker),
      ticks_per_pixel_(1 / (std::max(walker.side.speed, 1.0f) * walker.seconds)),
      apart_(std::clamp(static_cast<float>(level.tile_size().x) / 2, 4.0f, 16.0f)),
      seeker_(walker.side.steepest, apart_) {
  columns_.resize(column_of(static_cast<float>(level.size().x)) + 1);
}

bool LedgeWays::look(const CollisionWorld& tiles, const LevelNow& level, std::int64_t ticks) {
  const IVec2 size = level.size();
  if (size.x > most_pixels.x || size.y > most_pixels.y) return false;
  SidePlay play{tiles, level, {}, {}, walker_.seconds};
  play.body.box = walker_.body.box({0, 0});
  play.rules.blocked_by = walker_.blocked_by;
  const auto columns = static_cast<std::int64_t>(std::ceil(static_cast<float>(size.x) / apart_));
  const std::int64_t wanted = std::min(ticks * columns_in_a_tick_, columns);
  for (; columns_looked_ < wanted; ++columns_looked_)
    if (!has_ledges_) seeker_.look_at_next_column(play);
  if (wanted < columns || seeker_.spots() > most_spots) return false;
  if (!has_ledges_) take_ledges();
  const std::int64_t took = (columns + columns_in_a_tick_ - 1) / columns_in_a_tick_;
  return look_at_spots(play, ticks - took);
}

void LedgeWays::take_ledges() {
  ledges_ = seeker_.take_ledges();
  has_ledges_ = true;
  crossings_from_.resize(ledges_.size());
  crossings_to_.resize(ledges_.size());
  for (std::size_t i = 0; i < ledges_.size(); ++i)
    for (const Vec2 spot : ledges_[i].spots) columns_[column_of(spot.x)].push_back(i);
}

bool LedgeWays::look_at_spots(const SidePlay& play, std::int64_t ticks) {
  const auto all = static_cast<std::int64_t>(seeker_.spots());
  const std::int64_t wanted = std::min(ticks * spots_in_a_tick_, all);
  for (; spots_looked_ < wanted; ++spots_looked_) {
    try_spot(play, ledge_, spot_);
    if (++spot_ < ledges_[ledge_].spots.size()) continue;
    spot_ = 0;
    ++ledge_;
  }
  if (wanted == all) alike_.clear();
  return wanted == all;
}

std::optional<SidePlay::State> LedgeWays::standing(const SidePlay& play, Vec2 at) const {
  SidePlay::State state;
  state.pose.at = at;
  state.side = walker_.side;
  state.body = walker_.body;
  state.touching.ground = true;
  play.tick(state, {});
  if (!state.touching.ground) return std::nullopt;
  return state;
}

bool LedgeWays::ends_at(std::size_t ledge, std::size_t spot, float across) const {
  return across < 0 ? spot == 0 : spot + 1 == ledges_[ledge].spots.size();
}

void LedgeWays::try_spot(const SidePlay& play, std::size_t ledge, std::size_t spot) {
  const std::optional<SidePlay::State> stands = standing(play, ledges_[ledge].spots[spot]);
  if (!stands) return;
  for (const float across : {-1.0f, 1.0f}) {
    if (walker_.side.jump > 0)
      for (const CrossingKind kind : {CrossingKind::jump, CrossingKind::hop, CrossingKind::jump_up})
        try_crossing(play, *stands, ledge, kind, across, 0);
    if (walker_.side.jump > 0 && walker_.side.air_jumps > 0)
      try_crossing(play, *stands, ledge, CrossingKind::jump_twice, across, 0);
    if (ends_at(ledge, spot, across)) try_crossing(play, *stands, ledge, CrossingKind::walk_off, across, 0);
    try_running(play, ledge, spot, across);
  }
  try_crossing(play, *stands, ledge, CrossingKind::drop, 0, 0);
  if (walker_.side.climb > 0)
    for (const CrossingKind kind : {CrossingKind::climb_up, CrossingKind::climb_down})
      try_crossing(play, *stands, ledge, kind, 0, 0);
}

// With a run of up to ten spots.
void LedgeWays::try_running(const SidePlay& play, std::size_t ledge, std::size_t spot, float across) {
  constexpr std::size_t longest = 10;
  const int longest_run = play.ticks_in(2);
  const std::vector<Vec2>& spots = ledges_[ledge].spots;
  const std::size_t before = std::min(across > 0 ? spot : spots.size() - 1 - spot, longest);
  if (before == 0) return;
  std::optional<SidePlay::State> runs = standing(play, spots[across > 0 ? spot - before : spot + before]);
  if (!runs) return;
  Intent intent;
  intent.direction.x = across;
  for (int i = 0; (runs->pose.at.x - spots[spot].x) * across < 0; ++i) {
    if (i == longest_run || !runs->touching.ground) return;
    play.tick(*runs, intent);
  }
  if (!runs->touching.ground) return;
  const float run_up = static_cast<float>(before) * apart_;
  if (walker_.side.jump > 0) try_crossing(play, *runs, ledge, CrossingKind::jump, across, run_up);
  if (walker_.side.jump > 0 && walker_.side.air_jumps > 0)
    try_crossing(play, *runs, ledge, CrossingKind::jump_twice, across, run_up);
  if (ends_at(ledge, spot, across)) try_crossing(play, *runs, ledge, CrossingKind::walk_off, across, run_up);
}

void LedgeWays::try_crossing(const SidePlay& play, const SidePlay::State& from, std::size_t ledge,
                             CrossingKind kind, float across, float run_up) {
  constexpr float alike_within = 32;
  const std::optional<Landing> landing = play_crossing(play, from, kind, across);
  if (!landing) return;
  const std::optional<std::size_t> to = ledge_at(landing->at);
  if (!to || *to == ledge) return;
  const Vec2 start = from.pose.at;
  const Crossing crossing{kind, across, ledge, *to, start, landing->at, run_up, landing->ticks};
  const auto [alike, is_new] = alike_.try_emplace(
      {ledge, *to, kind, across, run_up > 0, static_cast<int>(start.x / alike_within)}, crossings_.size());
  if (is_new) {
    crossings_from_[ledge].push_back(crossings_.size());
    crossings_to_[*to].push_back(crossings_.size());
    crossings_.push_back(crossing);
  } else if (crossing.ticks < crossings_[alike->second].ticks) {
    crossings_[alike->second] = crossing;
  }
}

std::size_t LedgeWays::column_of(float x) const {
  constexpr float most = 1e6f;
  const float column = x / apart_ + 0.5f;
  return column > 0 ? static_cast<std::size_t>(std::min(column, most)) : 0;
}

Vec2 LedgeWays::spot_in(std::size_t ledge, std::size_t column) const {
  const std::vector<Vec2>& spots = ledges_[ledge].spots;
  return spots[column - column_of(spots[0].x)];
}

std::optional<std::size_t> LedgeWays::ledge_at(Vec2 feet) const {
  constexpr float high = 10;
  // The column that is nearest, or else one beside it.
  const bool is_left = feet.x < static_cast<float>(column_of(feet.x)) * apart_;
  const float beside = is_left ? -apart_ : apart_;
  for (const float x : {feet.x, feet.x + beside, feet.x - beside}) {
    const std::size_t column = column_of(x);
    if (column >= columns_.size()) continue;
    for (const std::size_t ledge : columns_[column])
      if (std::abs(spot_in(ledge, column).y - feet.y) <= high) return ledge;
  }
  return std::nullopt;
}

std::optional<std::size_t> LedgeWays::ledge_below(Vec2 point) const {
  const std::size_t column = column_of(point.x);
  std::optional<std::size_t> found;
  float highest = never_;
  if (column >= columns_.size()) return found;
  for (const std::size_t ledge : columns_[column]) {
    const float y = spot_in(ledge, column).y;
    if (y < point.y || y >= highest) continue;
    highest = y;
    found = ledge;
  }
  return found;
}

// Ticks to the start of a crossing, along its ledge.
float LedgeWays::walked(float from, const Crossing& crossing) const {
  return (std::abs(from - (crossing.start.x - crossing.across * crossing.run_up)) + crossing.run_up) *
         ticks_per_pixel_;
}

// Shortest ways from the goal backwards (E. W. Dijkstra, 1959).
const LedgeWays::Costs& LedgeWays::costs_to(std::size_t ledge) const {
  constexpr std::size_t most_kept = 16;
  for (const auto& [goal, costs] : costs_)
    if (goal == ledge) return costs;
  if (costs_.size() >= most_kept) costs_.pop_front();
  Costs& costs = costs_.emplace_back(ledge, Costs(crossings_.size(), never_)).second;
  using Open = std::pair<float, std::size_t>;
  std::priority_queue<Open, std::vector<Open>, std::greater<>> open;
  const auto offer = [&](std::size_t crossing, float after) {
    const float cost = static_cast<float>(crossings_[crossing].ticks) + after;
    if (cost >= costs[crossing]) return;
    costs[crossing] = cost;
    open.push({cost, crossing});
  };
  for (const std::size_t crossing : crossings_to_[ledge]) offer(crossing, 0);
  while (!open.empty()) {
    const auto [cost, next] = open.top();
    open.pop();
    if (cost > costs[next]) continue;
    for (const std::size_t before : crossings_to_[crossings_[next].from])
      offer(before, cost + walked(crossings_[before].end.x, crossings_[next]));
  }
  return costs;
}

std::optional<std::size_t> LedgeWays::next(float x, std::size_t from, std::size_t to,
                                           std::int64_t avoided) const {
  const Costs& costs = costs_to(to);
  std::optional<std::size_t> best;
  float least = never_;
  for (const std::size_t crossing : crossings_from_[from]) {
    if (static_cast<std::int64_t>(crossing) == avoided) continue;
    const float cost = costs[crossing] + walked(x, crossings_[crossing]);
    if (cost >= least) continue;
    least = cost;
    best = crossing;
  }
  return best;
}

}  // namespace vole
