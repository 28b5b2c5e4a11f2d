// Outlines of pictures, against a look at every pixel.
#include "vole/asset/outline.hpp"

#include <cmath>

#include "support.hpp"
#include "vole/physics/shape.hpp"

namespace {

using vole::Image;
using vole::IVec2;
using vole::OutlineParts;
using vole::Picture;
using vole::Shape;
using vole::Vec2;

// Islands and holes of every form: noise that was made smoother so many times.
Image random_blobs(vole::Random& chance, IVec2 size, int smoother) {
  Image image(size);
  const float share = chance.within(0.3f, 0.7f);
  for (int y = 0; y < size.y; ++y)
    for (int x = 0; x < size.x; ++x)
      if (chance.chance(share)) image.at(x, y) = vole::white;
  for (; smoother > 0; --smoother) {
    const Image before = image;
    for (int y = 0; y < size.y; ++y)
      for (int x = 0; x < size.x; ++x) {
        int around = 0;
        for (int dy = -1; dy <= 1; ++dy)
          for (int dx = -1; dx <= 1; ++dx)
            around += before.area().contains(IVec2{x + dx, y + dy}) && before.at(x + dx, y + dy).a > 0;
        image.at(x, y) = around >= 5 ? vole::white : vole::clear;
      }
  }
  return image;
}

double cross(Vec2 a, Vec2 b, Vec2 c) {
  const auto d = [](float one, float other) { return static_cast<double>(one) - static_cast<double>(other); };
  return d(b.x, a.x) * d(c.y, a.y) - d(b.y, a.y) * d(c.x, a.x);
}

int parts_with(const OutlineParts& parts, Vec2 point) {
  int count = 0;
  for (const std::vector<Vec2>& part : parts) {
    bool inside = true;
    for (std::size_t i = 0; i < part.size(); ++i)
      inside = inside && cross(part[i], part[(i + 1) % part.size()], point) > 0;
    count += inside;
  }
  return count;
}

// How many of the pixels that are nearer to a point than this are opaque, and how many are not.
struct Around {
  int opaque = 0, open = 0;
};
Around around(const Image& image, Vec2 point, float reach) {
  Around count;
  for (int y = static_cast<int>(std::floor(point.y - reach)); static_cast<float>(y) <= point.y + reach; ++y)
    for (int x = static_cast<int>(std::floor(point.x - reach)); static_cast<float>(x) <= point.x + reach;
         ++x) {
      const auto left = static_cast<float>(x), top = static_cast<float>(y);
      const Vec2 nearest{std::min(std::max(point.x, left), left + 1),
                         std::min(std::max(point.y, top), top + 1)};
      if (std::hypot(nearest.x - point.x, nearest.y - point.y) > reach) continue;
      const bool opaque = image.area().contains(IVec2{x, y}) && image.at(x, y).a >= 128;
      ++(opaque ? count.opaque : count.open);
    }
  return count;
}

}  // namespace

TEST_CASE(
    "the outline of any picture is no further off than the error, in convex parts that do not overlap") {
  vole::Random chance(61);
  int pictures = 0, inside = 0, outside = 0;
  for (int round = 0; round < cases(400); ++round) {
    const IVec2 size{2 + below(chance, 40), 2 + below(chance, 40)};
    const Image image = random_blobs(chance, size, below(chance, 4));
    const float error = chance.chance(0.3f) ? 0.25f : chance.within(0.25f, 3);
    const Picture picture(image);
    OutlineParts parts;
    try {
      parts = cut_outline(frame_of(picture, picture.area()), error);
    } catch (const vole::Error& error_of) {
      REQUIRE_THAT(error_of.what(), !Catch::Contains("cannot be cut"));
      continue;
    }
    ++pictures;
    CAPTURE(round, size.x, size.y, error);
    for (const std::vector<Vec2>& part : parts) {
      REQUIRE(vole::wrong_with_corners(part).empty());
      for (const Vec2 corner : part) {
        const Around near = around(image, corner, error + 0.19f);
        REQUIRE((near.opaque > 0 && near.open > 0));
      }
    }
    for (int sample = 0; sample < 300; ++sample) {
      const Vec2 point{chance.within(-2, static_cast<float>(size.x) + 2),
                       chance.within(-2, static_cast<float>(size.y) + 2)};
      CAPTURE(point.x, point.y);
      const Around near = around(image, point, error + 0.19f);
      const int found = parts_with(parts, point);
      REQUIRE(found <= 1);
      if (near.open == 0) {
        ++inside;
        // On a side that two parts share it is in none.
        if (found == 0) REQUIRE(parts_with(parts, point + Vec2{0.0013f, 0.0017f}) == 1);
      }
      if (near.opaque == 0) {
        ++outside;
        REQUIRE(found == 0);
      }
    }
  }
  CHECK(pictures > cases(400) / 2);
  CHECK(inside > cases(400) * 10);
  CHECK(outside > cases(400) * 20);
}

TEST_CASE("an outline is as simple as its error lets it be, and says what it cannot do") {
  Image image(IVec2{40, 40});
  for (int y = 0; y < 40; ++y)
    for (int x = 0; x < 40; ++x)
      if (std::hypot(x - 19.5, y - 19.5) < 18) image.at(x, y) = vole::Colour{200, 40, 40, 128};
  const auto outline = [](const Image& of, float error) {
    const Picture picture(of);
    return cut_outline(frame_of(picture, picture.area()), error);
  };
  const OutlineParts disc = outline(image, 1);
  CHECK(disc.size() == 1);
  CHECK(disc[0].size() <= 16);
  CHECK(outline(image, 0.25f).size() > 1);
  // Exactly a square, and nothing at all of pixels that are mostly transparent.
  Image square(IVec2{8, 8});
  for (int y = 2; y < 6; ++y)
    for (int x = 1; x < 7; ++x) square.at(x, y) = vole::white;
  CHECK(outline(square, 1) == OutlineParts{{{1, 2}, {7, 2}, {7, 6}, {1, 6}}});
  // A ring stays open in the middle.
  for (int y = 12; y < 28; ++y)
    for (int x = 12; x < 28; ++x) image.at(x, y) = vole::Colour{200, 40, 40, 127};
  const OutlineParts ring = outline(image, 1);
  CHECK(ring.size() > 1);
  CHECK(ring.size() <= 8);
  CHECK(parts_with(ring, {20, 20}) == 0);
  CHECK(parts_with(ring, {20.3f, 8.1f}) == 1);
  // A window with a bar: each of its five pieces is one part.
  Image window(IVec2{64, 64});
  for (int y = 0; y < 64; ++y)
    for (int x = 0; x < 64; ++x)
      if (x < 8 || y < 8 || x > 55 || y > 55 || (x > 28 && x < 36)) window.at(x, y) = vole::white;
  CHECK(outline(window, 1).size() == 5);
  CHECK_THROWS_WITH(outline(Image(IVec2{8, 8}), 1), Catch::Contains("nothing in the picture is opaque"));
  CHECK_THROWS_WITH(outline(square, 7), Catch::Contains("larger than the error"));
  Image dust(IVec2{512, 512});
  for (int y = 0; y < 512; y += 2)
    for (int x = 0; x < 512; x += 2) dust.at(x, y) = vole::white;
  CHECK_THROWS_WITH(outline(dust, 0.25f), Catch::Contains("too many corners"));
  CHECK_THROWS_WITH(outline(dust, 1), Catch::Contains("nothing in the picture"));
}
