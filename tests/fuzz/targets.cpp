#include "targets.hpp"

#include <stdlib.h>

#include <filesystem>

#include "state_target.hpp"
#include "vole/animation/playhead.hpp"
#include "vole/app/project.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/outline.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/input/controls.hpp"
#include "vole/input/input_reader.hpp"
#include "vole/input/recording.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"
#include "vole/saves/save_file.hpp"
#include "vole/world/compiled_kinds.hpp"

namespace {

// A game's folder of this process, in which one file at a time is replaced.
class Folder {
 public:
  Folder() {
    std::string pattern = (std::filesystem::temp_directory_path() / "vole-fuzz-XXXXXX").string();
    folder_ = mkdtemp(pattern.data());
    vole::write_png(path("assets/mouse.png"), vole::Image({32, 16}, vole::white));
    write("assets/mouse.sheet.toml",
          "picture = \"mouse.png\"\nframe = { size = [8, 8], margin = 0, spacing = 0 }\npivot = \"bottom\"\n"
          "[clips.run]\nframes = [0, 1, 2]\nfps = 12\nloop = false\n[font]\nglyphs = [\"ABCD\", "
          "\"\u00e9fgh\"]\ngap = 1\n");
    write(
        "assets/named.sheet.toml",
        "picture = \"mouse\"\npivot = [1, 2]\n[frames.a]\narea = [0, 0, 8, 8]\npivot = \"top\"\n[frames.b]\n"
        "area = [8, 0, 4, 4]\noffset = [1, 1]\nsize = [8, 8]\n[clips.run]\nframes = [\"a\", 1]\npivot = "
        "\"left\"\n"
        "[points.paw]\nat = [3, 3]\nframes = { b = [1, 1], 0 = [2, 2] }\n[borders]\nleft = 2\nstretch = "
        "true\n");
    write("assets/lively.sheet.toml",
          "picture = \"mouse\"\nframe = { size = [8, 8] }\n[clips.a]\nrow = 1\nrange = [2, 0]\nseconds = "
          "[0.1, 0.2, "
          "0.3]\norder = \"back and forth\"\ntimes = 2\nevents = { step = [0, 2], done = \"end\" }\ntracks = "
          "[\"t\"]\n"
          "[points.paw]\nat = [1, 1]\n[sets.walk]\ndirections = \"four\"\nmissing = \"turned\"\nrows = { "
          "right = 0, down = "
          "1 }\nfps = 7\n"
          "[sets.mood]\nclips = { calm = \"a\" }\n[tracks.t]\nloop = true\n"
          "offset = [{ at = 0, value = [1, 2], ease = \"smooth\" }, { at = 0.5, value = [0, 0] }]\n"
          "tint = [{ at = 1, value = \"#ff8800\" }]\nfields = { \"body.size\" = [{ at = 0.2, value = [1, 2] "
          "}] }\n"
          "[[rules]]\nclip = \"walk\"\nwhen = [\"not grounded\", \"vx >= 2.5\"]\nhold = 0.1\n[[rules]]\nclip "
          "= \"a\"\n"
          "finish = true\n");
    write("assets/pack.atlas.toml",
          "pages = [\"mouse.png\"]\n[sheets.a]\nfont = { glyphs = [\"ab\"], kerning = { ab = 1 } }\ncolumns "
          "= 2\n"
          "[sheets.a.frames]\n0 = { area = [0, 0, 8, 8], page = 0 }\n1 = { area = [0, 0, 0, 0], size = [8, "
          "8] }\n"
          "[sheets.b]\ncolour = \"#123456\"\nsize = [4, 4]\ncount = 2\n");
    write("assets/hand.ttf", vole::read_text(VOLE_SAMPLE_FONT, 1 << 20));
    write("assets/hand.font.toml",
          "file = \"hand.ttf\"\nsize = 9\nantialias = false\nletters = \"\u00e9\"\n");
    write(
        "assets/mouse.tileset.toml",
        "frame = { size = [8, 8] }\n[tiles]\nsoil = { cell = [0, 0], solid = true }\ngrass = { cell = [3, "
        "1], tags = [\"a\"], friction = 0.5, body = { size = [1, 2] } }\nstone = { cells = [[0, 0], [1, 1]] "
        "}\nrow = { row = 1 "
        "}\nwater = { frames = [[0, 0], [1, 0]], seconds = [0.5, 0.1] }\n"
        "[materials]\nlawn = { neighbours = \"eight\", cases = { \"left, above\" = \"grass\", all = "
        "[\"soil\", { "
        "tile = "
        "\"grass\", weight = 2 }] }, joins = [\"soil\", \"moss\"] }\nmoss = { neighbours = \"diagonal\", "
        "first = "
        "[0, 0], "
        "columns = 4, missing = [15, 14, 13, 12, 11, 10, 9, 8], variants = [{ case = 1, cells = [[1, 1]], "
        "weight = "
        "0.5 }] }\n");
    write(
        "levels/patch.level.toml",
        "sky = \"#24352a\"\ntileset = \"mouse\"\nletters = { \".\" = \"\", \"#\" = \"soil\", \"b\" = "
        "\"soil, mirrored, turned 90\" }\n"
        "[[layers]]\nname = \"back\"\npicture = \"mouse\"\nparallax = [0.5, 1]\n"
        "[[layers]]\nname = \"ground\"\nrows = [\"..\", \"##\"]\n"
        "[[layers]]\nname = \"cells\"\ncsv = \"cells.csv\"\ntint = \"#ff8800\"\nopacity = 0.5\nvisible = "
        "false\n"
        "[[places]]\nkind = \"mouse\"\ncell = [1, 0]\nbody = { size = [1, 2] }\npivot = \"top\"\nmirrored = "
        "true\n"
        "[[places]]\nkind = \"a\"\nat = [1.5, 2]\noffset = [1, 1]\nname = \"b\"\n"
        "[[zones]]\nname = \"z\"\npoints = [[0, 0], [16, 0], [4, 4], [0, 16]]\n"
        "[[zones]]\nname = \"y\"\narea = [0, 0, 3, 4]\n"
        "[[paths]]\nname = \"p\"\npoints = [[0, 0], [4, 5], [9, 2]]\nclosed = true\ncurved = true\n"
        "[[scattered]]\nkind = \"a\"\ncount = 1\non = [\"soil\", \"lawn\"]\nseed = 4\napart "
        "= 2\n");
    write("levels/cells.csv", "soil,lawn\r\n\"grass, mirrored\",#\r\n");
    write("kinds.toml",
          "[mouse]\nsprite = { sheet = \"mouse\", layer = \"ground\" }\nbody = { size = [6, 6] "
          "}\n[a]\n[runner]\nplayer = "
          "{}\nside_mover = {}\n"
          "sprite = { sheet = \"lively\", clip = \"walk\", layer = \"ground\" }\nbody = { size = [6, 6] }\n"
          "[shaped]\nshapes = [{ outline = \"mouse\", error = 1 }, { name = \"a\", at = [1, 2], radius = 3, "
          "use = "
          "\"off\", mirrors = true }]\nswitches = [{ shape = \"a\", when = [\"near\", \"vx < 1\"], use = "
          "\"sensor\" "
          "}]\nprobes.near = { from = [1, 2], to = [3, 4], categories = [\"ground\"] }\n");
    write("controls.toml",
          "[actions]\njump = [\"key Space\"]\n[axes.walk]\nless = [\"key KeyA\"]\nstick = [\"pad stick left "
          "x\"]\n");
    write("game.toml",
          "title = \"T\"\nid = \"t\"\ncanvas = [64, 32]\nticks_per_second = 60\nfirst_scene = "
          "\"a\"\n[groups.b]\nneeds = [\"c\"]\nsheets = [\"m*\"]\n[groups.c]\nfonts = [\"mouse\"]\n"
          "[scenes]\na = [\"b\"]\n[limits]\npicture_side = 9\n[check]\nallow = { unused-file = \"x\" }\n");
    // Without its first two lines: the sum would keep everything else out.
    write("a.save-body",
          "format = 1\ngame = \"small\"\nversion = 1\ntitle = \"The patch\"\ntime = \"2026-12-02 10:31\"\n"
          "count = 3\npicture = \"\"\n[values.purse]\ncoins = 3\n");
    write("a.run",
          "format = 1\ngame = \"t\"\nseed = 7\nticks_per_second = 60\nticks = 9\nchecksum = "
          "\"00000000000000aa\"\n"
          "checkpoints = [\"3 00000000000000ab\"]\n"
          "inputs = [\"0 walk 100\", \"3 jump +-\", \"3 walk -7\", \"8 jump .\"]\n");
    write_state_samples(folder_);
  }
  ~Folder() { std::filesystem::remove_all(folder_); }
  Folder(const Folder&) = delete;
  Folder& operator=(const Folder&) = delete;

  std::string path(const std::string& name = {}) const {
    return name.empty() ? folder_ : folder_ + "/" + name;
  }
  void write(const std::string& name, std::string_view bytes) const {
    std::filesystem::remove(path(name));  // some file systems write to the disk at once what replaces a file
    vole::write_whole(path(name), bytes);
  }

 private:
  std::string folder_;
};

const Folder& folder() {
  static const Folder only;
  return only;
}

// Loads an asset of a catalog from the bytes as its file.
template <class T>
void load_asset(const char* name, const std::string& file, std::string_view bytes) {
  const std::string good = vole::read_text(folder().path(file), 1 << 20);
  folder().write(file, bytes);
  try {
    vole::Catalog catalog(folder().path());
    catalog.get<T>(name);
  } catch (const vole::Error&) {
  }
  folder().write(file, good);
}

void load_picture(std::string_view bytes) {
  vole::decode_png(vole::Bytes(bytes.begin(), bytes.end()), vole::FilePosition::whole_file("f.png"));
}
void load_outline(std::string_view bytes) {
  const vole::Picture picture(
      vole::decode_png(vole::Bytes(bytes.begin(), bytes.end()), vole::FilePosition::whole_file("f.png")));
  vole::cut_outline(frame_of(picture, picture.area()), 0.5f);
}
void load_toml(std::string_view bytes) {
  vole::parse_toml(bytes, "f.toml");
}
void load_sheet(std::string_view bytes) {
  load_asset<vole::Sheet>("mouse", "assets/mouse.sheet.toml", bytes);
}
void load_font(std::string_view bytes) {
  load_asset<vole::Font>("mouse", "assets/mouse.sheet.toml", bytes);
}
void load_named_sheet(std::string_view bytes) {
  load_asset<vole::Sheet>("named", "assets/named.sheet.toml", bytes);
}
// What loads can be played: every clip for a while, and every track.
void play_all(const vole::Sheet& sheet) {
  for (const vole::Clip& clip : sheet.clips) {
    vole::Playhead playhead;
    playhead.play(clip);
    for (int tick = 0; tick < 50; ++tick) {
      playhead.tick(60, [](const vole::ClipEvent&) {});
      static_cast<void>(sheet.frames.at(static_cast<std::size_t>(playhead.frame(60))));
    }
  }
  for (const vole::Track& track : sheet.tracks) {
    static_cast<void>(track.at(17, 60));
    for (const vole::TrackField& field : track.fields) static_cast<void>(field.at(track.time_at(17, 60)));
  }
  for (const vole::ClipSet& set : sheet.sets)
    static_cast<void>(
        sheet.clips.at(set.members.at(static_cast<std::size_t>(set.nearest({1, -2}, {}))).clip));
}
void load_lively_sheet(std::string_view bytes) {
  const std::string good = vole::read_text(folder().path("assets/lively.sheet.toml"), 1 << 20);
  folder().write("assets/lively.sheet.toml", bytes);
  try {
    vole::Catalog catalog(folder().path());
    play_all(*catalog.get<vole::Sheet>("lively"));
  } catch (const vole::Error&) {
  }
  folder().write("assets/lively.sheet.toml", good);
}
void load_atlas(std::string_view bytes) {
  load_asset<vole::Atlas>("pack", "assets/pack.atlas.toml", bytes);
}
void load_truetype(std::string_view bytes) {
  vole::cut_truetype(vole::Bytes(bytes.begin(), bytes.end()), {16, true, ""},
                     vole::FilePosition::whole_file("f.ttf"));
}
void load_truetype_text(std::string_view bytes) {
  load_asset<vole::Font>("hand", "assets/hand.font.toml", bytes);
}
void load_tileset(std::string_view bytes) {
  load_asset<vole::Tileset>("mouse", "assets/mouse.tileset.toml", bytes);
}
void load_level(std::string_view bytes) {
  load_asset<vole::Level>("patch", "levels/patch.level.toml", bytes);
}
void load_csv(std::string_view bytes) {
  const std::string good = vole::read_text(folder().path("levels/cells.csv"), 1 << 20);
  folder().write("levels/cells.csv", bytes);
  try {
    vole::Catalog catalog(folder().path());
    catalog.get<vole::Level>("patch");
  } catch (const vole::Error&) {
  }
  folder().write("levels/cells.csv", good);
}
void load_kinds(std::string_view bytes) {
  folder().write("kinds.toml", bytes);
  const vole::Kinds kinds = vole::read_kinds(folder().path());
  vole::Catalog catalog(folder().path());
  const vole::ComponentTypes types;
  const std::vector<const vole::Track*> no_tracks;
  vole::Report report;
  for (const auto& kind : kinds.all)
    vole::KindCompiler{kinds, {catalog, types, no_tracks}}.compile(kind.name, kind.value, report);
}
void load_controls(std::string_view bytes) {
  folder().write("fuzzed-controls.toml", bytes);
  vole::read_controls(folder().path("fuzzed-controls.toml"));
}
void load_project(std::string_view bytes) {
  folder().write("fuzzed-game.toml", bytes);
  const vole::Project project = vole::read_project(folder().path("fuzzed-game.toml"));
  vole::Catalog catalog(folder().path());
  for (const auto& scene : project.assets.scenes) vole::wanted_by_scene(project.assets, scene.name, catalog);
}
void load_recording(std::string_view bytes) {
  folder().write("fuzzed.run", bytes);
  const vole::Controls controls = vole::read_controls(folder().path("controls.toml"));
  const vole::Recording recording = vole::read_recording(folder().path("fuzzed.run"));
  vole::InputReader reader(recording, controls);
  for (int tick = 0; tick < 20; ++tick) reader.next();
}
void load_save(std::string_view bytes) {
  const std::string text = vole::save_text_of_body(bytes);
  try {
    vole::read_save_head(text, "a.save", "small");
  } catch (const vole::Error&) {
    // What comes after the head may yet be read.
  }
  try {
    vole::read_save(bytes, "a.save", "small");
  } catch (const vole::Error&) {
    // It has no sum.
  }
  vole::read_save(text, "a.save", "small");
}

}  // namespace

const std::vector<FuzzTarget>& fuzz_targets() {
  static const std::vector<FuzzTarget> targets{
      {"picture", "assets/mouse.png", load_picture},
      {"outline", "assets/mouse.png", load_outline},
      {"toml", "levels/patch.level.toml", load_toml},
      {"sheet", "assets/mouse.sheet.toml", load_sheet},
      {"font", "assets/mouse.sheet.toml", load_font},
      {"named sheet", "assets/named.sheet.toml", load_named_sheet},
      {"lively sheet", "assets/lively.sheet.toml", load_lively_sheet},
      {"atlas", "assets/pack.atlas.toml", load_atlas},
      {"truetype", "assets/hand.ttf", load_truetype},
      {"truetype text", "assets/hand.font.toml", load_truetype_text},
      {"tileset", "assets/mouse.tileset.toml", load_tileset},
      {"level", "levels/patch.level.toml", load_level},
      {"level csv", "levels/cells.csv", load_csv},
      {"kinds", "kinds.toml", load_kinds},
      {"controls", "controls.toml", load_controls},
      {"project", "game.toml", load_project},
      {"recording", "a.run", load_recording},
      {"save", "a.save-body", load_save},
      {"snapshot", "a.snapshot", load_snapshot},
      {"written state", "a.state.toml", load_written_state},
      {"saved scenes", "a.saved.toml", load_saved}};
  return targets;
}

void load_once(const FuzzTarget& target, std::string_view bytes) {
  try {
    target.load(bytes);
  } catch (const vole::Error&) {
  }
}

std::string sample_of(const FuzzTarget& target) {
  return vole::read_text(folder().path(target.sample), 1 << 20);
}
