// What NAME.sheet.toml says, and one sheet of an atlas, before it becomes a Sheet.
#pragma once

#include <cstdint>
#include <memory>
#include <vector>

#include "vole/asset/sheet.hpp"
#include "vole/base/check_notes.hpp"

namespace vole {

inline constexpr std::size_t most_frames = 65536;
inline constexpr std::size_t most_clips = 10'000;
// Of all named frames of a sheet: they may overlap, and what looks at each of them must come to an end.
inline constexpr std::int64_t most_frame_pixels = 256'000'000;
// Of a frame: no picture has more pixels along a side.
inline constexpr int longest_frame = 16384;

// A frame by its number or its name.
struct FrameText {
  FilePosition where;
  std::string name;
  int number = -1;  // when there is no name
};
void read_field(const TomlValue& toml, FrameText& frame, const FieldRule& rule, Report& report);
TomlValue schema_field(const FrameText& frame, const FieldRule& rule);

enum class ClipOrder { forward, reverse, back_and_forth };
constexpr auto enum_names(ClipOrder) {
  return std::array<std::string_view, 3>{"forward", "reverse", "back and forth"};
}

// When an event happens: 3, [1, 3] or "end".
struct EventText {
  std::vector<Located<int>> positions;
  bool at_end = false;
};
void read_field(const TomlValue& toml, EventText& event, const FieldRule& rule, Report& report);
TomlValue schema_field(const EventText& event, const FieldRule& rule);

inline constexpr std::size_t most_event_positions = 1000;

struct ClipText {
  std::optional<std::vector<FrameText>> frames;
  std::optional<Located<IVec2>> range;
  std::optional<Located<int>> row;
  ClipOrder order = ClipOrder::forward;
  double fps = 10;
  std::optional<Located<std::vector<double>>> seconds;
  bool loop = true;
  std::optional<Located<int>> times;
  std::vector<Located<std::string>> tracks;
  Named<EventText> events;
  std::optional<Pivot> pivot;
};
// What clips and sets have alike.
template <class V>
void describe_playing(V& v, ClipText& clip) {
  v("range", clip.range, within(0, 65535));
  v("order", clip.order);
  v("fps", clip.fps, within(0.001, 1000));
  v("seconds", clip.seconds, within(0.001, 3600).items(most_frames));
  v("loop", clip.loop);
  v("times", clip.times, within(1, 1000000));
  v("tracks", clip.tracks, items(100));
  v("events", clip.events, items(1000));
  v("pivot", clip.pivot, within(-4096, 4096));
}
template <class V>
void describe(V& v, ClipText& clip) {
  v("frames", clip.frames, items(most_frames));
  v("row", clip.row, within(0, 65535));
  describe_playing(v, clip);
}

enum class SetDirections : std::uint8_t { two, four, eight };
constexpr auto enum_names(SetDirections) {
  return std::array<std::string_view, 3>{"two", "four", "eight"};
}

// What a set by direction does for directions that it has no clip for.
enum class MissingDirections { mirrored, turned, error };
constexpr auto enum_names(MissingDirections) {
  return std::array<std::string_view, 3>{"mirrored", "turned", "error"};
}

inline constexpr std::size_t most_set_members = 1000;

struct SetText {
  Named<Located<std::string>> clips;
  Named<Located<int>> rows;
  std::optional<SetDirections> directions;
  MissingDirections missing = MissingDirections::mirrored;
  ClipText playing;  // of each row
};
template <class V>
void describe(V& v, SetText& set) {
  v("clips", set.clips, items(most_set_members));
  v("rows", set.rows, within(0, 65535).items(most_set_members));
  v("directions", set.directions);
  v("missing", set.missing);
  describe_playing(v, set.playing);
}

template <class T>
struct KeyframeText {
  Located<double> at;
  T value{};
  Ease ease = Ease::linear;
};
template <class V, class T>
void describe(V& v, KeyframeText<T>& key) {
  v("at", key.at, needed().within(0, 3600));
  if constexpr (std::is_same_v<T, Colour>)
    v("value", key.value, needed());
  else
    v("value", key.value, needed().within(-100000, 100000));
  v("ease", key.ease);
}

// A number, a pair or a colour.
struct FieldValueText {
  FilePosition where;
  int parts = 1;
  Vec4 value{0, 0, 0, 0};
};
void read_field(const TomlValue& toml, FieldValueText& value, const FieldRule& rule, Report& report);
TomlValue schema_field(const FieldValueText& value, const FieldRule& rule);

struct TrackText {
  bool loop = false;
  std::vector<KeyframeText<Vec2>> offset;
  std::vector<KeyframeText<float>> rotation;
  std::vector<KeyframeText<Vec2>> scale;
  std::vector<KeyframeText<float>> opacity;
  std::vector<KeyframeText<Colour>> tint;
  Named<std::vector<KeyframeText<FieldValueText>>> fields;
};
template <class V>
void describe(V& v, TrackText& track) {
  v("loop", track.loop);
  v("offset", track.offset);
  v("rotation", track.rotation);
  v("scale", track.scale);
  v("opacity", track.opacity);
  v("tint", track.tint);
  v("fields", track.fields, items(1000));
}

struct PointText {
  IVec2 at{0, 0};
  Named<IVec2> frames;
};
template <class V>
void describe(V& v, PointText& point) {
  v("at", point.at, needed().within(-4096, 4096));
  v("frames", point.frames, within(-4096, 4096));
}

// A named part of a picture.
struct NamedFrameText {
  Located<IRect> area;
  int page = 0;                 // which picture, where there are several
  std::optional<IVec2> size;    // with the borders that were cut away
  std::optional<IVec2> offset;  // of the area in it
  std::optional<Pivot> pivot;
};
template <class V>
void describe(V& v, NamedFrameText& frame) {
  v("area", frame.area, needed().within(0, longest_frame));
  v("page", frame.page, within(0, 1023));
  v("size", frame.size, within(1, longest_frame));
  v("offset", frame.offset, within(0, longest_frame));
  v("pivot", frame.pivot, within(-4096, 4096));
}

struct SheetText {
  Located<std::string> picture;
  std::vector<Located<std::string>> pages;
  Located<std::string> folder;
  std::optional<Located<FrameCut>> frame;
  Named<NamedFrameText> frames;
  std::optional<Located<Colour>> colour;
  Located<IVec2> size;
  int count = 1;
  int columns = 0;
  Pivot pivot;
  Named<ClipText> clips;
  Named<SetText> sets;
  Named<TrackText> tracks;
  std::vector<ClipRuleText> rules;
  Named<PointText> points;
  Borders borders;
  std::optional<FontCut> font;
  CheckNotes check;
};
template <class V>
void describe(V& v, SheetText& sheet) {
  v("picture", sheet.picture);
  v("pages", sheet.pages, items(1024));
  v("folder", sheet.folder);
  v("frame", sheet.frame);
  v("frames", sheet.frames, items(most_frames));
  v("colour", sheet.colour);
  v("size", sheet.size, within(1, 4096));
  v("count", sheet.count, within(1, 4096));
  v("columns", sheet.columns, within(0, 65536));
  v("pivot", sheet.pivot, within(-4096, 4096));
  v("clips", sheet.clips, items(most_clips));
  v("sets", sheet.sets, items(1000));
  v("tracks", sheet.tracks, items(1000));
  v("rules", sheet.rules, items(1000));
  v("points", sheet.points, items(1000));
  v("borders", sheet.borders);
  v("font", sheet.font);
  v("check", sheet.check);
}

using Pictures = std::vector<std::shared_ptr<const Picture>>;

// The named frames as parts of these pictures.
void add_named_frames(const SheetText& text, const Pictures& pictures, Sheet& sheet, Report& report);
// Frames of one colour. Throws Error at `place` when the text does not say how large.
void add_stand_in(const SheetText& text, const FilePosition& where, Sheet& sheet);
// Pivot, clips, points, borders and font, once the frames are there.
void complete_sheet(const SheetText& text, Sheet& sheet, Report& report);

inline constexpr std::string_view atlas_ending = ".atlas.toml";
// The sheet of this name out of the atlas that is its file.
std::shared_ptr<const Sheet> sheet_from_atlas(Loading& loading);

}  // namespace vole
