// Frames of many pictures put onto few: transparent borders cut away, equal frames kept once.
#pragma once

#include <cstdint>
#include <map>
#include <string>
#include <vector>

#include "vole/asset/image.hpp"

class AtlasPages {
 public:
  struct Spot {
    int page = 0;
    vole::IRect area;          // on the page; empty for a frame with nothing to see
    vole::IVec2 offset{0, 0};  // of the area in the whole frame
  };

  // Takes in a part of a picture and returns its number. Throws Error when there are more than 64 million pixels.
  std::size_t add(const vole::Image& picture, const vole::IRect& frame);
  // Lays out all frames on pages of at most this side. Throws Error for a frame that does not fit.
  void lay_out(int largest_side);

  Spot spot(std::size_t frame) const;
  const std::vector<vole::Image>& pages() const { return pages_; }
  std::size_t frames() const { return frames_.size(); }
  std::size_t different() const { return cuts_.size(); }
  // The share of the pages' area that frames and their edges cover.
  double used() const { return used_; }

 private:
  struct Cut {
    vole::Image image;
    int page = 0;
    vole::IVec2 at{0, 0};
  };
  struct Frame {
    std::size_t cut = 0;
    vole::IVec2 offset{0, 0};
    bool empty = false;
  };

  void paint(const Cut& cut);

  std::vector<Frame> frames_;
  std::vector<Cut> cuts_;
  std::map<std::string, std::size_t> by_pixels_;
  std::vector<vole::Image> pages_;
  std::int64_t pixels_ = 0;  // of all cuts
  double used_ = 0;
};
