#include "support.hpp"
#include "vole/asset/picture.hpp"

namespace {

vole::Image random_image(vole::Random& chance, vole::IVec2 size) {
  vole::Image image(size);
  for (int y = 0; y < size.y; ++y)
    for (int x = 0; x < size.x; ++x) {
      const std::uint32_t bits = chance.next();
      image.at(x, y) = {static_cast<std::uint8_t>(bits), static_cast<std::uint8_t>(bits >> 8),
                        static_cast<std::uint8_t>(bits >> 16), static_cast<std::uint8_t>(bits >> 24)};
    }
  return image;
}

std::string decoding(const vole::Bytes& bytes) {
  try {
    vole::decode_png(bytes, vole::FilePosition::whole_file("p.png"));
  } catch (const vole::Error& error) {
    return error.what();
  }
  return {};
}

// A header that claims any size, with nothing behind it.
vole::Bytes claims(std::uint32_t width, std::uint32_t height) {
  vole::Bytes bytes{0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n', 0, 0, 0, 13, 'I', 'H', 'D', 'R'};
  for (const std::uint32_t side : {width, height})
    for (int shift = 24; shift >= 0; shift -= 8) bytes.push_back(static_cast<unsigned char>(side >> shift));
  bytes.insert(bytes.end(), {8, 6, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 'I', 'E', 'N', 'D', 0, 0, 0, 0});
  return bytes;
}

}  // namespace

TEST_CASE("a picture that is saved and loaded is the same, pixel for pixel") {
  vole::Random chance(5);
  for (int i = 0; i < 40; ++i) {
    const vole::Image image = random_image(
        chance, {static_cast<int>(chance.below(40)) + 1, static_cast<int>(chance.below(40)) + 1});
    REQUIRE(vole::decode_png(vole::encode_png(image), {}) == image);
  }
}

TEST_CASE("a picture cut off anywhere is refused") {
  vole::Random chance(6);
  const vole::Bytes whole = vole::encode_png(random_image(chance, {9, 9}));
  // Without the checksum behind its closing mark nothing is lost yet.
  for (std::size_t length = 0; length + 4 < whole.size(); ++length) {
    CAPTURE(length);
    const std::string message =
        decoding({whole.begin(), whole.begin() + static_cast<std::ptrdiff_t>(length)});
    REQUIRE(message.find("p.png: error: is ") == 0);
  }
}

TEST_CASE("a picture that claims to be huge is refused before memory is asked for") {
  CHECK(decoding(claims(60000, 60000)) ==
        "p.png: error: is 60000 x 60000 pixels; the most is 16384 along a side and 32 million in all");
  CHECK(decoding(claims(16384, 16384)).find("32 million") != std::string::npos);
  CHECK(decoding(claims(0, 5)) == "p.png: error: is a picture without pixels");
  CHECK(decoding({'G', 'I', 'F'}) == "p.png: error: is not a PNG picture");
  CHECK(decoding({}) == "p.png: error: is not a PNG picture; the file is empty");
}

TEST_CASE("a picture knows how transparent its parts are") {
  vole::Image image({6, 2}, {10, 20, 30, 255});
  image.at(2, 0) = vole::clear;
  image.at(4, 1) = {200, 100, 50, 128};
  const vole::Picture picture(image);
  CHECK(picture.alpha_of({{0, 0}, {2, 2}}) == vole::Alpha::opaque);
  CHECK(picture.alpha_of({{1, 0}, {2, 2}}) == vole::Alpha::cutout);
  CHECK(picture.alpha_of({{2, 0}, {4, 2}}) == vole::Alpha::blended);
  CHECK(picture.alpha_of({{5, 0}, {4, 2}}) == vole::Alpha::cutout);  // reaches outside
  CHECK(picture.row(1)[4] == vole::Colour{100, 50, 25, 128});
}
