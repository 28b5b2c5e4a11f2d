#include <fmt/format.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <thread>

#include "commands.hpp"
#include "game_files.hpp"
#include "outputs.hpp"
#include "preview_page.hpp"
#include "preview_sheet.hpp"
#include "vole/app/project.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/watch.hpp"
#include "vole/draw/background.hpp"
#include "vole/draw/raster.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/level_drawing.hpp"
#include "vole/scene/shape_drawing.hpp"
#include "vole/world/body.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/shapes.hpp"

namespace {

using namespace paper;

// Every letter, and a line to judge the whole by.
void preview_font(const vole::Font& font, const std::string& output) {
  Page font_page;
  font_page.text({margin, 16}, fmt::format("{}: {} letters, {} pixels from line to line", font.name(),
                                           font.glyphs().size(), font.line_height()));
  constexpr std::string_view sample = "Sixteen bulbs in the shed, and 9 voles asking: \"Is it Friday yet?\"";
  const int scale = std::clamp(page_size.x / std::max(font.measure(sample).x, 1), 1, 4);
  vole::TextStyle style{.scale = scale, .width = (page_size.x - 2 * margin) / scale};
  int y = 56;
  for (const Colour colour : {ink, mark}) {
    style.colour = colour;
    style.outline = colour == mark ? Colour{0x6e, 0x27, 0x41, 0xff} : vole::clear;
    font_page.text(font, {margin, y}, sample, style);
    y += vole::measure_text(font, sample, style.width).y * scale + 16;
  }
  int widest = 1;
  for (const vole::Glyph& glyph : font.glyphs()) widest = std::max(widest, glyph.frame.area.size.x);
  const IVec2 cell{widest, font.line_height()};
  const auto count = static_cast<int>(font.glyphs().size());
  const int fit =
      std::min(fitting_scale(cell, count, {page_size.x - 2 * margin, page_size.y - y - 20}, {8, 8}), 4);
  Flow cells({margin, y + 8}, page_size.x - margin, {cell.x * fit + 8, cell.y * fit + 8});
  for (const vole::Glyph& glyph : font.glyphs()) {
    const IVec2 at = cells.next();
    if (at.y > page_size.y) break;
    font_page.squares({at, cell * fit}, 4 * fit);
    vole::Frame frame = glyph.frame;
    frame.offset.x = 0;
    font_page.frame(frame, at, fit);
  }
  font_page.save(output);
}

// The pages side by side, with a rim round each frame in the colour of its sheet.
void preview_atlas(const vole::Atlas& atlas, const std::string& output) {
  Page atlas_page;
  std::size_t frames = 0;
  for (const auto& sheet : atlas.sheets) frames += sheet->frames.size();
  atlas_page.text({margin, 16},
                  fmt::format("{}: {} sheets, {} frames on {} page{}", atlas.name, atlas.sheets.size(),
                              frames, atlas.pages.size(), atlas.pages.size() == 1 ? "" : "s"));
  const int shown = std::min(static_cast<int>(atlas.pages.size()), 4);
  const int room = (page_size.x - 2 * margin) / std::max(shown, 1) - 8;
  for (int i = 0; i < shown; ++i) {
    const vole::Picture& picture = *atlas.pages[static_cast<std::size_t>(i)];
    const float scale =
        std::min({4.0f, static_cast<float>(room) / static_cast<float>(picture.size().x),
                  static_cast<float>(page_size.y - 80) / static_cast<float>(picture.size().y)});
    const float fit = scale > 1 ? std::floor(scale) : scale;
    const IVec2 at{margin + i * (room + 8), 52};
    atlas_page.squares({at, IVec2(Vec2(picture.size()) * fit)}, 8);
    atlas_page.picture(picture, at, fit);
    for (std::size_t s = 0; s < atlas.sheets.size(); ++s)
      for (const vole::Frame& frame : atlas.sheets[s]->frames)
        if (frame.picture == &picture && !frame.area.empty())
          atlas_page.outline({at + IVec2(Vec2(frame.area.at) * fit), IVec2(Vec2(frame.area.size) * fit)},
                             point_mark(s));
  }
  atlas_page.save(output);
}

void preview_tileset(const vole::Tileset& tileset, const std::string& output) {
  Page tiles_page;
  tiles_page.text({margin, 16},
                  fmt::format("{}: {} tiles of {} pixels; what is solid has a rim, one-way in gold",
                              tileset.name, tileset.tiles.size(), tileset.tile_size));
  const IVec2 cell{tileset.tile_size, tileset.tile_size};
  const int scale = fitting_scale(cell, static_cast<int>(tileset.tiles.size()),
                                  {page_size.x - 2 * margin, page_size.y - 70}, {90, 44});
  Flow cells({margin, 56}, page_size.x - margin, {cell.x * scale + 90, cell.y * scale + 44});
  for (std::size_t i = 0; i < tileset.tiles.size(); ++i) {
    const IVec2 at = cells.next();
    const vole::IRect box{at, {cell.x * scale, cell.y * scale}};
    tiles_page.squares(box, 16);
    tiles_page.frame(tileset.frames[i], at, scale);
    if (const auto& form = tileset.tiles[i].form)
      tiles_page.shape(form->shape(), at, scale, form->one_way == vole::OneWay::no ? solid_mark : mark);
    tiles_page.text({at.x, box.bottom() + 8}, tileset.tiles[i].name);
  }
  tiles_page.save(output);
}

// The body of a thing at a place, as it is when it is spawned.
void draw_body(DrawList& list, LayerId layer, const vole::CompiledKind& kind,
               const vole::ComponentTypes& types, Vec2 at) {
  const vole::Body* body = nullptr;
  const vole::Shapes* shapes = nullptr;
  for (const vole::CompiledKind::Part& part : kind.parts) {
    if (part.type == types.of<vole::Body>()) body = static_cast<const vole::Body*>(part.component.get());
    if (part.type == types.of<vole::Shapes>())
      shapes = static_cast<const vole::Shapes*>(part.component.get());
  }
  if (!body) return;
  const Colour colour = body->one_way == vole::OneWay::no ? body_mark : mark;
  if (!shapes) return list.outline(layer, body->box(at), colour);
  for (const auto& shape : shapes->list)
    vole::draw_shape(list, layer, vole::shape_of(shape.value), at, colour);
}

// The thing at a place, as it is when it is spawned.
void draw_thing(DrawList& list, LayerId layer, const vole::KindCompiler& compiler,
                const vole::LevelPlace& place, bool with_shapes) {
  vole::Node thing = compiler.kinds.kind(place.kind, place.where);
  thing.merge(place.overrides);
  vole::Report report;
  const auto kind = compiler.compile(place.kind, thing, report);
  report.throw_if_errors();
  const int frame = kind->sprite ? kind->sprite->frame(60) : -1;
  if (frame >= 0)
    list.add(layer,
             vole::show(kind->sprite->sheet()->posed(frame, kind->sprite->playhead().clip()), place.at));
  if (with_shapes) draw_body(list, layer, *kind, compiler.binding.types, place.at);
}

// What is solid, the bodies of things, and the zones.
void draw_solids(DrawList& list, LayerId layer, const vole::Level& level) {
  for (int y = 0; y < level.cells.y; ++y)
    for (int x = 0; x < level.cells.x; ++x)
      if (const vole::CellForm* const form = level.solid.form(x, y))
        vole::draw_cell(list, layer, level.solid, {x, y},
                        form->one_way == vole::OneWay::no ? solid_mark : mark);
  for (const vole::LevelZone& zone : level.zones) {
    list.outline(layer, zone.area, zone_mark);
    vole::draw_text(list, layer, vole::plain_font(), zone.name, zone.area.at + Vec2{2, 2},
                    {.colour = zone_mark});
  }
}

void preview_level(vole::Catalog& catalog, const vole::Level& level, bool with_shapes,
                   const std::string& output) {
  constexpr int longest = 4096;
  if (level.cells.x == 0)
    throw vole::Error(vole::FilePosition::whole_file(level.name), "the level has no rows of tiles to show");
  const IVec2 size = level.size();
  if (size.x > longest || size.y > longest)
    throw vole::Error(vole::FilePosition::whole_file(level.name),
                      fmt::format("the level is {} x {} pixels; a preview is at most {} along a side", size.x,
                                  size.y, longest));
  Image image(size, level.sky);
  DrawList list;
  list.start(size);
  for (const vole::LevelLayer& layer : level.layers) {
    vole::draw_level_layer(list, list.add_layer({0, 0}), level, layer, layer.tiles);
  }
  const LayerId marks = list.add_layer({0, 0});
  const std::string project = vole::join_path(catalog.root(), "game.toml");
  const vole::Kinds kinds =
      vole::read_kinds(catalog.root(), vole::file_exists(project) ? vole::read_project(project).categories
                                                                  : vole::Categories{});
  const vole::ComponentTypes types;
  const std::vector<const vole::Track*> no_tracks;
  const vole::KindCompiler compiler{kinds, {catalog, types, no_tracks, vole::UnknownComponents::skip}};
  if (with_shapes) draw_solids(list, marks, level);
  for (const vole::LevelPlace& place : level.places) {
    draw_thing(list, marks, compiler, place, with_shapes);
    list.fill(marks, {{place.at.x - 2, place.at.y - 1}, {5, 2}}, mark);
    vole::draw_text(list, marks, vole::plain_font(), place.name.empty() ? place.kind : place.name,
                    {place.at.x, place.at.y + 2}, {.anchor = vole::Anchor::top});
  }
  list.sort();
  vole::Raster().draw(list, image);
  const int factor = std::max(1, std::min(page_size.x / size.x, page_size.y / size.y));
  vole::write_png(output, vole::enlarged(image, factor));
}

// The file's name in its catalog, or nothing when it is not of this sort.
template <class T>
std::string name_in_catalog(const std::string& root, const std::string& file, std::string_view ending) {
  const std::string relative =
      std::filesystem::absolute(file)
          .lexically_normal()
          .lexically_relative(std::filesystem::path(root) / vole::AssetType<T>::folder)
          .generic_string();
  if (!relative.ends_with(ending) || relative.starts_with("..")) return {};
  return relative.substr(0, relative.size() - ending.size());
}

std::vector<const vole::Clip*> clips_to_show(const vole::Sheet& sheet, const std::string& name) {
  if (!name.empty()) {
    sheet.expect_played(name);
    std::vector<const vole::Clip*> clips = sheet.played_by(name);
    std::sort(clips.begin(), clips.end());
    clips.erase(std::unique(clips.begin(), clips.end()), clips.end());
    return clips;
  }
  std::vector<const vole::Clip*> clips;
  for (const vole::Clip& clip : sheet.clips) clips.push_back(&clip);
  return clips;
}

void preview_sheet(const vole::Sheet& sheet, const PreviewOptions& options) {
  const bool moving = options.output.ends_with(".gif");
  if (options.show == "shapes")
    throw vole::Error(vole::FilePosition::whole_file(options.file), "is no level: it has no shapes to show",
                      "preview levels/NAME.level.toml, or a tileset, which always shows them");
  if (options.show == "rules") return preview_rules(sheet, options.output);
  if (!moving && options.clip.empty() && options.show != "baseline")
    return preview_frames(sheet, options.output);
  const std::vector<const vole::Clip*> clips = clips_to_show(sheet, options.clip);
  if (clips.empty())
    throw vole::Error(vole::FilePosition::whole_file(options.file), "has no clips to show",
                      "they are written as [clips.NAME]");
  if (moving)
    preview_motion(sheet, clips, options.output);
  else if (options.show == "baseline")
    preview_baseline(sheet, clips, options.output);
  else
    preview_strips(sheet, clips, options.output);
}

// What is not a sheet has no clips.
void expect_plain(const PreviewOptions& options) {
  if (!options.clip.empty() || options.show != "all" || options.output.ends_with(".gif"))
    throw vole::Error(vole::FilePosition::whole_file(options.file),
                      "is not a sheet: it has no clips and no rules to show",
                      "leave out --clip and --show, and write a PNG");
}

void preview_once(const std::string& root, const PreviewOptions& options) {
  vole::Catalog catalog(root);
  const std::string& file = options.file;
  const auto show = [&]<class T>(std::string_view ending, void (*draw)(const T&, const std::string&)) {
    const std::string name = name_in_catalog<T>(root, file, ending);
    if (name.empty()) return false;
    expect_plain(options);
    draw(*catalog.get<T>(name), options.output);
    return true;
  };
  if (show.operator()<vole::Tileset>(".tileset.toml", preview_tileset) ||
      show.operator()<vole::Font>(".font.toml", preview_font) ||
      show.operator()<vole::Atlas>(".atlas.toml", preview_atlas))
    return;
  if (const auto level = name_in_catalog<vole::Level>(root, file, ".level.toml"); !level.empty()) {
    const bool with_shapes = options.show == "shapes";
    if (!with_shapes) expect_plain(options);
    return preview_level(catalog, *catalog.get<vole::Level>(level), with_shapes, options.output);
  }
  std::string name = name_in_catalog<vole::Sheet>(root, file, ".sheet.toml");
  if (name.empty()) name = name_in_catalog<vole::Picture>(root, file, ".png");
  if (name.empty())
    throw vole::Error(
        vole::FilePosition::whole_file(file), "is nothing that can be shown",
        "a preview is made of assets/NAME.sheet.toml, .png, .font.toml, .atlas.toml, .tileset.toml or "
        "levels/NAME.level.toml");
  const auto sheet = catalog.get<vole::Sheet>(name);
  if (!sheet->font) return preview_sheet(*sheet, options);
  expect_plain(options);
  preview_font(*catalog.get<vole::Font>(name), options.output);
}

// Draws again whenever a file of the game changes; what is wrong is reported, and the last good picture stays.
[[noreturn]] void preview_for_ever(const std::string& root, const PreviewOptions& options) {
  const auto watch =
      vole::watch_files({{vole::join_path(root, "assets"), vole::join_path(root, "levels")}, {root}});
  while (true) {
    try {
      preview_once(root, options);
      fmt::print("{}\n", options.output);
    } catch (const vole::Error& error) {
      fmt::print(stderr, "{}\n", error.what());
    }
    std::fflush(stdout);
    watch->changed();  // by what was just written, when it lies in one of the folders
    while (!watch->changed()) std::this_thread::sleep_for(std::chrono::milliseconds(100));
  }
}

}  // namespace

int preview(const PreviewOptions& options) {
  vole::read_bytes(options.file, std::size_t{1} << 30);  // reports a missing file, with the nearest name
  const bool moving = options.output.ends_with(".gif");
  if (!moving && !options.output.ends_with(".png"))
    throw vole::Error(vole::FilePosition::whole_file(options.output),
                      "a preview is a PNG, or of clips in motion a GIF",
                      "give it a name that ends in .png or .gif");
  if (moving && options.show != "all")
    throw vole::Error(vole::FilePosition::whole_file(options.output),
                      fmt::format("\"{}\" does not move", options.show), "give it a name that ends in .png");
  const std::string root =
      game_around(vole::folder_of(std::filesystem::absolute(options.file).generic_string()));
  if (root.empty())
    throw vole::Error(vole::FilePosition::whole_file(options.file),
                      "belongs to no game: no folder above it has a game.toml");
  expect_no_game_file(options.output, root);
  if (options.watch) preview_for_ever(root, options);
  preview_once(root, options);
  fmt::print("{}\n", options.output);
  return 0;
}
