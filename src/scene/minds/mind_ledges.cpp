#include "mind_ledges.hpp"

#include <algorithm>
#include <array>
#include <span>

#include "vole/base/hash.hpp"
#include "vole/base/state.hpp"
#include "vole/level/level.hpp"

namespace vole {
namespace {

// What a file says of a mover, without its state: taken down, and given to another.
class NumbersTaken {
 public:
  template <class T>
  void operator()(std::string_view, const T& field, const FieldRule& = {}) {
    if constexpr (std::is_same_v<T, Vec2>) {
      add(field.x);
      add(field.y);
    } else {
      add(static_cast<float>(field));
    }
  }
  template <class T>
  void state(std::string_view, const T&, const FieldRule& = {}) {}

  std::span<const float> numbers() const { return {numbers_.data(), count_}; }

 private:
  void add(float number) { numbers_.at(count_++) = number; }

  // Of a fixed size, since each mind asks in each tick.
  std::array<float, 64> numbers_{};
  std::size_t count_ = 0;
};
class NumbersGiven {
 public:
  explicit NumbersGiven(std::span<const float> numbers) : next_(numbers.data()) {}

  template <class T>
  void operator()(std::string_view, T& field, const FieldRule& = {}) {
    if constexpr (std::is_same_v<T, Vec2>)
      field = {next_[0], next_[1]};
    else
      field = static_cast<T>(*next_);
    next_ += std::is_same_v<T, Vec2> ? 2 : 1;
  }
  template <class T>
  void state(std::string_view, T&, const FieldRule& = {}) {}

 private:
  const float* next_;
};

// The same for all of a kind, whatever they are doing and wherever they face: so shapes count as the box around both ways.
LedgeWalker walker_of(const SidePlay& play, const SidePlay::State& thing) {
  LedgeWalker walker;
  NumbersTaken taken;
  SideMover side = thing.side;
  describe(taken, side);
  NumbersGiven given(taken.numbers());
  describe(given, walker.side);
  Body body = thing.body;
  if (thing.side.height > 0) body.size.y = thing.side.height;
  const Rect box = play.body.shapes ? play.body.bounds().moved_by(-play.body.at) : body.box({0, 0});
  walker.body.size = {2 * std::max(-box.left(), box.right()), box.size.y};
  walker.body.offset = {0, box.bottom()};
  walker.blocked_by = play.rules.blocked_by;
  walker.seconds = play.seconds;
  Hash hash;
  for (const float number : taken.numbers()) hash.add(number);
  for (const float number : {walker.body.size.x, walker.body.size.y, walker.body.offset.y, walker.seconds})
    hash.add(number);
  hash.add(std::uint64_t{walker.blocked_by});
  walker.key = hash.value();
  return walker;
}

std::uint64_t key_of_ledges(const LevelNow& level) {
  Hash hash;
  hash.add(level.name());
  for (const ChangedCell& changed : level.changed()) add_to(hash, changed);
  for (const PutPiece& piece : level.pieces()) {
    hash.add(piece.level);
    hash.add(std::int64_t{piece.cell.x});
    hash.add(std::int64_t{piece.cell.y});
    hash.add(std::int64_t{piece.lines});
  }
  return hash.value();
}

}  // namespace

void MindLedges::forget_old(const LevelNow& level) {
  if (of_ == level.version() && changes_ == level.changes()) return;
  // A level that is restored is another one with the same in it.
  const std::uint64_t key = key_of_ledges(level);
  if (of_ != level.version() || level_key_ != key) known_.clear();
  of_ = level.version();
  changes_ = level.changes();
  level_key_ = key;
}

LedgeWays& MindLedges::known(std::uint32_t key, const LevelNow& level, const LedgeWalker& walker) {
  // More kinds of walkers than a level has, unless code gives each its own numbers; then those that think least often wait.
  constexpr std::size_t most_kept = 64;
  const auto found =
      std::find_if(known_.begin(), known_.end(), [key](const Known& known) { return known.key == key; });
  if (found != known_.end()) {
    known_.splice(known_.begin(), known_, found);
    return *known_.front().ways;
  }
  if (known_.size() >= most_kept) known_.pop_back();
  return *known_.emplace_front(Known{key, std::make_unique<LedgeWays>(level, walker)}).ways;
}

const LedgeWays* MindLedges::ways(const SidePlay& play, const SidePlay::State& thing,
                                  std::span<const std::uint8_t> tile_categories, LedgeGoing& going) {
  constexpr std::int32_t longest = 1'000'000;
  if (play.level.endless()) return nullptr;
  forget_old(play.level);
  const LedgeWalker walker = walker_of(play, thing);
  const std::uint64_t both = level_key_ ^ walker.key;
  const auto key = static_cast<std::uint32_t>(both ^ (both >> 32));
  if (going.looks_at != key) {
    going = {};
    going.looks_at = key;
  }
  going.looked = std::min(going.looked + 1, longest);
  tiles_.set_tiles(&play.level.solid(), tile_categories);
  LedgeWays& ways = known(key, play.level, walker);
  return ways.look(tiles_, play.level, going.looked) ? &ways : nullptr;
}

}  // namespace vole
