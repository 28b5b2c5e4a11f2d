#include "icon.hpp"

#include <algorithm>
#include <array>

namespace {

using vole::Bytes;
using vole::Colour;
using vole::Image;

// The mean of the pixels of an area, each weighed by its alpha.
Colour average(const Image& picture, const vole::IRect& area) {
  std::array<std::int64_t, 4> sum{};
  for (int y = area.top(); y < area.bottom(); ++y)
    for (int x = area.left(); x < area.right(); ++x) {
      const Colour pixel = picture.at(x, y);
      sum[0] += pixel.r * pixel.a;
      sum[1] += pixel.g * pixel.a;
      sum[2] += pixel.b * pixel.a;
      sum[3] += pixel.a;
    }
  if (sum[3] == 0) return vole::clear;
  const auto part = [&sum](std::size_t i, std::int64_t of) {
    return static_cast<std::uint8_t>((sum[i] + of / 2) / of);
  };
  return {part(0, sum[3]), part(1, sum[3]), part(2, sum[3]),
          part(3, std::int64_t{area.size.x} * area.size.y)};
}

Image shrunk(const Image& picture, vole::IVec2 size) {
  Image small(size);
  for (int y = 0; y < size.y; ++y)
    for (int x = 0; x < size.x; ++x) {
      const vole::IVec2 from{x * picture.size().x / size.x, y * picture.size().y / size.y};
      const vole::IVec2 to{(x + 1) * picture.size().x / size.x, (y + 1) * picture.size().y / size.y};
      small.at(x, y) = average(picture, {from, {std::max(to.x - from.x, 1), std::max(to.y - from.y, 1)}});
    }
  return small;
}

void put(Bytes& out, std::uint32_t value, int bytes) {
  for (int i = 0; i < bytes; ++i) out.push_back(static_cast<unsigned char>(value >> (8 * i)));
}

// As a bitmap without its file's head: rows from the bottom, then a mask of which nothing is used.
Bytes bitmap(const Image& picture) {
  const auto width = static_cast<std::uint32_t>(picture.size().x),
             height = static_cast<std::uint32_t>(picture.size().y);
  Bytes out;
  put(out, 40, 4);  // of this head
  put(out, width, 4);
  put(out, height * 2, 4);  // with the mask
  put(out, 1, 2);
  put(out, 32, 2);  // bits of a pixel
  put(out, 0, 24);
  for (int y = picture.size().y - 1; y >= 0; --y)
    for (int x = 0; x < picture.size().x; ++x) {
      const Colour pixel = picture.at(x, y);
      out.insert(out.end(), {pixel.b, pixel.g, pixel.r, pixel.a});
    }
  const std::uint32_t mask_row = (width + 31) / 32 * 4;
  out.resize(out.size() + std::size_t{mask_row} * height);
  return out;
}

}  // namespace

Image in_square(const Image& picture, int side) {
  const vole::IVec2 size = picture.size();
  const int longest = std::max(size.x, size.y);
  const Image fitted =
      longest <= side
          ? enlarged(picture, side / longest)
          : shrunk(picture, {std::max(size.x * side / longest, 1), std::max(size.y * side / longest, 1)});
  Image square({side, side}, vole::clear);
  const vole::IVec2 at{(side - fitted.size().x) / 2, (side - fitted.size().y) / 2};
  for (int y = 0; y < fitted.size().y; ++y)
    std::copy_n(fitted.row(y), fitted.size().x, square.row(at.y + y) + at.x);
  return square;
}

Bytes icon_file(const Image& picture) {
  constexpr std::array<int, 6> sides{16, 24, 32, 48, 64, 256};
  Bytes head, pictures;
  put(head, 0, 2);
  put(head, 1, 2);  // an icon
  put(head, static_cast<std::uint32_t>(sides.size()), 2);
  for (const int side : sides) {
    // Large ones may be PNG, which keeps the file small.
    const Image square = in_square(picture, side);
    const Bytes bytes = side == 256 ? encode_png(square) : bitmap(square);
    put(head, static_cast<std::uint32_t>(side % 256), 1);
    put(head, static_cast<std::uint32_t>(side % 256), 1);
    put(head, 0, 2);
    put(head, 1, 2);
    put(head, 32, 2);
    put(head, static_cast<std::uint32_t>(bytes.size()), 4);
    put(head, static_cast<std::uint32_t>(6 + 16 * sides.size() + pictures.size()), 4);
    pictures.insert(pictures.end(), bytes.begin(), bytes.end());
  }
  head.insert(head.end(), pictures.begin(), pictures.end());
  return head;
}
