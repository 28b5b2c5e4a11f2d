// Pixels ready to be drawn: alpha multiplied in, and each area's sort of transparency known, so that the
// renderer copies what is opaque and blends only what must be blended.
#pragma once

#include "vole/asset/catalog.hpp"
#include "vole/asset/image.hpp"

namespace vole {

// opaque: every pixel hides what is below. cutout: each pixel hides all or nothing. blended: some let light
// through.
enum class Alpha { opaque, cutout, blended };

class Picture {
 public:
  Picture() = default;
  explicit Picture(const Image& image);

  IVec2 size() const { return pixels_.size(); }
  IRect area() const { return pixels_.area(); }

  // Premultiplied pixels.
  const Colour* row(int y) const { return pixels_.row(y); }

  // How transparent this part is; parts outside the picture count as fully transparent.
  Alpha alpha_of(const IRect& part) const;

 private:
  Image pixels_;
};

// A part of a picture, ready to be drawn.
struct Frame {
  IRect area;
  Alpha alpha = Alpha::opaque;
};

template <>
struct AssetSort<Picture> {
  static constexpr std::string_view word = "picture";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".png";
  static Picture load(Loading& loading);
};

}  // namespace vole
