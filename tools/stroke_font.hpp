// A TrueType font from letters drawn as strokes: see examples/allotment/art/hedgerow.txt for how they are
// written.
#pragma once

#include <string>
#include <vector>

#include "vole/base/files.hpp"
#include "vole/base/vec.hpp"

namespace paint {

struct StrokeLetter {
  char letter = 0;
  std::vector<std::vector<vole::Vec2>> strokes;  // points, y up
};
struct StrokeKerning {
  char left = 0, right = 0;
  float more = 0;
};
struct StrokeFont {
  std::string name;
  float pen = 1;  // how thick a stroke is
  float gap = 2;  // between letters
  std::vector<StrokeLetter> letters;
  std::vector<StrokeKerning> kerning;
};

// Throws vole::Error.
StrokeFont read_stroke_font(const std::string& path, const std::string& name);
vole::Bytes make_truetype(const StrokeFont& font);

}  // namespace paint
