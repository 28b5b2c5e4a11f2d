#include "sheet_file.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>
#include <filesystem>

#include "clip_file.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

void add_rules(const SheetText& text, Sheet& sheet, Report& report) {
  for (const ClipRuleText& rule : text.rules) {
    report.gather([&] {
      sheet.expect_played(rule.clip.value, rule.clip.where);
      for (const Clip* clip : sheet.played_by(rule.clip.value))
        if (rule.finish && clip->loop)
          report.error(rule.clip.where, fmt::format("clip \"{}\" loops, so it is never finished", clip->name),
                       "let it play once: loop = false");
      sheet.rules.add(rule);
    });
  }
}

SheetPoint make_point(const NamedItem<PointText>& item, const FrameFinder& frames) {
  SheetPoint point{item.name, item.value.at, {}};
  for (const auto& own : item.value.frames) {
    FrameText frame{own.where, own.name, -1};
    int number = 0;
    const char* const end = own.name.data() + own.name.size();
    if (!frames.has(own.name) && std::from_chars(own.name.data(), end, number).ptr == end)
      frame = {own.where, {}, number};
    point.by_frame.emplace_back(frames.find(frame, "point", item.name), own.value);
  }
  std::stable_sort(point.by_frame.begin(), point.by_frame.end(),
                   [](const auto& a, const auto& b) { return a.first < b.first; });
  return point;
}

void add_picture(const Asset<Picture>& picture, Sheet& sheet) {
  sheet.pictures.push_back(picture.shared());
  sheet.picture_names.push_back(picture.name());
}

Sheet whole_picture(const Asset<Picture>& picture) {
  Sheet sheet;
  sheet.name = picture.name();
  add_picture(picture, sheet);
  sheet.frames = {frame_of(*picture, picture->area())};
  sheet.columns = 1;
  Report nothing_to_tell;
  complete_sheet({}, sheet, nothing_to_tell);
  return sheet;
}

void add_grid_frames(const SheetText& text, Sheet& sheet) {
  const Picture& picture = *sheet.pictures.front();
  const CutFrames cut = cut_frames(picture.size(), text.frame->value, text.frame->where, sheet.name,
                                   allows(text.check, "uneven-frames"));
  sheet.columns = cut.columns;
  for (const IRect& area : cut.areas) sheet.frames.push_back(frame_of(picture, area));
}

// A frame for each PNG of a folder, "2" before "10".
void add_folder_frames(const SheetText& text, Loading& loading, Sheet& sheet) {
  const std::string folder = join_path(folder_of(loading.name()), text.folder.value);
  const std::string path = loading.catalog().asset_path(folder);
  if (!folder_exists(path) || text.folder.value.find("..") != std::string::npos)
    throw Error(text.folder.where, fmt::format("no folder \"{}\" beside this file", text.folder.value));
  loading.depends_on(path);
  std::vector<std::string> names;
  for (const std::string& file : list_files(path))
    if (file.ends_with(".png") && file.find('/') == std::string::npos)
      names.push_back(file.substr(0, file.size() - 4));
  if (names.empty()) throw Error(text.folder.where, fmt::format("\"{}\" holds no PNG", text.folder.value));
  if (names.size() > most_frames)
    throw Error(text.folder.where, fmt::format("\"{}\" holds {} pictures; the most is {}", text.folder.value,
                                               names.size(), most_frames));
  std::sort(names.begin(), names.end(), natural_less);
  for (const std::string& name : names) {
    const Located<std::string> written{join_path(text.folder.value, name), text.folder.where};
    add_picture(picture_beside(loading, written, text.folder.where), sheet);
    sheet.frames.push_back(frame_of(*sheet.pictures.back(), sheet.pictures.back()->area()));
    sheet.frame_names.push_back(name);
  }
}

// What a sheet is made of must be said in one way.
void check_source(const SheetText& text, const FilePosition& where) {
  const int sources = (text.picture.where.file ? 1 : 0) + (text.folder.where.file ? 1 : 0) +
                      (text.colour ? 1 : 0) + (text.pages.empty() ? 0 : 1);
  if (sources > 1)
    throw Error(where, "a sheet is made of one of \"picture\", \"pages\", \"folder\" and \"colour\"");
  if (text.frame && !text.frames.empty())
    throw Error(text.frame->where, "a sheet has equal frames or named ones, not both",
                "leave out \"frame\" or \"frames\"");
  if ((text.folder.where.file || text.colour) && (text.frame || !text.frames.empty()))
    throw Error(where, "\"frame\" and \"frames\" cut a picture, and here is none");
}

}  // namespace

void add_stand_in(const SheetText& text, const FilePosition& where, Sheet& sheet) {
  if (!text.size.where.file)
    throw Error(where, "a stand-in needs a \"size\" beside its \"colour\"", "as in size = [16, 16]");
  sheet.pictures.push_back(
      std::make_shared<const Picture>(stand_in_image(text.size.value, text.colour->value)));
  sheet.frames.assign(static_cast<std::size_t>(text.count),
                      frame_of(*sheet.pictures[0], sheet.pictures[0]->area()));
  sheet.stand_in = true;
}

void read_field(const TomlValue& toml, FrameText& frame, const FieldRule& rule, Report& report) {
  frame.where = toml.where;
  if (toml.type == TomlValue::Type::text)
    frame.name = toml.text;
  else
    read_value(toml, frame.number, rule, report);
}

TomlValue schema_field(const FrameText&, const FieldRule&) {
  return detail::either_schema({detail::type_schema("string"), schema_of<int>(within(0, most_frames - 1))});
}

void read_field(const TomlValue& toml, EventText& event, const FieldRule& rule, Report& report) {
  if (toml.type == TomlValue::Type::text && toml.text == "end") {
    event.at_end = true;
  } else if (toml.type == TomlValue::Type::array) {
    read_value(toml, event.positions, items(most_event_positions), report);
  } else if (toml.type == TomlValue::Type::whole) {
    read_value(toml, event.positions.emplace_back(), rule, report);
  } else {
    report.error(toml.where, fmt::format("a frame of the clip, a list of them or \"end\" wanted here, not {}",
                                         to_text(toml)));
  }
}

TomlValue schema_field(const EventText&, const FieldRule&) {
  return detail::either_schema({schema_of<int>(within(0, most_frames - 1)),
                                schema_of<std::vector<int>>(items(most_event_positions)),
                                detail::choice_schema({"end"})});
}

void add_named_frames(const SheetText& text, const Pictures& pictures, Sheet& sheet, Report& report) {
  std::int64_t pixels = 0;
  for (const auto& item : text.frames) {
    const auto page = static_cast<std::size_t>(item.value.page);
    if (page >= pictures.size()) {
      report.error(item.where,
                   fmt::format("frame \"{}\" is on page {}, but there {} {}", item.name, page,
                               pictures.size() == 1 ? "is" : "are", pictures.size()),
                   "pages are counted from 0");
      continue;
    }
    const Picture& picture = *pictures[page];
    const IRect area = item.value.area.value;
    if (!(area.shared_with(picture.area()) == area))
      report.error(item.value.area.where, fmt::format("frame \"{}\" is not inside its picture of {} x {}",
                                                      item.name, picture.size().x, picture.size().y));
    pixels += std::int64_t{area.size.x} * area.size.y;
    if (pixels > most_frame_pixels)
      return report.error(item.where,
                          fmt::format("up to frame \"{}\" the frames have more than {} million pixels in all",
                                      item.name, most_frame_pixels / 1'000'000));
    Frame frame = frame_of(picture, area.shared_with(picture.area()));
    frame.offset = item.value.offset.value_or(IVec2{0, 0});
    frame.size = item.value.size.value_or(area.size + frame.offset);
    if (frame.size.x < 1 || frame.size.y < 1)
      report.error(item.where, fmt::format("frame \"{}\" has no pixels", item.name),
                   "an empty one says its size, as in size = [16, 16]");
    if (frame.offset.x + area.size.x > frame.size.x || frame.offset.y + area.size.y > frame.size.y)
      report.error(item.where, fmt::format("frame \"{}\" is larger than its \"size\" of {} x {}", item.name,
                                           frame.size.x, frame.size.y));
    frame.pivot = item.value.pivot.value_or(text.pivot).in(frame.size);
    sheet.frames.push_back(frame);
    sheet.frame_names.push_back(item.name);
  }
}

void complete_sheet(const SheetText& text, Sheet& sheet, Report& report) {
  sheet.pivot = text.pivot;
  for (std::size_t i = 0; i < sheet.frames.size(); ++i) {
    Frame& frame = sheet.frames[i];
    if (i >= text.frames.size()) frame.pivot = text.pivot.in(frame.size);
    sheet.frame_size = {std::max(sheet.frame_size.x, frame.size.x),
                        std::max(sheet.frame_size.y, frame.size.y)};
  }
  const FrameFinder frames(sheet, report);
  for (const auto& item : text.tracks) sheet.tracks.push_back(make_track(item, report));
  ClipMaker maker(sheet, frames, report);
  for (const auto& item : text.clips) sheet.clips.push_back(maker.make(item));
  for (const auto& item : text.sets) add_set(item, maker, sheet, report);
  add_rules(text, sheet, report);
  for (const auto& item : text.points) sheet.points.push_back(make_point(item, frames));
  sheet.borders = text.borders;
  sheet.font = text.font;
}

Image stand_in_image(IVec2 size, Colour colour) {
  const auto darker = [](std::uint8_t part) { return static_cast<std::uint8_t>(part / 2); };
  Image image(size, {darker(colour.r), darker(colour.g), darker(colour.b), colour.a});
  for (int y = 1; y < size.y - 1; ++y)
    for (int x = 1; x < size.x - 1; ++x) image.at(x, y) = colour;
  return image;
}

std::string picture_name_beside(std::string_view asset_name, std::string_view written) {
  if (written.empty()) return std::string(asset_name);
  if (written.ends_with(".png")) written.remove_suffix(4);
  const std::filesystem::path joined = join_path(folder_of(asset_name), written);
  return joined.lexically_normal().generic_string();
}

Asset<Picture> picture_beside(Loading& loading, const Located<std::string>& written,
                              const FilePosition& otherwise) {
  const std::string name = picture_name_beside(loading.name(), written.value);
  loading.depends_on(loading.catalog().asset_path(name + ".png"));
  return loading.catalog().get<Picture>(name, written.where.file ? written.where : otherwise);
}

Sheet AssetType<Sheet>::stand_in(std::string_view name) {
  Sheet sheet;
  sheet.name = name;
  sheet.pictures.push_back(std::make_shared<const Picture>(missing_card(name)));
  sheet.frames = {frame_of(*sheet.pictures[0], sheet.pictures[0]->area())};
  sheet.stand_in = sheet.missing = true;
  Report nothing_to_tell;
  complete_sheet({}, sheet, nothing_to_tell);
  return sheet;
}

std::shared_ptr<const Sheet> AssetType<Sheet>::load_shared(Loading& loading) {
  if (loading.path().ends_with(atlas_ending)) return sheet_from_atlas(loading);
  return std::make_shared<const Sheet>(load(loading));
}

Sheet AssetType<Sheet>::load(Loading& loading) {
  if (loading.path().ends_with(".png")) return whole_picture(loading.catalog().get<Picture>(loading.name()));

  Report report;
  SheetText text;
  const TomlValue root = read_toml(loading.path());
  read(root, text, report);
  report.throw_if_errors();
  check_source(text, root.where);

  Sheet sheet;
  sheet.name = loading.name();
  if (text.colour) {
    add_stand_in(text, root.where, sheet);
  } else if (text.folder.where.file) {
    add_folder_frames(text, loading, sheet);
  } else {
    for (const auto& page : text.pages) add_picture(picture_beside(loading, page, root.where), sheet);
    if (text.pages.empty()) add_picture(picture_beside(loading, text.picture, root.where), sheet);
    if (text.frame) add_grid_frames(text, sheet);
    add_named_frames(text, sheet.pictures, sheet, report);
    if (sheet.frames.empty()) {
      sheet.frames = {frame_of(*sheet.pictures[0], sheet.pictures[0]->area())};
      sheet.columns = 1;
    }
    if (text.columns > 0) sheet.columns = text.columns;
  }
  complete_sheet(text, sheet, report);
  report.throw_if_errors();
  return sheet;
}

TomlValue AssetType<Sheet>::schema() {
  return schema_of<SheetText>();
}

}  // namespace vole
