// A part of a picture that is painted dot by dot, in the example games' palette.
#pragma once

#include "grid.hpp"
#include "vole/draw/light.hpp"

namespace paint {

using vole::IVec2;

// Ordered dithering: whether this dot is one of so large a share.
inline bool dithered(int x, int y, float share) {
  return (static_cast<float>(vole::dither_at(x, y)) + 0.5f) / 16 < share;
}

// With its own top left; what lies outside is left alone.
class Part {
 public:
  Part(Image& image, IVec2 corner, IVec2 size) : image_(image), corner_(corner), size_(size) {}

  void dot(int x, int y, char letter) {
    if (x >= 0 && y >= 0 && x < size_.x && y < size_.y) image_.at(corner_.x + x, corner_.y + y) = ink(letter);
  }
  void box(int x, int y, int width, int height, char letter) {
    for (int dy = 0; dy < height; ++dy)
      for (int dx = 0; dx < width; ++dx) dot(x + dx, y + dy, letter);
  }
  // Every dot by letter(x, y).
  template <class Letter>
  void fill(const Letter& letter) {
    for (int y = 0; y < size_.y; ++y)
      for (int x = 0; x < size_.x; ++x) dot(x, y, letter(x, y));
  }

 private:
  Image& image_;
  IVec2 corner_, size_;
};

// Which sides of a cell of a material with neighbours = "four" are open, by the number of its case.
struct Open {
  explicit Open(int number)
      : above((number & 1) == 0),
        right((number & 2) == 0),
        below((number & 4) == 0),
        left((number & 8) == 0) {}
  bool above, right, below, left;
};

}  // namespace paint
