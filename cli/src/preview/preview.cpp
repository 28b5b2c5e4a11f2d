#include <fmt/core.h>

#include <algorithm>
#include <chrono>
#include <cmath>
#include <filesystem>
#include <thread>

#include "command.hpp"
#include "commands.hpp"
#include "game_files.hpp"
#include "preview_kinds.hpp"
#include "preview_level.hpp"
#include "preview_page.hpp"
#include "preview_sheet.hpp"
#include "preview_tileset.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/base/names.hpp"
#include "vole/base/output_files.hpp"
#include "vole/base/watch.hpp"
#include "vole/level/level.hpp"

namespace {

struct PreviewOptions {
  std::string file;
  std::string output;
  std::string clip;          // or set; empty: all
  std::string kind;          // of kinds.toml: only this one; of a level: who gets where
  std::string show = "all";  // or another of the words below
  bool force = false;        // replace what Vole did not make
  bool watch = false;        // for ever
};

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

bool is_kinds_file(const std::string& root, const std::string& file) {
  const std::string relative = std::filesystem::absolute(file)
                                   .lexically_normal()
                                   .lexically_relative(std::filesystem::path(root))
                                   .generic_string();
  return relative == "kinds.toml" || (relative.starts_with("kinds/") && relative.ends_with(".toml"));
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

// What a file is shown as, and the words and options that go with that.
struct Sort {
  std::string_view name;  // "a level"
  std::vector<std::string_view> shows;
  bool has_clips = false, has_kinds = false;
};
const Sort a_sheet{"a sheet", {"all", "baseline", "rules", "shapes"}, true, false};
const Sort a_font{"a font", {"all"}};
const Sort an_atlas{"an atlas", {"all"}};
const Sort a_tileset{"a tileset", {"all", "edges"}};
const Sort a_level{"a level", {"all", "light", "reach", "shapes"}, false, true};
const Sort kinds_of_things{"a file of kinds", {"all", "jump", "mind", "shapes"}, false, true};

void expect_fitting(const PreviewOptions& options, const Sort& sort) {
  const vole::FilePosition where = vole::FilePosition::whole_file(options.file);
  if (std::find(sort.shows.begin(), sort.shows.end(), options.show) == sort.shows.end())
    throw vole::Error(
        where, fmt::format("is {}, of which --show {} shows nothing", sort.name, options.show),
        sort.shows.size() == 1
            ? std::string("leave out --show")
            : "--show has these words for it: " +
                  vole::joined(std::vector<std::string>(sort.shows.begin(), sort.shows.end()), ", "));
  if (!options.clip.empty() && !sort.has_clips)
    throw vole::Error(where, fmt::format("is {}, which has no clips", sort.name), "leave out --clip");
  if (!options.kind.empty() && !sort.has_kinds)
    throw vole::Error(where, fmt::format("is {}, which has no kinds", sort.name), "leave out --kind");
  if (options.output.ends_with(".gif") && !sort.has_clips)
    throw vole::Error(vole::FilePosition::whole_file(options.output),
                      fmt::format("only clips of a sheet move, and {} is {}", options.file, sort.name),
                      "give it a name that ends in .png");
}

void show_level(vole::Catalog& catalog, const std::string& name, const PreviewOptions& options) {
  expect_fitting(options, a_level);
  if (!options.kind.empty() && options.show != "reach")
    throw vole::Error(vole::FilePosition::whole_file(options.file),
                      "of a level, --kind goes with --show reach", "leave out --kind");
  const auto level = catalog.get<vole::Level>(name);
  if (options.show == "reach") return preview_reach(catalog, *level, options.kind, options.output);
  if (options.show == "light") return preview_light(catalog, *level, options.output);
  preview_level(catalog, *level, options.show == "shapes", options.output);
}

void show_kinds(vole::Catalog& catalog, const PreviewOptions& options) {
  expect_fitting(options, kinds_of_things);
  const bool needs_kind = options.show == "jump" || options.show == "mind";
  if (needs_kind && options.kind.empty())
    throw vole::Error(vole::FilePosition::whole_file(options.file),
                      fmt::format("which kind to show the {} of is missing", options.show),
                      "name its kind: --kind vole");
  if (options.show == "jump") return preview_jump(catalog, options.kind, options.output);
  if (options.show == "mind") return preview_mind(catalog, options.kind, options.output);
  if (!options.kind.empty()) return preview_kind(catalog, options.kind, options.output);
  preview_kinds(catalog, options.file, options.output);
}

void show_sheet(vole::Catalog& catalog, const std::string& name, const PreviewOptions& options) {
  const auto sheet = catalog.get<vole::Sheet>(name);
  expect_fitting(options, sheet->font ? a_font : a_sheet);
  if (sheet->font) return preview_font(*catalog.get<vole::Font>(name), options.output);
  if (options.show == "shapes") return preview_sheet_shapes(catalog, *sheet, options.file, options.output);
  preview_sheet(*sheet, options);
}

void preview_once(const std::string& root, const PreviewOptions& options) {
  vole::Catalog catalog(root);
  const auto named = [&]<class T>(T*, std::string_view ending) {
    return name_in_catalog<T>(root, options.file, ending);
  };
  if (is_kinds_file(root, options.file)) return show_kinds(catalog, options);
  if (const std::string level = named(static_cast<vole::Level*>(nullptr), ".level.toml"); !level.empty())
    return show_level(catalog, level, options);
  if (const std::string tileset = named(static_cast<vole::Tileset*>(nullptr), ".tileset.toml");
      !tileset.empty()) {
    expect_fitting(options, a_tileset);
    return (options.show == "edges" ? preview_edges : preview_tileset)(*catalog.get<vole::Tileset>(tileset),
                                                                       options.output);
  }
  if (const std::string font = named(static_cast<vole::Font*>(nullptr), ".font.toml"); !font.empty()) {
    expect_fitting(options, a_font);
    return preview_font(*catalog.get<vole::Font>(font), options.output);
  }
  if (const std::string atlas = named(static_cast<vole::Atlas*>(nullptr), ".atlas.toml"); !atlas.empty()) {
    expect_fitting(options, an_atlas);
    return preview_atlas(*catalog.get<vole::Atlas>(atlas), options.output);
  }
  std::string name = named(static_cast<vole::Sheet*>(nullptr), ".sheet.toml");
  if (name.empty()) name = named(static_cast<vole::Picture*>(nullptr), ".png");
  if (name.empty())
    throw vole::Error(
        vole::FilePosition::whole_file(options.file), "is nothing that can be shown",
        "a preview is made of assets/NAME.sheet.toml, .png, .font.toml, .atlas.toml, .tileset.toml, "
        "levels/NAME.level.toml or kinds.toml");
  show_sheet(catalog, name, options);
}

// Draws again whenever a file of the game changes; what is wrong is reported, and the last good picture stays.
[[noreturn]] void preview_for_ever(const std::string& root, const PreviewOptions& options) {
  const auto watch = vole::watch_files(
      {{vole::join_path(root, "assets"), vole::join_path(root, "levels")}, {root}, {options.output}});
  while (true) {
    try {
      preview_once(root, options);
      fmt::print("{}\n", options.output);
    } catch (const vole::Error& error) {
      fmt::print(stderr, "{}\n", error.what());
    }
    std::fflush(stdout);
    while (!watch->changed()) std::this_thread::sleep_for(std::chrono::milliseconds(100));
  }
}

// The files that the game consists of are never replaced.
void expect_output(const PreviewOptions& options, const std::string& root) {
  vole::OutputFiles outputs(options.force);
  for (const std::string& file : files_with_names(root))
    outputs.keep(vole::join_path(root, file), "is a file of the game");
  outputs.add(options.output, vole::OutputKind::picture);
}

void preview(const PreviewOptions& options) {
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
  expect_output(options, root);
  if (options.watch) preview_for_ever(root, options);
  preview_once(root, options);
  fmt::print("{}\n", options.output);
}

}  // namespace

void add_preview(CommandLine& line) {
  const auto options = std::make_shared<PreviewOptions>();
  Command command = line.add(
      "preview", "Show a sheet, font, atlas, picture, tileset or level as a PNG, or clips in motion as a GIF",
      "  vole preview assets/robin.sheet.toml -o robin.png\n"
      "  vole preview assets/robin.sheet.toml --clip hop -o hop.gif --watch\n"
      "  vole preview levels/wall.level.toml -o wall.png",
      [options] {
        preview(*options);
        return 0;
      });
  command
      .word("FILE", options->file,
            "NAME.sheet.toml, .font.toml, .atlas.toml, .png, .tileset.toml, .level.toml or kinds.toml")
      .needed();
  command.word("-o,--output", options->output, "The PNG or GIF to write").value_name("FILE").needed();
  command.word("--clip", options->clip, "Only this clip or set of a sheet").value_name("NAME");
  command
      .word("--kind", options->kind,
            "Only this kind of kinds.toml, with its fields and where they are written; of a level: who gets "
            "where, with --show reach")
      .value_name("NAME");
  command
      .word("--show", options->show,
            "Of a sheet: all of it, its clips on one line, its clip rules, or the bodies of what "
            "shows it; of a "
            "level: what is solid, its light, or where --kind gets to; of a tileset: the cases of its "
            "materials; "
            "of kinds.toml: how --kind jumps, or its mind")
      .one_of({"all", "baseline", "edges", "jump", "light", "mind", "reach", "rules", "shapes"})
      .shows_default();
  command.flag("--force", options->force, "Replace a file of the name of --output that Vole did not make");
  command.flag("--watch", options->watch, "Draw again whenever a file of the game changes");
}
