// Pictures in motion as a GIF (version 89a).
#pragma once

#include <functional>
#include <string>
#include <vector>

#include "vole/asset/image.hpp"

struct Gif {
  vole::IVec2 size{1, 1};
  std::vector<int> hundredths;  // of a second, for which each frame is shown
  std::function<vole::Image(std::size_t)>
      draw;  // the frame; called more than once, so that none must be kept
};

// Repeats for ever. Frames with more than 256 colours in all have 256 each. Throws vole::Error when it cannot
// be written.
void write_gif(const std::string& path, const Gif& gif);
