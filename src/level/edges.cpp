#include "vole/level/edges.hpp"

#include <algorithm>
#include <compare>

#include "cell_chance.hpp"

namespace vole {
namespace {

constexpr Neighbours sides_mask = 0b01010101;

constexpr bool has(Neighbours neighbours, int bit) {
  return (neighbours >> (bit & 7) & 1) != 0;
}

// How many of the bits that differ are sides, how many corners, and how many neighbours are lacking.
struct Distance {
  int sides = 0, corners = 0, lacking = 0;
  friend auto operator<=>(const Distance&, const Distance&) = default;
};

int count_bits(int bits) {
  int count = 0;
  for (; bits != 0; bits &= bits - 1) ++count;
  return count;
}

Distance distance(Neighbours wanted, Neighbours there) {
  const int differ = wanted ^ there;
  return {count_bits(differ & sides_mask), count_bits(differ & ~sides_mask), -count_bits(there)};
}

}  // namespace

Neighbours that_matter(Neighbours neighbours, NeighbourSet set) {
  int matter = neighbours & sides_mask;
  for (int corner = 1; corner < neighbour_count; corner += 2)
    if (has(neighbours, corner) && has(neighbours, corner - 1) && has(neighbours, corner + 1))
      matter |= 1 << corner;
  if (set == NeighbourSet::four) matter &= sides_mask;
  if (set == NeighbourSet::diagonal) matter &= ~sides_mask;
  return static_cast<Neighbours>(matter);
}

const std::vector<Neighbours>& cases_of(NeighbourSet set) {
  static const auto all = [] {
    std::array<std::vector<Neighbours>, 3> cases;
    for (const NeighbourSet each : {NeighbourSet::four, NeighbourSet::diagonal, NeighbourSet::eight}) {
      std::vector<Neighbours>& its = cases[static_cast<std::size_t>(each)];
      for (int neighbours = 0; neighbours < 256; ++neighbours)
        its.push_back(that_matter(static_cast<Neighbours>(neighbours), each));
      std::sort(its.begin(), its.end());
      its.erase(std::unique(its.begin(), its.end()), its.end());
    }
    return cases;
  }();
  return all[static_cast<std::size_t>(set)];
}

std::string to_text(Neighbours neighbours, NeighbourSet set) {
  if (neighbours == 0) return "none";
  if (neighbours == that_matter(0xff, set)) return "all";
  std::string text;
  for (int i = 0; i < neighbour_count; ++i) {
    if (!has(neighbours, i)) continue;
    if (!text.empty()) text += ", ";
    text += neighbour_names[static_cast<std::size_t>(i)];
  }
  return text;
}

void TileMaterial::find_nearest_cases() {
  for (int around = 0; around < 256; ++around) {
    const Neighbours wanted = that_matter(static_cast<Neighbours>(around), neighbours);
    const auto nearest = std::min_element(cases.begin(), cases.end(), [&](const Case& a, const Case& b) {
      return distance(wanted, a.neighbours) < distance(wanted, b.neighbours);
    });
    by_neighbours[static_cast<std::size_t>(around)] = static_cast<std::uint8_t>(nearest - cases.begin());
  }
}

std::vector<Neighbours> TileMaterial::missing() const {
  std::vector<Neighbours> missing = cases_of(neighbours);
  std::erase_if(missing, [this](Neighbours each) {
    return std::any_of(cases.begin(), cases.end(),
                       [each](const Case& its) { return its.neighbours == each; });
  });
  return missing;
}

int TileMaterial::tile(Neighbours around, std::int64_t x, std::int64_t y) const {
  const std::vector<Choice>& choices = cases[by_neighbours[around]].choices;
  if (choices.size() == 1) return choices[0].tile;
  return choices[choose_by_weight(choices, cell_chance(seed, x, y),
                                  [](const Choice& choice) { return choice.weight; })]
      .tile;
}

Neighbours neighbours_of(const std::vector<TileMaterial>& materials, const MaterialGrid& painted,
                         const TileGrid& tiles, IVec2 cell) {
  const int mine = painted.find(cell) - 1;
  const TileMaterial& material = materials[static_cast<std::size_t>(mine)];
  const auto joins = [](const std::vector<int>& joined, int index) {
    return std::binary_search(joined.begin(), joined.end(), index);
  };
  int neighbours = 0;
  for (std::size_t i = 0; i < neighbour_steps.size(); ++i) {
    const IVec2 at = cell + neighbour_steps[i];
    const int other = painted.find(at) - 1;
    const bool counts = !painted.contains(at.x, at.y) || other == mine ||
                        (other >= 0 ? joins(material.joined_materials, other)
                                    : joins(material.joined_tiles, TileCell::from(tiles.find(at)).tile));
    if (counts) neighbours |= 1 << i;
  }
  return static_cast<Neighbours>(neighbours);
}

std::uint16_t edge_tile(const std::vector<TileMaterial>& materials, const MaterialGrid& painted,
                        const TileGrid& tiles, IVec2 cell, IVec2 origin) {
  const TileMaterial& material = materials[painted.find(cell) - 1u];
  const IVec2 placed = cell + origin;
  return TileCell{material.tile(neighbours_of(materials, painted, tiles, cell), placed.x, placed.y)}.number();
}

}  // namespace vole
