// Pictures as frames, with a pivot, named points and named clips. Read from NAME.sheet.toml:
//
//   picture = "vole.png"                    # in the same folder; NAME.png when left out
//   frame = { size = [16, 16], margin = 0, spacing = 0 }
//   pivot = "bottom"                        # or [8, 16]: what sits on a sprite's position
//
//   [clips.run]
//   frames = [4, 5, 6, 7]                   # counted from 0, left to right and top to bottom; see clip.hpp
//   fps = 12
//
//   [points.paw]
//   at = [13, 11]                           # in pixels of a frame, from its top left
//   frames = { 5 = [14, 10] }               # where it is elsewhere
//
// In place of equal frames a sheet may have named ones, and in place of a picture a folder of pictures or a
// stand-in:
//
//   [frames.lid]                            folder = "magpie"       # a frame for each PNG in it
//   area = [0, 0, 24, 9]
//                                           colour = "#7a4a33"      # a box until there is a picture
//                                           size = [16, 16]
//
// A picture without such a file serves as a sheet of one frame with its pivot at the bottom.
#pragma once

#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "vole/asset/asset.hpp"
#include "vole/asset/clip.hpp"
#include "vole/asset/clip_rules.hpp"
#include "vole/asset/clip_set.hpp"
#include "vole/asset/outline.hpp"
#include "vole/asset/picture.hpp"
#include "vole/asset/pivot.hpp"
#include "vole/asset/track.hpp"
#include "vole/base/describe.hpp"

namespace vole {

// A named spot on the frames, such as a paw that something can be attached to.
struct SheetPoint {
  std::string name;
  IVec2 spot{0, 0};
  std::vector<std::pair<int, IVec2>> by_frame;  // sorted by frame

  // In pixels of the frame, from its top left.
  IVec2 at(int frame) const;
};

// Which parts of a frame keep their size when it is drawn as a box: the widths of its four borders.
struct Borders {
  int left = 0, top = 0, right = 0, bottom = 0;
  bool stretch = false;  // the parts between are stretched; otherwise repeated
};
template <class V>
void describe(V& v, Borders& borders) {
  v("left", borders.left, within(0, 4096));
  v("top", borders.top, within(0, 4096));
  v("right", borders.right, within(0, 4096));
  v("bottom", borders.bottom, within(0, 4096));
  v("stretch", borders.stretch);
}

// How a font is cut out of a sheet's frames; see font.hpp.
struct FontCut {
  std::vector<std::string> glyphs;
  int gap = 1;
  int space = 4;
  Named<Located<int>> kerning;  // "AV" = -1: pixels added between two letters
};
template <class V>
void describe(V& v, FontCut& font) {
  v("glyphs", font.glyphs, needed());
  v("gap", font.gap, within(-16, 64));
  v("space", font.space, within(0, 256));
  v("kerning", font.kerning, within(-64, 64));
}

class Sheet {
 public:
  // Made and ended in one place, not anew in each source that uses it.
  Sheet();
  Sheet(const Sheet&);
  Sheet(Sheet&&) noexcept;
  Sheet& operator=(const Sheet&) = delete;
  Sheet& operator=(Sheet&&) noexcept;
  ~Sheet();

  std::string name;
  std::vector<std::shared_ptr<const Picture>> pictures;  // that the frames are parts of
  std::vector<std::string> picture_names;                // of each in the catalog; none for a stand-in
  std::vector<Frame> frames;
  std::vector<std::string> frame_names;  // of each frame; empty when they go by number
  IVec2 frame_size{0, 0};                // the largest
  int columns = 0;                       // frames in a row of the picture; 0: not in rows
  Pivot pivot;
  std::vector<Clip> clips;
  std::vector<ClipSet> sets;
  std::vector<Track> tracks;
  ClipRules rules;
  std::vector<SheetPoint> points;
  Borders borders;
  std::optional<FontCut> font;
  bool stand_in = false;  // a coloured box, not a picture
  bool missing = false;   // shown in place of one that cannot be had: any name asked of it is let pass

  // nullptr when there is none of this name.
  const Clip* find_clip(std::string_view clip_name) const;
  const ClipSet* find_set(std::string_view set_name) const;
  const SheetPoint* find_point(std::string_view point_name) const;
  const Track* find_track(std::string_view track_name) const;
  // The index of the frame of this name, or -1.
  int find_frame(std::string_view frame_name) const;
  // Throw Error at `asked` with the name that was probably meant.
  const Clip& clip(std::string_view clip_name, const FilePosition& asked = {}) const;
  const ClipSet& set(std::string_view set_name, const FilePosition& asked = {}) const;
  const SheetPoint& point(std::string_view point_name, const FilePosition& asked = {}) const;
  const Track& track(std::string_view track_name, const FilePosition& asked = {}) const;
  int frame(std::string_view frame_name, const FilePosition& asked = {}) const;

  // Throws Error at `asked` unless there is a clip or a set of this name.
  void expect_played(std::string_view clip_or_set, const FilePosition& asked = {}) const;
  // The clip, or the clips of the set, of this name; none when there is neither.
  std::vector<const Clip*> played_by(std::string_view clip_or_set) const;

  // A frame with the pivot it has while the clip plays; nullptr: no clip. Throws std::out_of_range.
  Frame posed(int frame, const Clip* clip = nullptr) const;
  // What is opaque of a frame, in convex parts; see outline.hpp. Cut once and kept with the sheet; asked by one thread at a
  // time. Throws Error and std::out_of_range.
  const OutlineParts& outline(int frame, float error) const;

 private:
  mutable std::map<std::pair<int, float>, OutlineParts> outlines_;
};

// The frames of a picture: how many fit, with a margin around all and spacing between them.
struct FrameCut {
  IVec2 size{16, 16};
  int margin = 0;
  int spacing = 0;
  std::optional<Located<IRect>> area = {};  // of the picture; all of it when left out
};
template <class V>
void describe(V& v, FrameCut& cut) {
  v("size", cut.size, needed().within(1, 4096));
  v("margin", cut.margin, within(0, 4096));
  v("spacing", cut.spacing, within(0, 4096));
  v("area", cut.area, within(0, 65536));
}
struct CutFrames {
  std::vector<IRect> areas;
  int columns = 0;
};
// Throws Error at `place` when the frames do not fill the picture (or the part of it) to the last pixel,
// unless what is left over at the right and bottom is `allowed`.
CutFrames cut_frames(IVec2 picture_size, const FrameCut& cut, const FilePosition& where,
                     std::string_view picture_name, bool allowed = false);

// The name in the catalog of a picture that a file in assets/ names: `written` is relative to that file's
// folder, with or without ".png"; when it is empty, the file's own name.
std::string picture_name_beside(std::string_view asset_name, std::string_view written);
// That picture. Throws Error at `written` or else at `otherwise`.
Asset<Picture> picture_beside(Loading& loading, const Located<std::string>& written,
                              const FilePosition& otherwise);

// One colour with a darker rim: what a stand-in looks like.
Image stand_in_image(IVec2 size, Colour colour);
// A crossed card with a name on it: what a missing picture looks like.
Image missing_card(std::string_view name);

template <>
struct AssetType<Sheet> {
  static constexpr std::string_view word = "sheet";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".sheet.toml";
  static constexpr std::string_view plain_ending = ".png";
  static Sheet load(Loading& loading);  // from a file of its own
  static std::shared_ptr<const Sheet> load_shared(Loading& loading);
  static TomlValue schema();  // of its file: see schema.hpp
  static Sheet stand_in(std::string_view name);
  static std::string find_packed(Catalog& catalog, std::string_view name);
  static std::vector<std::string> packed_names(Catalog& catalog);
};

}  // namespace vole
