#include "endless_level.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <limits>

#include "level_cameras.hpp"
#include "level_places.hpp"
#include "vole/level/level.hpp"
#include "vole/world/binding.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/world.hpp"
#include "vole/world/zone.hpp"

namespace vole {
namespace {

// So much is done in a tick, unless the camera is about to see it. A line of cells is always finished.
constexpr int cells_in_a_tick = 512, things_in_a_tick = 4;
constexpr int pieces_in_a_tick = 64;

}  // namespace

EndlessGoing::Stretch EndlessGoing::stretch(const Rect& area) const {
  switch (level_.file().endless->side) {
    case LevelSide::right:
      return {area.left(), area.right()};
    case LevelSide::left:
      return {-area.right(), -area.left()};
    case LevelSide::bottom:
      return {area.top(), area.bottom()};
    case LevelSide::top:
      break;
  }
  return {-area.bottom(), -area.top()};
}

EndlessGoing::Stretch EndlessGoing::stretch(const IRect& cells) const {
  return stretch(Rect{Vec2(cells.at * level_.tile_size()), Vec2(cells.size * level_.tile_size())});
}

void EndlessGoing::find_view() {
  const EndlessLevel& endless = *level_.file().endless;
  const Camera& camera = world_.camera;
  Rect seen = camera.seen();
  for (const ShownView& view : world_.views)
    if (!view.followed.empty()) seen = seen.joined_with(view.camera.seen());
  view_ = stretch(seen);
  const auto pixels = [&](const std::optional<int>& written) {
    return written ? static_cast<float>(*written) : view_.end - view_.start;
  };
  ahead_ = view_.end + pixels(endless.ahead);
  behind_ = view_.start - pixels(endless.behind);
}

void EndlessGoing::go_along(Haste haste) {
  if (!level_.endless()) return;
  const LevelCameras cameras(world_);
  find_view();
  leave_behind();
  remove_left_behind();
  go_on(haste);
  if (const IVec2 cells = level_.room_behind(); cells != IVec2{0, 0})
    world_.move_origin(cells, setting_.binding().types);
  cameras.follow();
}

void EndlessGoing::leave_behind() {
  if (!level_.own_part_left() && level_.has_gone_on() &&
      stretch(IRect{-level_.origin(), level_.file().cells}).end < behind_) {
    level_.leave_own_part();
    remove_zones(world_, 0);
  }
  for (std::size_t i = level_.pieces().size(); i > 0; --i) {
    PutPiece& piece = level_.piece_at(i - 1);
    if (!piece.leaves && !piece.is_last && stretch(piece.area()).end < behind_) {
      piece.leaves = true;
      remove_zones(world_, piece.number);
    }
    if (piece.leaves) level_.unbuild(piece, lines_in(cells_in_a_tick, piece));
  }
}

// What came with a part that is gone goes too, unless it has gone along.
void EndlessGoing::remove_left_behind() {
  world_.entities.visit<FromPlace, Pose>([&](Entity thing, const FromPlace& from, const Pose& pose) {
    const PutPiece* const piece = level_.piece(from.piece);
    const bool gone = from.piece == 0 ? level_.own_part_left() : !piece || piece->leaves;
    if (gone && !from.keep && stretch(Rect{pose.at, {0, 0}}).end < behind_) world_.entities.remove(thing);
  });
}

void EndlessGoing::go_on(Haste haste) {
  const float tile = static_cast<float>(along(level_.file().endless->side, level_.tile_size()));
  Time time{cells_in_a_tick, things_in_a_tick};
  for (int begun = 0; begun < pieces_in_a_tick;) {
    PutPiece* piece = unfinished();
    if (!piece) {
      if (stretch(level_.extent()).end >= ahead_ || !level_.has_room_to_go_on()) return;
      piece = &level_.go_on();
      ++begun;
    }
    const bool seen_soon = stretch(piece->area()).start < view_.end + 2 * tile;
    if (haste == Haste::at_once || seen_soon)
      finish(piece->number);
    else if (!build(*piece, time))
      return;
  }
}

PutPiece* EndlessGoing::unfinished() {
  for (std::size_t i = 0; i < level_.pieces().size(); ++i)
    if (PutPiece& piece = level_.piece_at(i); !piece.leaves && !level_.complete(piece)) return &piece;
  return nullptr;
}

int EndlessGoing::lines_in(int cells, const PutPiece& piece) const {
  const IVec2 size = piece.file().cells;
  return std::max(cells / std::max(size.x * size.y / std::max(level_.lines_of(piece), 1), 1), 1);
}

// Whether all of it is there.
bool EndlessGoing::build(PutPiece& piece, Time& time) {
  const int lines = std::min(lines_in(time.cells, piece), level_.lines_of(piece) - piece.lines);
  if (lines > 0 && time.cells <= 0) return false;
  level_.build(piece, lines);
  if (lines > 0) time.cells -= lines * (piece.file().cells.x * piece.file().cells.y / level_.lines_of(piece));
  if (piece.lines < level_.lines_of(piece)) return false;
  for (; piece.things < piece.places.size(); ++piece.things) {
    if (time.things-- <= 0) return false;
    put_place(setting_, world_, {piece.things, piece.number, piece.places[piece.things].keep});
  }
  put_zones(world_, piece.number);
  link_places(world_, setting_.binding().types);
  return true;
}

void EndlessGoing::finish(std::uint32_t number) {
  Time time{std::numeric_limits<int>::max() / 2, std::numeric_limits<int>::max() / 2};
  build(level_.piece_at(level_.index_of(number)), time);
}

void EndlessGoing::remove(std::uint32_t number) {
  PutPiece& piece = level_.piece_at(level_.index_of(number));
  if (piece.is_last)
    throw Error(FilePosition{}, fmt::format("piece {} is the one by which the level goes on", number));
  remove_zones(world_, number);
  world_.entities.visit<FromPlace>([&](Entity thing, const FromPlace& from) {
    if (from.piece == number && !from.keep) world_.entities.remove(thing);
  });
  level_.unbuild(piece, level_.lines_of(piece));
}

}  // namespace vole
