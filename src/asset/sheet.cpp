#include "vole/asset/sheet.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "vole/base/anchor.hpp"
#include "vole/base/names.hpp"

namespace vole {
namespace {

// A pivot is written as a word or as a pixel.
struct PivotText {
  std::optional<Anchor> word = Anchor::bottom;
  IVec2 pixel{0, 0};

  IVec2 in(IVec2 size) const { return word ? spot_in(*word, size) : pixel; }
};

void read_field(const Node& node, PivotText& pivot, const FieldRule& rule, Report& report) {
  if (node.type == Node::Type::array) {
    pivot.word.reset();
    read_value(node, pivot.pixel, rule, report);
  } else {
    read_value(node, pivot.word, rule, report);
  }
}

struct ClipText {
  std::vector<Located<int>> frames;
  double fps = 10;
  bool loop = true;
};
template <class V>
void describe(V& v, ClipText& clip) {
  v("frames", clip.frames, needed());
  v("fps", clip.fps, within(0.001, 1000));
  v("loop", clip.loop);
}

struct SheetText {
  Located<std::string> picture;
  std::optional<Located<FrameCut>> frame;
  PivotText pivot;
  Named<ClipText> clips;
  std::optional<FontCut> font;
};
template <class V>
void describe(V& v, SheetText& sheet) {
  v("picture", sheet.picture);
  v("frame", sheet.frame);
  v("pivot", sheet.pivot, within(-4096, 4096));
  v("clips", sheet.clips);
  v("font", sheet.font);
}

constexpr std::size_t most_frames = 65536;

Clip make_clip(const NamedItem<ClipText>& item, const Sheet& sheet, Report& report) {
  Clip clip{item.name, {}, static_cast<int>(item.value.fps * 1000 + 0.5), item.value.loop};
  if (item.value.frames.empty())
    report.error(item.place, fmt::format("clip \"{}\" has no frames", item.name));
  const int count = static_cast<int>(sheet.frames.size());
  for (const Located<int>& frame : item.value.frames) {
    if (frame.value < 0 || frame.value >= count)
      report.error(frame.place,
                   fmt::format("clip \"{}\" names frame {}, but \"{}\" has {} frames", item.name, frame.value,
                               sheet.name, count),
                   fmt::format("the last is {}", count - 1));
    clip.frames.push_back(frame.value);
  }
  return clip;
}

Sheet whole_picture(std::string_view name, std::shared_ptr<const Picture> picture) {
  Sheet sheet;
  sheet.name = name;
  sheet.frame_size = picture->size();
  sheet.pivot = spot_in(Anchor::bottom, picture->size());
  sheet.frames = {{picture->area(), picture->alpha_of(picture->area())}};
  sheet.picture = std::move(picture);
  return sheet;
}

}  // namespace

int Clip::frame_at(std::int64_t ticks, int ticks_per_second) const {
  const auto count = static_cast<std::int64_t>(frames.size());
  const std::int64_t shown =
      std::max<std::int64_t>(ticks, 0) * millifps / (std::int64_t{1000} * ticks_per_second);
  const std::int64_t index = loop ? shown % count : std::min(shown, count - 1);
  return frames[static_cast<std::size_t>(index)];
}

bool Clip::over_at(std::int64_t ticks, int ticks_per_second) const {
  const auto count = static_cast<std::int64_t>(frames.size());
  return !loop && ticks * millifps / (std::int64_t{1000} * ticks_per_second) >= count;
}

const Clip* Sheet::find_clip(std::string_view clip_name) const {
  const auto found =
      std::find_if(clips.begin(), clips.end(), [clip_name](const Clip& c) { return c.name == clip_name; });
  return found == clips.end() ? nullptr : &*found;
}

const Clip& Sheet::clip(std::string_view clip_name, const Place& asked) const {
  if (const Clip* found = find_clip(clip_name)) return *found;
  throw Error(asked, fmt::format("no clip \"{}\" in \"{}\"", clip_name, name),
              did_you_mean(clip_name, names_of(clips)));
}

std::vector<IRect> cut_frames(IVec2 picture_size, const FrameCut& cut, const Place& place,
                              std::string_view picture_name) {
  const auto along = [&](int length, int size, std::string_view side) {
    const int inner = length - 2 * cut.margin + cut.spacing;
    const int step = size + cut.spacing;
    if (inner < step || inner % step != 0)
      throw Error(
          place,
          fmt::format("frames of {} pixels {} (margin {}, spacing {}) do not fill \"{}\", which is {} {}",
                      size, side, cut.margin, cut.spacing, picture_name, length, side));
    return inner / step;
  };
  const int columns = along(picture_size.x, cut.size.x, "wide");
  const int rows = along(picture_size.y, cut.size.y, "high");
  if (static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows) > most_frames)
    throw Error(place, fmt::format("{} x {} frames are more than the {} that a sheet may have", columns, rows,
                                   most_frames));
  std::vector<IRect> frames;
  for (int row = 0; row < rows; ++row)
    for (int column = 0; column < columns; ++column)
      frames.push_back(
          {{cut.margin + column * (cut.size.x + cut.spacing), cut.margin + row * (cut.size.y + cut.spacing)},
           cut.size});
  return frames;
}

std::shared_ptr<const Picture> picture_beside(Loading& loading, const Located<std::string>& written,
                                              const Place& otherwise) {
  std::string name = loading.name();
  if (!written.value.empty()) {
    std::string file = written.value;
    if (file.ends_with(".png")) file.resize(file.size() - 4);
    name = join_path(folder_of(name), file);
  }
  loading.depends_on(join_path(loading.catalog().root(), "assets/" + name + ".png"));
  return loading.catalog().get<Picture>(name, written.place.file ? written.place : otherwise).shared();
}

Sheet AssetSort<Sheet>::load(Loading& loading) {
  if (loading.path().ends_with(".png"))
    return whole_picture(loading.name(), loading.catalog().get<Picture>(loading.name()).shared());

  Report report;
  SheetText text;
  const Node root = read_toml(loading.path());
  read(root, text, report);
  report.throw_if_errors();

  Sheet sheet = whole_picture(loading.name(), picture_beside(loading, text.picture, root.place));
  if (text.frame) {
    sheet.frames.clear();
    sheet.frame_size = text.frame->value.size;
    for (const IRect& area :
         cut_frames(sheet.picture->size(), text.frame->value, text.frame->place, sheet.name))
      sheet.frames.push_back({area, sheet.picture->alpha_of(area)});
  }
  sheet.pivot = text.pivot.in(sheet.frame_size);
  for (const auto& item : text.clips) sheet.clips.push_back(make_clip(item, sheet, report));
  sheet.font = text.font;
  report.throw_if_errors();
  return sheet;
}

}  // namespace vole
