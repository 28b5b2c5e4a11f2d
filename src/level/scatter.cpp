// Things laid out by chance and a seed.
#include <algorithm>
#include <cmath>
#include <map>
#include <optional>
#include <tuple>
#include <utility>

#include "cell_chance.hpp"
#include "vole/base/names.hpp"
#include "vole/base/within.hpp"
#include "vole/level/level.hpp"

namespace vole {
namespace {

struct Candidate {
  std::uint64_t order = 0;  // by chance
  Vec2 at{0, 0};
};

// Keeps those of the candidates, in their order, that are far enough from the ones before. They lie in squares as large as that, so
// that each looks at its neighbours alone.
class Chosen {
 public:
  Chosen(int count, float apart) : count_(static_cast<std::size_t>(count)), apart_(apart) {}

  bool full() const { return spots_.size() >= count_; }
  void add(Vec2 at) {
    if (apart_ > 0) {
      const IVec2 square = floor_to_int(at / apart_);
      for (int y = square.y - 1; y <= square.y + 1; ++y)
        for (int x = square.x - 1; x <= square.x + 1; ++x)
          if (const auto found = squares_.find({x, y});
              found != squares_.end() && has_near(found->second, at))
            return;
      squares_[{square.x, square.y}].push_back(at);
    }
    spots_.push_back(at);
  }
  std::vector<Vec2> take() { return std::move(spots_); }

 private:
  bool has_near(const std::vector<Vec2>& spots, Vec2 at) const {
    return std::any_of(spots.begin(), spots.end(), [&](Vec2 other) {
      const Vec2 way = other - at;
      return way.x * way.x + way.y * way.y < apart_ * apart_;
    });
  }

  std::size_t count_;
  float apart_;
  std::vector<Vec2> spots_;
  std::map<std::pair<int, int>, std::vector<Vec2>> squares_;
};

// How far down in its cell one stands on a form, in its middle; the cell's height where nothing is below.
float top_of(const CellForm& form, Vec2 tile) {
  const std::span<const Vec2> corners = form.shape().corners();
  const float x = tile.x / 2;
  float top = tile.y;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vec2 a = corners[i], b = corners[(i + 1) % corners.size()];
    if (a.x == b.x || x < std::min(a.x, b.x) || x > std::max(a.x, b.x)) continue;
    top = std::min(top, a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x));
  }
  return top;
}

class Ground {
 public:
  Ground(const Level& level, const LevelScatter& scatter, const LevelZone* zone)
      : level_(level), scatter_(scatter), zone_(zone) {}

  // A spot for each cell that will do.
  std::vector<Candidate> candidates(std::uint64_t seed) const {
    std::vector<Candidate> all;
    const Vec2 tile(level_.tile_size());
    const Rect area = zone_ ? zone_->area : Rect{{0, 0}, Vec2(level_.size())};
    const IVec2 first{std::max(floor_to_int(area.left() / tile.x), 0),
                      std::max(floor_to_int(area.top() / tile.y), 0)};
    const IVec2 end{std::min(ceil_to_int(area.right() / tile.x), level_.cells.x),
                    std::min(ceil_to_int(area.bottom() / tile.y) + 1, level_.cells.y)};
    for (int y = first.y; y < end.y; ++y)
      for (int x = first.x; x < end.x; ++x)
        for (const LevelLayer& layer : level_.layers)
          if (const auto spot = spot_in(layer, {x, y}, tile);
              spot && (!zone_ || zone_->contains(*spot - Vec2{0, 0.5f}))) {
            all.push_back({cell_chance(seed, x, y), *spot});
            break;
          }
    return all;
  }

 private:
  // On top of a tile that is solid, with nothing solid above; within the cell of one that is not.
  std::optional<Vec2> spot_in(const LevelLayer& layer, IVec2 cell, Vec2 tile) const {
    const TileCell its = TileCell::from(layer.tiles.at(cell.x, cell.y));
    const int material = layer.painted.at(cell.x, cell.y) - 1;
    const auto listed = [](const std::vector<int>& sorted, int index) {
      return std::binary_search(sorted.begin(), sorted.end(), index);
    };
    if (!listed(scatter_.on_materials, material) && !listed(scatter_.on_tiles, its.tile)) return std::nullopt;
    const Vec2 corner = Vec2(cell) * tile;
    const CellForm* const form = layer.blocks() ? level_.solid.form(cell.x, cell.y) : nullptr;
    if (!form) return corner + Vec2{tile.x / 2, tile.y};
    if (level_.solid.solid(cell.x, cell.y - 1)) return std::nullopt;
    return corner + Vec2{tile.x / 2, top_of(*form, tile)};
  }

  const Level& level_;
  const LevelScatter& scatter_;
  const LevelZone* zone_;
};

std::vector<Vec2> anywhere(const Level& level, const LevelScatter& scatter, const LevelZone* zone,
                           std::uint64_t seed) {
  const Rect area = zone ? zone->area : Rect{{0, 0}, Vec2(level.size())};
  Chosen chosen(scatter.count, scatter.apart);
  Random chance(seed);
  const int most_tries = scatter.count * 50;
  for (int i = 0; i < most_tries && !chosen.full(); ++i) {
    const float x = chance.within(area.left(), area.right());
    const float y = chance.within(area.top(), area.bottom());
    const Vec2 at{std::floor(x), std::floor(y)};
    if (!zone || zone->contains(at)) chosen.add(at);
  }
  return chosen.take();
}

}  // namespace

std::vector<Vec2> Level::scattered(const LevelScatter& scatter, std::uint64_t seed) const {
  const LevelZone* const its_zone = scatter.zone.empty() ? nullptr : &zone(scatter.zone);
  if (scatter.on_tiles.empty() && scatter.on_materials.empty())
    return anywhere(*this, scatter, its_zone, seed);
  std::vector<Candidate> candidates = Ground(*this, scatter, its_zone).candidates(seed);
  // Two cells with one number would otherwise come in an order that a sort chooses.
  std::sort(candidates.begin(), candidates.end(), [](const Candidate& a, const Candidate& b) {
    return std::tuple(a.order, a.at.y, a.at.x) < std::tuple(b.order, b.at.y, b.at.x);
  });
  Chosen chosen(scatter.count, scatter.apart);
  for (const Candidate& candidate : candidates) {
    if (chosen.full()) break;
    chosen.add(candidate.at);
  }
  return chosen.take();
}

}  // namespace vole
