// A picture as its file has it: rows of pixels with straight alpha, top row first. For loading, painting and
// saving; what is drawn each frame is a Picture (picture.hpp).
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"
#include "vole/base/rect.hpp"

namespace vole {

class Image {
 public:
  // The most pixels along one side that any picture may have.
  static constexpr int longest_side = 16384;
  static constexpr std::int64_t most_pixels = 32'000'000;

  Image() = default;
  explicit Image(IVec2 size, Colour fill = clear);

  IVec2 size() const { return size_; }
  IRect area() const { return {{0, 0}, size_}; }
  bool empty() const { return pixels_.empty(); }

  Colour* row(int y) { return pixels_.data() + offset(y); }
  const Colour* row(int y) const { return pixels_.data() + offset(y); }
  Colour& at(int x, int y) { return row(y)[x]; }
  Colour at(int x, int y) const { return row(y)[x]; }

  void fill(Colour colour);
  // Another size, keeping its memory; what it shows is then anything.
  void resize(IVec2 size);

  friend bool operator==(const Image& a, const Image& b);

 private:
  std::size_t offset(int y) const { return static_cast<std::size_t>(y) * static_cast<std::size_t>(size_.x); }

  IVec2 size_{0, 0};
  std::vector<Colour> pixels_;
};

// Every variety of PNG, converted to 8 bits RGBA. Throws Error when the bytes are not a whole PNG or the
// picture has a side longer than Image::longest_side or more than 32 million pixels.
Image decode_png(const Bytes& bytes, const FilePosition& where);
Image read_png(const std::string& path);

Bytes encode_png(const Image& image);
void write_png(const std::string& path, const Image& image);

// Whether a picture of this size, each pixel a square of factor x factor pixels, is no larger than any may be.
bool may_be_enlarged(IVec2 size, int factor);
// Each pixel becomes a square of factor x factor pixels.
Image enlarged(const Image& image, int factor);

}  // namespace vole
