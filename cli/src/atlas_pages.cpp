#include "atlas_pages.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/packing.hpp"
#include "vole/base/error.hpp"

namespace {

using vole::Colour;
using vole::Image;
using vole::IRect;
using vole::IVec2;

// The smallest part of the area that holds everything to be seen in it.
IRect seen_part(const Image& picture, const IRect& area) {
  IVec2 first = area.at + area.size, end = area.at;
  for (int y = area.top(); y < area.bottom(); ++y)
    for (int x = area.left(); x < area.right(); ++x)
      if (picture.at(x, y).a != 0) {
        first = {std::min(first.x, x), std::min(first.y, y)};
        end = {std::max(end.x, x + 1), std::max(end.y, y + 1)};
      }
  return end.x <= first.x ? IRect{area.at, {0, 0}} : IRect{first, end - first};
}

Image copy_of(const Image& picture, const IRect& area) {
  Image copy(area.size);
  for (int y = 0; y < area.size.y; ++y)
    for (int x = 0; x < area.size.x; ++x) {
      const Colour pixel = picture.at(area.left() + x, area.top() + y);
      copy.at(x, y) = pixel.a == 0 ? vole::clear : pixel;
    }
  return copy;
}

// Size and pixels as a key.
std::string key_of(const Image& image) {
  std::string key = std::to_string(image.size().x) + ":";
  key.reserve(key.size() +
              static_cast<std::size_t>(image.size().x) * static_cast<std::size_t>(image.size().y) * 4);
  for (int y = 0; y < image.size().y; ++y)
    for (int x = 0; x < image.size().x; ++x) {
      const Colour pixel = image.at(x, y);
      for (const std::uint8_t part : {pixel.r, pixel.g, pixel.b, pixel.a}) key += static_cast<char>(part);
    }
  return key;
}

// The edge all round, which keeps neighbours from showing where a frame is scaled or turned.
constexpr int edge = 1;

}  // namespace

std::size_t AtlasPages::add(const Image& picture, const IRect& area) {
  const IRect seen = seen_part(picture, area);
  Frame frame{0, seen.at - area.at, seen.empty()};
  if (!frame.empty) {
    Image image = copy_of(picture, seen);
    const std::int64_t pixels = std::int64_t{seen.size.x} * seen.size.y;
    constexpr std::int64_t most_pixels = 64'000'000;
    const auto [found, is_new] = by_pixels_.emplace(key_of(image), cuts_.size());
    frame.cut = found->second;
    if (is_new) {
      cuts_.push_back({std::move(image), 0, {0, 0}});
      pixels_ += pixels;
      if (pixels_ > most_pixels)
        throw vole::Error(
            vole::FilePosition{},
            fmt::format("the pictures have more than {} million different pixels in all, which is more "
                        "than one atlas takes",
                        most_pixels / 1'000'000),
            "make one of each folder below this one");
    }
  }
  frames_.push_back(frame);
  return frames_.size() - 1;
}

void AtlasPages::lay_out(int largest_side) {
  // In an order that the pixels alone decide, so that the pages do not depend on what was added first.
  std::vector<IVec2> sizes;
  std::vector<std::size_t> order;
  for (const auto& [key, index] : by_pixels_) {
    order.push_back(index);
    sizes.push_back(cuts_[index].image.size() + IVec2{2 * edge, 2 * edge});
  }
  // A page is a picture, which has its own limit.
  const auto highest = static_cast<int>(Image::most_pixels / largest_side);
  const vole::Packing packing = vole::pack(sizes, {largest_side, std::min(largest_side, highest)});
  double covered = 0, whole = 0;
  for (const IVec2 page : packing.pages) {
    pages_.emplace_back(page);
    whole += static_cast<double>(page.x) * page.y;
  }
  for (std::size_t i = 0; i < order.size(); ++i) {
    Cut& cut = cuts_[order[i]];
    cut.page = packing.placed[i].page;
    cut.at = packing.placed[i].at + IVec2{edge, edge};
    covered += static_cast<double>(sizes[i].x) * sizes[i].y;
    paint(cut);
  }
  used_ = whole > 0 ? covered / whole : 1;
}

void AtlasPages::paint(const Cut& cut) {
  Image& page = pages_[static_cast<std::size_t>(cut.page)];
  const IVec2 last = cut.image.size() - IVec2{1, 1};
  for (int y = -edge; y <= last.y + edge; ++y)
    for (int x = -edge; x <= last.x + edge; ++x)
      page.at(cut.at.x + x, cut.at.y + y) = cut.image.at(std::clamp(x, 0, last.x), std::clamp(y, 0, last.y));
}

AtlasPages::Spot AtlasPages::spot(std::size_t index) const {
  const Frame& frame = frames_.at(index);
  if (frame.empty) return {0, {{0, 0}, {0, 0}}, {0, 0}};
  const Cut& cut = cuts_[frame.cut];
  return {cut.page, {cut.at, cut.image.size()}, frame.offset};
}
