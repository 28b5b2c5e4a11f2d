#include "vole/physics/pair_finder.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>

#include "boxes.hpp"
#include "vole/base/error.hpp"

namespace vole {
namespace {

// A box that reaches over more strips is compared with all others; there are few, since strips are as high as the average.
constexpr std::int64_t most_strips = 64;

// Where no roles are given.
constexpr std::array<PairRoles, 1> all_alike{};

double height_of_strips(std::span<const Rect> boxes) {
  double sum = 0;
  std::size_t count = 0;
  for (const Rect& box : boxes)
    if (is_finite(box)) {
      sum += std::max(static_cast<double>(box.size.y), 0.0);
      ++count;
    }
  return std::max(2 * sum / static_cast<double>(std::max<std::size_t>(count, 1)), 1.0 / 256);
}

std::int64_t strip_of(float y, double height) {
  constexpr double furthest = 4e18;
  return static_cast<std::int64_t>(
      std::clamp(std::floor(static_cast<double>(y) / height), -furthest, furthest));
}

}  // namespace

void PairFinder::deal(std::span<const Rect> boxes) {
  height_ = height_of_strips(boxes);
  dealt_.clear();
  tall_.clear();
  for (std::uint32_t place = 0; place < boxes.size(); ++place) {
    const Rect& box = boxes[place];
    if (!is_finite(box)) continue;
    const std::int64_t first = strip_of(box.top(), height_), last = strip_of(box.bottom(), height_);
    if (last - first >= most_strips) {
      tall_.push_back(place);
      continue;
    }
    for (std::int64_t strip = first; strip <= last; ++strip)
      dealt_.push_back(
          {box.left(), box.right(), box.top(), box.bottom(), place, roles_of(place), strip, strip == first});
  }
  // Strips far apart may share a group; there are about as many groups as there would be strips side by side.
  const std::size_t groups = std::bit_ceil(dealt_.size() / 16 + 1);
  const auto group_of = [groups](const Dealt& dealt) {
    return static_cast<std::size_t>(dealt.strip) & (groups - 1);
  };
  ends_.assign(groups, 0);
  for (const Dealt& dealt : dealt_) ++ends_[group_of(dealt)];
  std::uint32_t end = 0;
  for (std::uint32_t& count : ends_) end += std::exchange(count, end);
  sorted_.resize(dealt_.size());
  for (const Dealt& dealt : dealt_) sorted_[ends_[group_of(dealt)]++] = dealt;
}

void PairFinder::find_roles(std::span<const PairRoles> roles) {
  distinct_roles_.clear();
  roles_of_.clear();
  for (const PairRoles& its : roles) {
    // Neighbours in the list are mostly alike.
    std::size_t group = roles_of_.empty() ? 0 : roles_of_.back();
    if (distinct_roles_.empty() || !(distinct_roles_[group] == its))
      group = static_cast<std::size_t>(std::find(distinct_roles_.begin(), distinct_roles_.end(), its) -
                                       distinct_roles_.begin());
    if (group == distinct_roles_.size()) distinct_roles_.push_back(its);
    roles_of_.push_back(static_cast<std::uint32_t>(group));
  }
  pairing_.resize(distinct_roles_.size() * distinct_roles_.size());
  for (std::size_t a = 0; a < distinct_roles_.size(); ++a)
    for (std::size_t b = 0; b < distinct_roles_.size(); ++b)
      pairing_[a * distinct_roles_.size() + b] = distinct_roles_[a].pairs_with(distinct_roles_[b]) ? 1 : 0;
}

void PairFinder::add(std::uint32_t a, std::uint32_t b, std::vector<IndexPair>& found) const {
  if (found.size() == most)
    throw Error(FilePosition{}, fmt::format("more than {} pairs of bodies touch in one tick", most),
                "things of kinds that are to meet lie on one spot");
  found.emplace_back(std::min(a, b), std::max(a, b));
}

void PairFinder::add(const Dealt& a, const Dealt& b, std::vector<IndexPair>& found) const {
  // Told in the first strip that both are in.
  if (a.top <= b.bottom && b.top <= a.bottom && a.strip == b.strip && (a.starts_here || b.starts_here))
    add(a.place, b.place, found);
}

void PairFinder::sweep_alike(std::span<const Dealt> group, std::vector<IndexPair>& found) const {
  for (std::size_t i = 0; i < group.size(); ++i)
    for (std::size_t j = i + 1; j < group.size() && group[j].left <= group[i].right; ++j)
      add(group[i], group[j], found);
}

void PairFinder::sweep_two(std::span<const Dealt> group, std::span<const Dealt> other,
                           std::vector<IndexPair>& found) const {
  std::size_t a = 0, b = 0;
  while (a < group.size() && b < other.size()) {
    const bool a_is_first = group[a].left <= other[b].left;
    const Dealt& first = a_is_first ? group[a++] : other[b++];
    const std::span<const Dealt> rest = a_is_first ? other.subspan(b) : group.subspan(a);
    for (std::size_t i = 0; i < rest.size() && rest[i].left <= first.right; ++i) add(first, rest[i], found);
  }
}

void PairFinder::sweep(std::span<Dealt> strip, std::vector<IndexPair>& found) const {
  std::sort(strip.begin(), strip.end(), [](const Dealt& a, const Dealt& b) {
    return a.roles != b.roles ? a.roles < b.roles : a.left < b.left;
  });
  const auto end_of_alike = [&strip](std::size_t start) {
    std::size_t end = start;
    while (end < strip.size() && strip[end].roles == strip[start].roles) ++end;
    return end;
  };
  for (std::size_t start = 0; start < strip.size();) {
    const std::size_t end = end_of_alike(start);
    const std::span<const Dealt> group = strip.subspan(start, end - start);
    if (roles_pair(group[0].roles, group[0].roles)) sweep_alike(group, found);
    for (std::size_t next = end; next < strip.size();) {
      const std::size_t next_end = end_of_alike(next);
      if (roles_pair(group[0].roles, strip[next].roles))
        sweep_two(group, strip.subspan(next, next_end - next), found);
      next = next_end;
    }
    start = end;
  }
}

void PairFinder::add_tall(std::span<const Rect> boxes, std::vector<IndexPair>& found) const {
  for (const std::uint32_t tall : tall_)
    for (std::uint32_t other = 0; other < boxes.size(); ++other) {
      const bool other_is_tall = std::binary_search(tall_.begin(), tall_.end(), other);
      if (other == tall || (other_is_tall && other < tall) || !is_finite(boxes[other])) continue;
      if (roles_pair(roles_of(tall), roles_of(other)) && share_a_point(boxes[tall], boxes[other]))
        add(tall, other, found);
    }
}

void PairFinder::find(std::span<const Rect> boxes, std::span<const PairRoles> roles,
                      std::vector<IndexPair>& found) {
  find_roles(roles.empty() ? std::span(all_alike) : roles);
  const auto start = static_cast<std::ptrdiff_t>(found.size());
  deal(boxes);
  std::uint32_t from = 0;
  for (const std::uint32_t end : ends_) {
    sweep(std::span(sorted_).subspan(from, end - from), found);
    from = end;
  }
  add_tall(boxes, found);
  std::sort(found.begin() + start, found.end());
}

}  // namespace vole
