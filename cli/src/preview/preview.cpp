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
#include "rules/rules.hpp"
#include "vole/asset/atlas.hpp"
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

// What is not a sheet has no clips.
void expect_plain(const PreviewOptions& options) {
  if (!options.clip.empty() || options.show != "all" || options.output.ends_with(".gif"))
    throw vole::Error(vole::FilePosition::whole_file(options.file),
                      "is not a sheet: it has no clips and no rules to show",
                      "leave out --clip and --show, and write a PNG");
}

void preview_once(const std::string& root, const PreviewOptions& options) {
  if (!options.kind.empty() && !is_kinds_file(root, options.file) && options.show != "reach")
    throw vole::Error(vole::FilePosition::whole_file(options.file),
                      "is not kinds.toml: it has no kinds to show", "leave out --kind");
  vole::Catalog catalog(root);
  const std::string& file = options.file;
  const auto show = [&]<class T>(std::string_view ending, void (*draw)(const T&, const std::string&)) {
    const std::string name = name_in_catalog<T>(root, file, ending);
    if (name.empty()) return false;
    expect_plain(options);
    draw(*catalog.get<T>(name), options.output);
    return true;
  };
  if (options.show == "edges") {
    const std::string name = name_in_catalog<vole::Tileset>(root, file, ".tileset.toml");
    if (name.empty())
      throw vole::Error(vole::FilePosition::whole_file(file), "is no tileset: it has no edges to show",
                        "leave out --show edges");
    return preview_edges(*catalog.get<vole::Tileset>(name), options.output);
  }
  if (show.operator()<vole::Tileset>(".tileset.toml", preview_tileset) ||
      show.operator()<vole::Font>(".font.toml", preview_font) ||
      show.operator()<vole::Atlas>(".atlas.toml", preview_atlas))
    return;
  if (const auto level = name_in_catalog<vole::Level>(root, file, ".level.toml"); !level.empty()) {
    if (options.show == "reach")
      return preview_reach(catalog, *catalog.get<vole::Level>(level), options.kind, options.output);
    if (options.show == "light")
      return preview_light(catalog, *catalog.get<vole::Level>(level), options.output);
    const bool with_shapes = options.show == "shapes";
    if (!with_shapes) expect_plain(options);
    return preview_level(catalog, *catalog.get<vole::Level>(level), with_shapes, options.output);
  }
  if (is_kinds_file(root, file)) {
    if (options.show == "jump" || options.show == "mind") {
      if (options.kind.empty())
        throw vole::Error(vole::FilePosition::whole_file(file),
                          fmt::format("which kind to show the {} of is missing", options.show),
                          "name its kind: --kind vole");
      return (options.show == "jump" ? preview_jump : preview_mind)(catalog, options.kind, options.output);
    }
    if (options.show != "shapes") expect_plain(options);
    if (!options.kind.empty()) return preview_kind(catalog, options.kind, options.output);
    return preview_kinds(catalog, file, options.output);
  }
  std::string name = name_in_catalog<vole::Sheet>(root, file, ".sheet.toml");
  if (name.empty()) name = name_in_catalog<vole::Picture>(root, file, ".png");
  if (name.empty())
    throw vole::Error(
        vole::FilePosition::whole_file(file), "is nothing that can be shown",
        "a preview is made of assets/NAME.sheet.toml, .png, .font.toml, .atlas.toml, .tileset.toml, "
        "levels/NAME.level.toml or kinds.toml");
  const auto sheet = catalog.get<vole::Sheet>(name);
  if (options.show == "shapes") return preview_sheet_shapes(catalog, *sheet, file, options.output);
  if (!sheet->font) return preview_sheet(*sheet, options);
  expect_plain(options);
  preview_font(*catalog.get<vole::Font>(name), options.output);
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
  for (const std::string& file : files_of_game(root))
    if ((file.find('/') == std::string::npos && file.ends_with(".toml")) || file.starts_with("assets/") ||
        file.starts_with("levels/") || file.starts_with("kinds/"))
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
