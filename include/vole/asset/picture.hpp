// Pixels ready to be drawn: alpha multiplied in, and how transparent each area is known, so that the
// renderer copies what is opaque and blends only what must be blended.
#pragma once

#include "vole/asset/asset_type.hpp"
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

// A part of a picture, ready to be drawn. A packed frame may have lost its transparent borders; `size` and
// `offset` give them back, so that positions in a frame mean the same before and after packing.
struct Frame {
  IRect area;  // in the picture; empty when there is nothing to see
  Alpha alpha = Alpha::opaque;
  const Picture* picture = nullptr;  // kept alive by whoever holds the frame
  IVec2 size{0, 0};                  // with its borders
  IVec2 offset{0, 0};                // of the area within the whole frame
  IVec2 pivot{0, 0};                 // in the whole frame
};

// The frame that shows this part of a picture, its pivot at the top left.
Frame frame_of(const Picture& picture, const IRect& area);

template <>
struct AssetType<Picture> {
  static constexpr std::string_view word = "picture";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".png";
  static Picture load(Loading& loading);
};

}  // namespace vole
