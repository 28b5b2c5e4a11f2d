#include "vole/asset/packing.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <numeric>

#include "vole/base/error.hpp"

#define STB_RECT_PACK_IMPLEMENTATION
#define STBRP_STATIC
#if defined(__GNUC__)
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wsign-conversion"
#pragma GCC diagnostic ignored "-Wunused-function"
#endif
#include <stb/stb_rect_pack.h>
#if defined(__GNUC__)
#pragma GCC diagnostic pop
#endif

namespace vole {
namespace {

struct Attempt {
  std::vector<stbrp_rect> rects;
  IVec2 used{0, 0};
  bool complete = false;

  std::int64_t area() const { return std::int64_t{used.x} * used.y; }
};

Attempt try_page(std::vector<stbrp_rect> rects, IVec2 page) {
  std::vector<stbrp_node> nodes(static_cast<std::size_t>(page.x));
  stbrp_context context{};
  stbrp_init_target(&context, page.x, page.y, nodes.data(), page.x);
  stbrp_setup_heuristic(&context, STBRP_HEURISTIC_Skyline_BF_sortHeight);
  Attempt attempt{std::move(rects), {0, 0}, false};
  attempt.complete =
      stbrp_pack_rects(&context, attempt.rects.data(), static_cast<int>(attempt.rects.size())) != 0;
  for (const stbrp_rect& rect : attempt.rects)
    if (rect.was_packed)
      attempt.used = {std::max(attempt.used.x, rect.x + rect.w), std::max(attempt.used.y, rect.y + rect.h)};
  return attempt;
}

// The smallest page that holds them all, of several widths; or a full page with what fits.
Attempt best_page(const std::vector<stbrp_rect>& rects, IVec2 largest) {
  std::int64_t area = 0;
  int widest = 1;
  for (const stbrp_rect& rect : rects) {
    area += std::int64_t{rect.w} * rect.h;
    widest = std::max(widest, rect.w);
  }
  Attempt best = try_page(rects, largest);
  if (!best.complete) return best;
  const double side = std::sqrt(static_cast<double>(area));
  // Fewer tries where each takes long: many rectangles fill any page well.
  const int step = rects.size() > 2000 ? 6 : 1;
  for (int eighth = 6; eighth <= 24; eighth += step) {
    const int width = std::clamp(static_cast<int>(side * eighth / 8), widest, largest.x);
    Attempt attempt = try_page(rects, {width, largest.y});
    if (attempt.complete && attempt.area() < best.area()) best = std::move(attempt);
  }
  return best;
}

// Which of several rectangles of one size went where is up to the C library's sort; put in order here.
void settle_equal_sizes(const std::vector<IVec2>& sizes, Packing& packing) {
  std::vector<std::size_t> order(sizes.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  const auto size_key = [&](std::size_t i) { return std::pair(sizes[i].x, sizes[i].y); };
  std::stable_sort(order.begin(), order.end(),
                   [&](std::size_t a, std::size_t b) { return size_key(a) < size_key(b); });
  for (std::size_t first = 0, end = 0; first < order.size(); first = end) {
    while (end < order.size() && size_key(order[end]) == size_key(order[first])) ++end;
    std::vector<Packing::Placed> spots;
    for (std::size_t i = first; i < end; ++i) spots.push_back(packing.placed[order[i]]);
    std::sort(spots.begin(), spots.end(), [](const Packing::Placed& a, const Packing::Placed& b) {
      return std::tuple(a.page, a.at.y, a.at.x) < std::tuple(b.page, b.at.y, b.at.x);
    });
    for (std::size_t i = first; i < end; ++i) packing.placed[order[i]] = spots[i - first];
  }
}

}  // namespace

Packing pack(const std::vector<IVec2>& sizes, IVec2 largest_page) {
  constexpr std::size_t most_pages = 1024;
  Packing packing;
  packing.placed.resize(sizes.size());
  std::vector<stbrp_rect> left;
  std::int64_t area = 0;
  for (std::size_t i = 0; i < sizes.size(); ++i) {
    if (sizes[i].x <= 0 || sizes[i].y <= 0) continue;
    if (sizes[i].x > largest_page.x || sizes[i].y > largest_page.y)
      throw Error(FilePosition{},
                  fmt::format("{} x {} pixels do not fit on a page of {} x {}", sizes[i].x, sizes[i].y,
                              largest_page.x, largest_page.y),
                  "allow larger pages");
    area += std::int64_t{sizes[i].x} * sizes[i].y;
    left.push_back({static_cast<int>(i), sizes[i].x, sizes[i].y, 0, 0, 0});
  }
  const std::int64_t page_area = std::int64_t{largest_page.x} * largest_page.y;
  while (!left.empty()) {
    // Seen before the work where the area alone says so.
    if (area > static_cast<std::int64_t>(most_pages) * page_area || packing.pages.size() == most_pages)
      throw Error(FilePosition{},
                  fmt::format("{} rectangles need more than {} pages of {} x {}", sizes.size(), most_pages,
                              largest_page.x, largest_page.y),
                  "allow larger pages");
    const Attempt attempt = best_page(left, largest_page);
    left.clear();
    for (const stbrp_rect& rect : attempt.rects) {
      if (rect.was_packed)
        packing.placed[static_cast<std::size_t>(rect.id)] = {static_cast<int>(packing.pages.size()),
                                                             {rect.x, rect.y}};
      else
        left.push_back({rect.id, rect.w, rect.h, 0, 0, 0});
    }
    packing.pages.push_back(attempt.used);
  }
  settle_equal_sizes(sizes, packing);
  return packing;
}

}  // namespace vole
