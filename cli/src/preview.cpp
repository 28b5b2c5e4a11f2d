#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <deque>
#include <filesystem>

#include "commands.hpp"
#include "game_files.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/draw/background.hpp"
#include "vole/draw/box.hpp"
#include "vole/draw/raster.hpp"
#include "vole/draw/text.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/components.hpp"

namespace {

using vole::Colour;
using vole::DrawList;
using vole::Image;
using vole::IVec2;
using vole::LayerId;
using vole::Vec2;

constexpr IVec2 page{1280, 800};
constexpr Colour paper{0x2d, 0x2b, 0x45, 0xff};
constexpr Colour light_square{0x4a, 0x4a, 0x6a, 0xff};
constexpr Colour dark_square{0x3b, 0x3a, 0x57, 0xff};
constexpr Colour ink{0xf7, 0xf3, 0xe3, 0xff};
constexpr Colour faint{0x8d, 0x93, 0xa6, 0xff};
constexpr Colour mark{0xed, 0xa6, 0x3f, 0xff};
constexpr Colour solid_mark{0xb3, 0x48, 0x5a, 0xff};

// A page to draw on, in one layer.
class Page {
 public:
  explicit Page(IVec2 size) : image_(size, paper) {
    list_.start(size);
    layer_ = list_.add_layer({0, 0});
  }

  void text(Vec2 at, std::string_view text, Colour colour = ink) {
    vole::draw_text(list_, layer_, vole::plain_font(), text, at, {.colour = colour, .scale = 2});
  }
  void text(Vec2 at, std::string_view text, const vole::TextStyle& style) {
    vole::draw_text(list_, layer_, vole::plain_font(), text, at, style);
  }
  void text(const vole::Font& font, Vec2 at, std::string_view text, const vole::TextStyle& style) {
    vole::draw_text(list_, layer_, font, text, at, style);
  }
  // A box of this size, enlarged.
  void box(const vole::Sheet& sheet, Vec2 at, IVec2 size, int scale) {
    DrawList list;
    list.start(size);
    vole::draw_box(list, list.add_layer({0, 0}), sheet, {{0, 0}, Vec2(size)});
    list.sort();
    Image image(size, paper);
    vole::Raster().draw(list, image);
    pictures_.emplace_back(image);
    picture(pictures_.back(), at, static_cast<float>(scale));
  }
  void picture(const vole::Picture& picture, Vec2 at, float scale) {
    vole::PictureItem item = vole::show(vole::frame_of(picture, picture.area()), at);
    item.scale = {scale, scale};
    list_.add(layer_, item);
  }
  void squares(const vole::IRect& box, int size) {
    list_.fill(layer_, to_rect(box), dark_square);
    for (int y = 0; y * size < box.size.y; ++y)
      for (int x = y % 2; x * size < box.size.x; x += 2)
        list_.fill(
            layer_,
            to_rect(
                vole::IRect{{box.left() + x * size, box.top() + y * size}, {size, size}}.shared_with(box)),
            light_square);
  }
  // The whole frame with its top left here, its cut-away borders included.
  void frame(const vole::Frame& frame, IVec2 at, int scale) {
    vole::Frame from_corner = frame;
    from_corner.pivot = {0, 0};
    vole::PictureItem item = vole::show(from_corner, Vec2(at));
    item.scale = Vec2(static_cast<float>(scale), static_cast<float>(scale));
    list_.add(layer_, item);
  }
  void cross(IVec2 at, int arm, Colour colour) {
    list_.fill(layer_, to_rect({{at.x - arm, at.y - 1}, {2 * arm + 1, 2}}), colour);
    list_.fill(layer_, to_rect({{at.x - 1, at.y - arm}, {2, 2 * arm + 1}}), colour);
  }
  void outline(const vole::IRect& box, Colour colour) { list_.outline(layer_, to_rect(box), colour); }

  DrawList& list() { return list_; }

  void save(const std::string& path) {
    list_.sort();
    vole::Raster().draw(list_, image_);
    vole::write_png(path, image_);
  }

 private:
  static vole::Rect to_rect(const vole::IRect& box) { return {Vec2(box.at), Vec2(box.size)}; }

  Image image_;
  DrawList list_;
  LayerId layer_ = 0;
  std::deque<vole::Picture> pictures_;  // made for this page
};

// The largest whole scale at which `count` cells (with `extra` pixels of room each) fit into the width and
// height.
int fitting_scale(IVec2 cell, int count, IVec2 room, IVec2 extra) {
  for (int scale = 16; scale > 1; --scale) {
    const int columns = room.x / (cell.x * scale + extra.x);
    const int rows = room.y / (cell.y * scale + extra.y);
    if (columns * rows >= count) return scale;
  }
  return 1;
}

// Cells laid out in rows, one after the other.
class Flow {
 public:
  Flow(IVec2 start, int right, IVec2 step) : at_(start), left_(start.x), right_(right), step_(step) {}
  IVec2 next() {
    if (at_.x + step_.x > right_ && at_.x > left_) at_ = {left_, at_.y + step_.y};
    const IVec2 here = at_;
    at_.x += step_.x;
    return here;
  }
  int bottom() const { return at_.y + step_.y; }

 private:
  IVec2 at_;
  int left_, right_;
  IVec2 step_;
};

// Of each point its own colour, in the order of the sheet.
constexpr Colour point_marks[] = {{0x7f, 0xb8, 0xb0, 0xff},
                                  {0xb1, 0x89, 0xb4, 0xff},
                                  {0xa9, 0xbb, 0x5c, 0xff},
                                  {0xd9, 0x72, 0x4a, 0xff},
                                  {0xe8, 0xdf, 0xc8, 0xff}};
Colour point_mark(std::size_t index) {
  return point_marks[index % std::size(point_marks)];
}

// A frame with its pivot and points.
void draw_frame(Page& paper_page, const vole::Sheet& sheet, int index, IVec2 at, int scale,
                const vole::Clip* clip = nullptr) {
  const vole::Frame frame = sheet.posed(index, clip);
  paper_page.squares({at, frame.size * scale}, 4 * std::max(scale / 2, 1));
  paper_page.frame(frame, at, scale);
  if (sheet.stand_in)
    paper_page.text(Vec2(at) + Vec2(frame.size * scale) * 0.5f, sheet.name,
                    {.anchor = vole::Anchor::centre, .scale = std::clamp(scale / 4, 1, 2)});
  paper_page.cross(at + frame.pivot * scale, 5, mark);
  for (std::size_t i = 0; i < sheet.points.size(); ++i)
    paper_page.cross(at + sheet.points[i].at(index) * scale + IVec2{scale / 2, scale / 2}, 3, point_mark(i));
}

// What the coloured crosses stand for.
void draw_key(Page& paper_page, const vole::Sheet& sheet, IVec2 at) {
  const auto entry = [&](const std::string& name, Colour colour) {
    paper_page.cross(at + IVec2{6, 8}, 5, colour);
    paper_page.text(Vec2(at + IVec2{18, 0}), name, {.colour = colour, .scale = 2});
    at.x += 30 + 2 * vole::plain_font().measure(name).x;
  };
  entry("pivot", mark);
  for (std::size_t i = 0; i < sheet.points.size(); ++i) entry(sheet.points[i].name, point_mark(i));
}

std::string headline(const vole::Sheet& sheet) {
  std::string line = fmt::format("{}: {} frame{} of {} x {}", sheet.name, sheet.frames.size(),
                                 sheet.frames.size() == 1 ? "" : "s", sheet.frame_size.x, sheet.frame_size.y);
  if (sheet.stand_in) line += ", a stand-in";
  return line;
}

// "run (12 fps, 3 times)"
std::string clip_line(const vole::Clip& clip) {
  std::string line = clip.name + " (";
  line += clip.ends.empty() ? fmt::format("{} fps", clip.millifps / 1000.0)
                            : fmt::format("{:.2f} s", static_cast<double>(clip.length()) / 1e6);
  if (!clip.loop) line += clip.times == 1 ? ", once" : fmt::format(", {} times", clip.times);
  return line + ")";
}

void draw_clips(Page& sheet_page, const vole::Sheet& sheet, int y) {
  constexpr int margin = 24;
  if (sheet.clips.empty()) return;
  const int strip = std::max((page.y - y) / static_cast<int>(sheet.clips.size()), 22);
  for (const vole::Clip& clip : sheet.clips) {
    sheet_page.text({margin, static_cast<float>(y)}, clip_line(clip));
    const int across = (page.x - 300 - margin) / static_cast<int>(clip.frames.size()) - 4;
    const int small =
        std::clamp(std::min((strip - 6) / sheet.frame_size.y, across / sheet.frame_size.x), 1, 4);
    Flow row({300, y}, page.x * 100, {sheet.frame_size.x * small + 4, 0});
    for (std::size_t i = 0; i < clip.frames.size(); ++i) {
      const IVec2 at = row.next();
      draw_frame(sheet_page, sheet, clip.frames[i], at, small, &clip);
      for (const vole::ClipEvent& event : clip.events)
        if (event.position == static_cast<int>(i))
          sheet_page.text(
              {static_cast<float>(at.x), static_cast<float>(at.y + sheet.frame_size.y * small + 2)},
              event.name, {.colour = mark});
    }
    y += strip;
  }
}

// The same box twice: as small as its borders allow, and large.
void draw_boxes(Page& sheet_page, const vole::Sheet& sheet, int y) {
  const vole::Borders& borders = sheet.borders;
  if (borders.left + borders.right + borders.top + borders.bottom == 0) return;
  constexpr int margin = 24;
  sheet_page.text({margin, static_cast<float>(y)}, "as a box:");
  const IVec2 least{borders.left + borders.right + 1, borders.top + borders.bottom + 1};
  const auto top = static_cast<float>(y);
  sheet_page.box(sheet, {300, top}, least * 2, 4);
  sheet_page.box(sheet, {340 + static_cast<float>(least.x) * 8, top}, {150, 60}, 4);
}

// The most that a contact sheet shows; more would be too small to see.
constexpr int most_shown = 600;

void preview_sheet(const vole::Sheet& sheet, const std::string& output) {
  constexpr int margin = 24;
  const int count = std::min(static_cast<int>(sheet.frames.size()), most_shown);
  Page sheet_page(page);
  sheet_page.text({margin, 16}, headline(sheet));
  draw_key(sheet_page, sheet, {page.x / 2, 16});
  const bool more = !sheet.clips.empty() || sheet.borders.left + sheet.borders.top > 0;
  const int label = sheet.frame_names.empty() ? 0 : 60;
  const IVec2 room{page.x - 2 * margin, (more ? page.y * 6 / 10 : page.y) - 60};
  const int scale = fitting_scale(sheet.frame_size, count, room, {16 + label, 30});
  Flow cells({margin, 52}, page.x - margin,
             {sheet.frame_size.x * scale + 16 + label, sheet.frame_size.y * scale + 30});
  for (int i = 0; i < count; ++i) {
    const IVec2 at = cells.next();
    draw_frame(sheet_page, sheet, i, at, scale);
    const std::string name = sheet.frame_names.empty()
                                 ? fmt::format("{}", i)
                                 : fmt::format("{} {}", i, sheet.frame_names[static_cast<std::size_t>(i)]);
    sheet_page.text({static_cast<float>(at.x), static_cast<float>(at.y + sheet.frame_size.y * scale + 6)},
                    name, {.colour = faint, .scale = label > 0 ? 1 : 2});
  }
  if (count < static_cast<int>(sheet.frames.size()))
    sheet_page.text({margin, static_cast<float>(page.y) - 24},
                    fmt::format("and {} more", sheet.frames.size() - static_cast<std::size_t>(count)), mark);
  draw_clips(sheet_page, sheet, cells.bottom() + 8);
  if (sheet.clips.empty()) draw_boxes(sheet_page, sheet, cells.bottom() + 16);
  sheet_page.save(output);
}

// Every letter, and a line to judge the whole by.
void preview_font(const vole::Font& font, const std::string& output) {
  constexpr int margin = 24;
  Page font_page(page);
  font_page.text({margin, 16}, fmt::format("{}: {} letters, {} pixels from line to line", font.name(),
                                           font.glyphs().size(), font.line_height()));
  constexpr std::string_view sample = "Sixteen bulbs in the shed, and 9 voles asking: \"Is it Friday yet?\"";
  const int scale = std::clamp(page.x / std::max(font.measure(sample).x, 1), 1, 4);
  vole::TextStyle style{.scale = scale, .width = (page.x - 2 * margin) / scale};
  int y = 56;
  for (const Colour colour : {ink, mark}) {
    style.colour = colour;
    style.outline = colour == mark ? Colour{0x6e, 0x27, 0x41, 0xff} : vole::clear;
    font_page.text(font, {margin, static_cast<float>(y)}, sample, style);
    y += vole::measure_text(font, sample, style.width).y * scale + 16;
  }
  int widest = 1;
  for (const vole::Glyph& glyph : font.glyphs()) widest = std::max(widest, glyph.frame.area.size.x);
  const IVec2 cell{widest, font.line_height()};
  const auto count = static_cast<int>(font.glyphs().size());
  const int fit = std::min(fitting_scale(cell, count, {page.x - 2 * margin, page.y - y - 20}, {8, 8}), 4);
  Flow cells({margin, y + 8}, page.x - margin, {cell.x * fit + 8, cell.y * fit + 8});
  for (const vole::Glyph& glyph : font.glyphs()) {
    const IVec2 at = cells.next();
    if (at.y > page.y) break;
    font_page.squares({at, cell * fit}, 4 * fit);
    vole::Frame frame = glyph.frame;
    frame.offset.x = 0;
    font_page.frame(frame, at, fit);
  }
  font_page.save(output);
}

// The pages side by side, with a rim round each frame in the colour of its sheet.
void preview_atlas(const vole::Atlas& atlas, const std::string& output) {
  constexpr int margin = 24;
  Page atlas_page(page);
  std::size_t frames = 0;
  for (const auto& sheet : atlas.sheets) frames += sheet->frames.size();
  atlas_page.text({margin, 16},
                  fmt::format("{}: {} sheets, {} frames on {} page{}", atlas.name, atlas.sheets.size(),
                              frames, atlas.pages.size(), atlas.pages.size() == 1 ? "" : "s"));
  const int shown = std::min(static_cast<int>(atlas.pages.size()), 4);
  const int room = (page.x - 2 * margin) / std::max(shown, 1) - 8;
  for (int i = 0; i < shown; ++i) {
    const vole::Picture& picture = *atlas.pages[static_cast<std::size_t>(i)];
    const float scale = std::min({4.0f, static_cast<float>(room) / static_cast<float>(picture.size().x),
                                  static_cast<float>(page.y - 80) / static_cast<float>(picture.size().y)});
    const float fit = scale > 1 ? std::floor(scale) : scale;
    const IVec2 at{margin + i * (room + 8), 52};
    atlas_page.squares({at, IVec2(Vec2(picture.size()) * fit)}, 8);
    atlas_page.picture(picture, Vec2(at), fit);
    for (std::size_t s = 0; s < atlas.sheets.size(); ++s)
      for (const vole::Frame& frame : atlas.sheets[s]->frames)
        if (frame.picture == &picture && !frame.area.empty())
          atlas_page.outline({at + IVec2(Vec2(frame.area.at) * fit), IVec2(Vec2(frame.area.size) * fit)},
                             point_mark(s));
  }
  atlas_page.save(output);
}

void preview_tileset(const vole::Tileset& tileset, const std::string& output) {
  constexpr int margin = 24;
  Page tiles_page(page);
  tiles_page.text({margin, 16}, fmt::format("{}: {} tiles of {} pixels; solid ones have a rim", tileset.name,
                                            tileset.tiles.size(), tileset.tile_size));
  const IVec2 cell{tileset.tile_size, tileset.tile_size};
  const int scale = fitting_scale(cell, static_cast<int>(tileset.tiles.size()),
                                  {page.x - 2 * margin, page.y - 70}, {90, 44});
  Flow cells({margin, 56}, page.x - margin, {cell.x * scale + 90, cell.y * scale + 44});
  for (std::size_t i = 0; i < tileset.tiles.size(); ++i) {
    const IVec2 at = cells.next();
    const vole::IRect box{at, {cell.x * scale, cell.y * scale}};
    tiles_page.squares(box, 16);
    tiles_page.frame(tileset.frames[i], at, scale);
    if (tileset.tiles[i].solid)
      for (int rim = 1; rim <= 3; ++rim)
        tiles_page.outline({{at.x - rim, at.y - rim}, {box.size.x + 2 * rim, box.size.y + 2 * rim}},
                           solid_mark);
    tiles_page.text({static_cast<float>(at.x), static_cast<float>(box.bottom() + 8)}, tileset.tiles[i].name);
  }
  tiles_page.save(output);
}

// What stands at a place, as its kind's sprite shows it at first.
void draw_thing(DrawList& list, LayerId layer, vole::Catalog& catalog, const vole::Kinds& kinds,
                const vole::LevelPlace& place) {
  vole::Node thing = kinds.kind(place.kind, place.place);
  thing.merge(place.over);
  const vole::Node* written = thing.find("sprite");
  if (!written) return;
  vole::Report report;
  vole::Sprite sprite;
  vole::read(*written, sprite, report);
  report.throw_if_errors();
  const vole::Asset<vole::Sheet> sheet =
      catalog.get<vole::Sheet>(sprite.sheet_name.value, sprite.sheet_name.place);
  const std::string& clip = sprite.first_clip.value;
  const int index = clip.empty() ? 0 : sheet->clip(clip, sprite.first_clip.place).frames[0];
  const vole::Frame& frame = sheet->frames[static_cast<std::size_t>(index)];
  list.add(layer, vole::show(frame, place.at));
}

void preview_level(vole::Catalog& catalog, const vole::Level& level, const std::string& output) {
  constexpr int longest = 4096;
  if (level.cells.x == 0)
    throw vole::Error(vole::Place::whole_file(level.name), "the level has no rows of tiles to show");
  const IVec2 size = level.size();
  if (size.x > longest || size.y > longest)
    throw vole::Error(vole::Place::whole_file(level.name),
                      fmt::format("the level is {} x {} pixels; a preview is at most {} along a side", size.x,
                                  size.y, longest));
  Image image(size, level.sky);
  DrawList list;
  list.start(size);
  for (const vole::LevelLayer& layer : level.layers) {
    const LayerId id = list.add_layer({0, 0});
    const int top = layer.edge == vole::LayerEdge::top ? 0 : size.y - layer.frame.size.y;
    if (layer.picture && layer.cover)
      vole::draw_covering(list, id, layer.frame);
    else if (layer.picture)
      vole::draw_repeated(list, id, layer.frame, Vec2(0, top), layer.repeat);
    if (!layer.tiles.empty())
      list.add(id, vole::TilesItem{level.tileset->picture.get(), layer.tiles.data(), level.cells,
                                   level.tile_size(), level.tileset->frames.data()});
  }
  const LayerId marks = list.add_layer({0, 0});
  const vole::Kinds kinds = vole::read_kinds(catalog.root());
  for (const vole::LevelPlace& place : level.places) {
    draw_thing(list, marks, catalog, kinds, place);
    list.fill(marks, {{place.at.x - 2, place.at.y - 1}, {5, 2}}, mark);
    vole::draw_text(list, marks, vole::plain_font(), place.name.empty() ? place.kind : place.name,
                    {place.at.x, place.at.y + 2}, {.anchor = vole::Anchor::top});
  }
  list.sort();
  vole::Raster().draw(list, image);
  const int factor = std::max(1, std::min(page.x / size.x, page.y / size.y));
  vole::write_png(output, vole::enlarged(image, factor));
}

// The file's name in its catalog, or nothing when it is not of this sort.
template <class T>
std::string name_in_catalog(const std::string& root, const std::string& file, std::string_view ending) {
  const std::string relative =
      std::filesystem::absolute(file)
          .lexically_normal()
          .lexically_relative(std::filesystem::path(root) / vole::AssetSort<T>::folder)
          .generic_string();
  if (!relative.ends_with(ending) || relative.starts_with("..")) return {};
  return relative.substr(0, relative.size() - ending.size());
}

}  // namespace

int preview(const PreviewOptions& options) {
  vole::read_bytes(options.file,
                   std::size_t{1} << 30);  // tells of a missing file, with its neighbours' names
  if (!options.output.ends_with(".png"))
    throw vole::Error(vole::Place::whole_file(options.output), "a preview is a PNG",
                      "give it a name that ends in .png");
  const std::string root =
      game_around(vole::folder_of(std::filesystem::absolute(options.file).generic_string()));
  if (root.empty())
    throw vole::Error(vole::Place::whole_file(options.file),
                      "belongs to no game: no folder above it has a game.toml");
  vole::Catalog catalog(root);
  if (const auto tileset = name_in_catalog<vole::Tileset>(root, options.file, ".tileset.toml");
      !tileset.empty())
    preview_tileset(*catalog.get<vole::Tileset>(tileset), options.output);
  else if (const auto level = name_in_catalog<vole::Level>(root, options.file, ".level.toml"); !level.empty())
    preview_level(catalog, *catalog.get<vole::Level>(level), options.output);
  else if (const auto font = name_in_catalog<vole::Font>(root, options.file, ".font.toml"); !font.empty())
    preview_font(*catalog.get<vole::Font>(font), options.output);
  else if (const auto atlas = name_in_catalog<vole::Atlas>(root, options.file, ".atlas.toml"); !atlas.empty())
    preview_atlas(*catalog.get<vole::Atlas>(atlas), options.output);
  else if (const auto sheet = name_in_catalog<vole::Sheet>(root, options.file, ".sheet.toml");
           !sheet.empty() && catalog.get<vole::Sheet>(sheet)->font)
    preview_font(*catalog.get<vole::Font>(sheet), options.output);
  else if (!sheet.empty())
    preview_sheet(*catalog.get<vole::Sheet>(sheet), options.output);
  else if (const auto picture = name_in_catalog<vole::Picture>(root, options.file, ".png"); !picture.empty())
    preview_sheet(*catalog.get<vole::Sheet>(picture), options.output);
  else
    throw vole::Error(
        vole::Place::whole_file(options.file), "is nothing that can be shown",
        "a preview is made of assets/NAME.sheet.toml, .png, .font.toml, .atlas.toml, .tileset.toml or "
        "levels/NAME.level.toml");
  fmt::print("{}\n", options.output);
  return 0;
}
