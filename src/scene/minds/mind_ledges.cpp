#include "mind_ledges.hpp"

#include <algorithm>
#include <span>

#include "vole/base/hash.hpp"
#include "vole/base/state.hpp"
#include "vole/level/level.hpp"

namespace vole {
namespace {

// What a file says of a mover, as one number.
class NumbersHashed {
 public:
  template <class T>
  void operator()(std::string_view, const T& field, const FieldRule& = {}) {
    if constexpr (std::is_same_v<T, Vec2>) {
      hash_.add(field.x);
      hash_.add(field.y);
    } else {
      hash_.add(static_cast<float>(field));
    }
  }
  template <class T>
  void state(std::string_view, const T&, const FieldRule& = {}) {}

  const Hash& hash() const { return hash_; }

 private:
  Hash hash_;
};

// The same for all of a kind, whatever they are doing and wherever they face: so shapes count as the box around both ways.
LedgeWalker walker_of(const SidePlay& play, const SidePlay::State& thing) {
  LedgeWalker walker;
  walker.side = thing.side;
  walker.side.now = {};
  Body body = thing.body;
  if (thing.side.now.height > 0) body.size.y = thing.side.now.height;
  const Rect box = play.body.shapes ? play.body.bounds().moved_by(-play.body.at) : body.box({0, 0});
  walker.body.size = {2 * std::max(-box.left(), box.right()), box.size.y};
  walker.body.offset = {0, box.bottom()};
  walker.blocked_by = play.rules.blocked_by;
  walker.seconds = play.seconds;
  NumbersHashed numbers;
  describe(numbers, walker.side);
  Hash hash = numbers.hash();
  for (const float number : {walker.body.size.x, walker.body.size.y, walker.body.offset.y, walker.seconds})
    hash.add(number);
  hash.add(std::uint64_t{walker.blocked_by});
  walker.key = hash.value();
  return walker;
}

}  // namespace

const LedgeWays* MindLedges::ways(const SidePlay& play, const SidePlay::State& thing,
                                  std::span<const std::uint8_t> tile_categories, LedgeGoing& going) {
  constexpr std::int32_t longest = 1'000'000;
  if (play.level.endless()) return nullptr;
  // A level that is restored is another one with the same in it.
  if (watch_.changed(play.level)) known_.clear();
  const LedgeWalker walker = walker_of(play, thing);
  const std::uint64_t both = watch_.contents() ^ walker.key;
  const auto key = static_cast<std::uint32_t>(both ^ (both >> 32));
  if (going.looks_at != key) {
    going = {};
    going.looks_at = key;
  }
  going.looked = std::min(going.looked + 1, longest);
  tiles_.set_tiles(&play.level.solid(), tile_categories);
  LedgeWays& ways = *known_.get(key, [&] { return std::make_unique<LedgeWays>(play.level, walker); });
  return ways.look(tiles_, play.level, going.looked) ? &ways : nullptr;
}

}  // namespace vole
