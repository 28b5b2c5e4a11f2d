// A picture cut into equal frames, with one pivot for all of them and named clips. Read from NAME.sheet.toml:
//
//   picture = "vole.png"                    # in the same folder; NAME.png when left out
//   frame = { size = [16, 16], margin = 0, spacing = 0 }
//   pivot = "bottom"                        # or [8, 16]: the point of a frame that sits on a sprite's
//   position
//
//   [clips.run]
//   frames = [4, 5, 6, 7]                   # counted from 0, left to right and top to bottom
//   fps = 12
//   loop = true
//
// A picture without such a file serves as a sheet of one frame with its pivot at the bottom.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "vole/asset/picture.hpp"
#include "vole/base/describe.hpp"

namespace vole {

// A named run of frames.
struct Clip {
  std::string name;
  std::vector<int> frames;
  int millifps = 10'000;  // thousandths of a frame a second: whole, so that timing stays exact
  bool loop = true;

  // The frame shown this many ticks after the start. A clip that does not loop stays on its last frame.
  int frame_at(std::int64_t ticks, int ticks_per_second) const;
  // Whether a clip that does not loop has shown its last frame for its whole time.
  bool over_at(std::int64_t ticks, int ticks_per_second) const;
};

// How a font is cut out of a sheet's frames; see font.hpp.
struct FontCut {
  std::vector<std::string> glyphs;
  int gap = 1;
  int space = 4;
};
template <class V>
void describe(V& v, FontCut& font) {
  v("glyphs", font.glyphs, needed());
  v("gap", font.gap, within(-16, 64));
  v("space", font.space, within(0, 256));
}

class Sheet {
 public:
  std::string name;
  std::shared_ptr<const Picture> picture;
  std::vector<Frame> frames;
  IVec2 frame_size{0, 0};
  IVec2 pivot{0, 0};
  std::vector<Clip> clips;
  std::optional<FontCut> font;

  // nullptr when there is none of this name.
  const Clip* find_clip(std::string_view clip_name) const;
  // Throws Error at `asked` with the name that was probably meant.
  const Clip& clip(std::string_view clip_name, const Place& asked = {}) const;
};

// The frames of a picture: how many fit, with a margin around all and spacing between them. Throws Error at
// `place` when the frames do not fill the picture to the last pixel.
struct FrameCut {
  IVec2 size{16, 16};
  int margin = 0;
  int spacing = 0;
};
template <class V>
void describe(V& v, FrameCut& cut) {
  v("size", cut.size, needed().within(1, 4096));
  v("margin", cut.margin, within(0, 4096));
  v("spacing", cut.spacing, within(0, 4096));
}
std::vector<IRect> cut_frames(IVec2 picture_size, const FrameCut& cut, const Place& place,
                              std::string_view picture_name);

// The picture that a file in assets/ names: `written` is relative to that file's folder, with or without
// ".png"; when it is empty, the picture with the file's own name. Throws Error at `written` or else at
// `otherwise`.
std::shared_ptr<const Picture> picture_beside(Loading& loading, const Located<std::string>& written,
                                              const Place& otherwise);

template <>
struct AssetSort<Sheet> {
  static constexpr std::string_view word = "sheet";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".sheet.toml";
  static constexpr std::string_view plain_ending = ".png";
  static Sheet load(Loading& loading);
};

}  // namespace vole
