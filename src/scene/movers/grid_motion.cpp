#include "vole/scene/movers/grid_motion.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

#include "lanes.hpp"
#include "scene/bodies/row_pushing.hpp"
#include "scene/bodies/what_holds.hpp"
#include "vole/physics/subpixel.hpp"

namespace vole {
namespace {

// A tick crosses at most so many cells.
constexpr int most_cells_a_tick = 256;

// Less is not meant: a stick that is held askew.
constexpr float least_push = 0.3f;

int sign_of(float value) {
  return value > least_push ? 1 : value < -least_push ? -1 : 0;
}

class GridTurn {
 public:
  GridTurn(MoverTurn& turn, GridMover& mover) : turn_(turn), mover_(mover) {
    middle_ = middle_of(turn.moving.body);
  }

  void go() {
    note_pushed();
    if (!turn_.pushing || lanes().on_junction()) mover_.row.clear();
    if (lanes().beside() && !put_on_crossing()) return;
    const Vec2 before = turn_.pose.at;
    std::int64_t left = length_of_tick();
    // A cell with nothing to move through is gone at once.
    for (int i = 0; i < most_cells_a_tick && left > 0; ++i) {
      const std::int64_t gone = leg(left);
      if (gone == 0) break;
      left -= gone;
    }
    if (mover_.heading == IVec2{0, 0}) turn_.motion.remainder = {0, 0};
    turn_.motion.velocity = (turn_.pose.at - before) / turn_.seconds;
    face();
  }

 private:
  // The way that it goes; where it stands, the way that is pushed.
  void face() {
    const IVec2 way = mover_.heading != IVec2{0, 0} ? mover_.heading : mover_.pushed;
    if (way.x != 0) {
      turn_.pose.mirrored = way.x < 0;
      turn_.pose.facing = way.x < 0 ? Direction::left : Direction::right;
    } else if (way.y != 0) {
      turn_.pose.facing = way.y < 0 ? Direction::up : Direction::down;
    }
  }

  void note_pushed() {
    const Vec2 direction = turn_.intent.direction;
    const IVec2 pushed{sign_of(direction.x), sign_of(direction.y)};
    mover_.since_wanted = std::min(mover_.since_wanted + turn_.seconds, 1000.0f);
    const bool new_x = pushed.x != 0 && pushed.x != mover_.pushed.x;
    const bool new_y = pushed.y != 0 && pushed.y != mover_.pushed.y;
    if (new_x || new_y) {
      const bool takes_y = new_y && (!new_x || mover_.heading.x != 0);
      mover_.wanted = takes_y ? IVec2{0, pushed.y} : IVec2{pushed.x, 0};
      mover_.since_wanted = 0;
    }
    mover_.pushed = pushed;
  }

  OnLanes lanes() const { return on_lanes(mover_, turn_.pose.at + middle_); }

  // The nearest one, from somewhere between lanes; false when there is no room.
  bool put_on_crossing() {
    const OnLanes past = lanes();
    const auto step = [](std::int64_t from, int cell) {
      const std::int64_t size = cell * subpixels;
      return to_pixels(from * 2 < size ? -from : size - from);
    };
    CollisionBody body = turn_.moving.body;
    body.at = turn_.pose.at + Vec2{step(past.x, mover_.cell.x), step(past.y, mover_.cell.y)};
    const QueryFilter asked = what_holds(turn_.moving.rules);
    if (turn_.moving.world.any(body.bounds(), asked)) return false;
    turn_.pose.at = body.at;
    mover_.heading = {0, 0};
    return true;
  }

  float speed() const {
    return mover_.row.empty() ? mover_.speed : std::min(mover_.speed, turn_.pushing->speed(mover_.row));
  }

  std::int64_t length_of_tick() {
    const float wanted = speed() * turn_.seconds + turn_.motion.remainder.x;
    const std::int64_t length = to_subpixels(wanted);
    turn_.motion.remainder = {wanted - to_pixels(length), 0};
    return length;
  }

  bool is_open(IVec2 way) const {
    CollisionBody body = turn_.moving.body;
    body.at = turn_.pose.at;
    return LaneRoom{turn_.moving.world, turn_.moving.rules, turn_.edge, turn_.level}.is_open(mover_, body,
                                                                                             way);
  }

  // Also where all that is in the way gives way: that is the row from now on.
  bool opens(IVec2 way) {
    if (is_open(way)) return true;
    if (way == IVec2{0, 0} || !turn_.pushing || mover_.strength == 0) return false;
    CollisionBody body = turn_.moving.body;
    body.at = turn_.pose.at;
    auto row = turn_.pushing->before(body, Vec2(way * mover_.cell), turn_.moving.rules, mover_.strength);
    if (!row) return false;
    mover_.row = std::move(*row);
    return !mover_.row.empty();
  }

  // At a junction: what is pushed, and of two the turn; or else what was asked for a moment ago; or on.
  IVec2 next_heading() {
    mover_.row.clear();
    const IVec2 across{mover_.pushed.x, 0}, down{0, mover_.pushed.y};
    const bool turns_first = mover_.heading.x != 0;
    const bool remembers = mover_.wanted != IVec2{0, 0} && mover_.since_wanted <= mover_.early_turn;
    for (const IVec2 way : {turns_first ? down : across, turns_first ? across : down})
      if (opens(way)) return way;
    if (remembers && is_open(mover_.wanted)) return mover_.wanted;
    if ((mover_.keeps_going || remembers) && is_open(mover_.heading)) return mover_.heading;
    return {0, 0};
  }

  // To the next junction, or as far as it gets on the way there; how far, in subpixels. `left`, of the tick, is less for what is pushed.
  std::int64_t leg(std::int64_t& left) {
    const OnLanes now = lanes();
    if (now.on_junction()) {
      mover_.heading = next_heading();
      if (mover_.heading == mover_.wanted) mover_.wanted = {0, 0};
      if (mover_.heading == IVec2{0, 0}) return 0;
      if (speed() < mover_.speed)
        left = static_cast<std::int64_t>(static_cast<float>(left) * (speed() / mover_.speed));
    } else if (mover_.row.empty()) {
      turn_back_where_asked(now);
    }
    const bool across = mover_.heading.x != 0;
    const std::int64_t size = (across ? mover_.cell.x : mover_.cell.y) * subpixels;
    const std::int64_t past = across ? now.x : now.y;
    const bool ahead = mover_.heading.x + mover_.heading.y > 0;
    const std::int64_t way = ahead ? size - past : (past == 0 ? size : past);
    return slide(std::min(way, left));
  }

  void turn_back_where_asked(const OnLanes& now) {
    const bool across = now.x != 0;
    const int pushed = across ? mover_.pushed.x : mover_.pushed.y;
    const int heading = across ? mover_.heading.x : mover_.heading.y;
    // It was put here, or what it was heading for is another's now.
    const int way = pushed != 0 ? pushed : heading != 0 ? heading : 1;
    mover_.heading = across ? IVec2{way, 0} : IVec2{0, way};
    if (mover_.wanted == mover_.heading) mover_.wanted = {0, 0};
  }

  std::int64_t slide(std::int64_t length) {
    const Vec2 by = Vec2(mover_.heading) * to_pixels(length);
    if (mover_.row.empty()) {
      if (slide_body(by)) return length;
      // Something has come into its way: back to where it came from.
      mover_.heading = mover_.heading * -1;
      return 0;
    }
    if (slide_with_row(by)) return length;
    // It waits there, or goes back with all that it pushes.
    if (mover_.heading.x * mover_.pushed.x + mover_.heading.y * mover_.pushed.y < 0)
      mover_.heading = mover_.heading * -1;
    return 0;
  }

  // Whether it came all the way.
  bool slide_body(Vec2 by) {
    turn_.moving.body.at = turn_.pose.at;
    const BodyMoved moved = turn_.moving.world.slide(turn_.moving.body, by, turn_.moving.rules);
    const Vec2 gone = moved.at - turn_.pose.at;
    turn_.pose.at = moved.at;
    turn_.moving.body.at = moved.at;
    turn_.touching = turn_.moving.touching(moved);
    return to_subpixels(gone.x) == to_subpixels(by.x) && to_subpixels(gone.y) == to_subpixels(by.y);
  }

  // The one that is ahead goes first. All the way, or not at all.
  bool slide_with_row(Vec2 by) {
    RowPushing& pushing = *turn_.pushing;
    const Vec2 before = turn_.pose.at;
    const auto row_goes = [&](Vec2 way) { return pushing.move(mover_.row, way, turn_.moving.rules); };
    const bool first = pushing.is_ahead(mover_.row, before + middle_, by);
    if (first && !row_goes(by)) return false;
    if (slide_body(by) && (first || row_goes(by))) return true;
    turn_.pose.at = turn_.moving.body.at = before;
    if (first) row_goes(-by);
    return false;
  }

  MoverTurn& turn_;
  GridMover& mover_;
  Vec2 middle_;
};

}  // namespace

void move_on_grid(MoverTurn& turn, GridMover& mover) {
  turn.moving.body.at = turn.pose.at;
  turn.touching = {};
  GridTurn(turn, mover).go();
}

}  // namespace vole
