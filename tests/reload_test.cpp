// Files that change while a game runs in a window, assets that are loaded ahead, and what stands in for those
// that cannot be had.
#include <chrono>
#include <filesystem>
#include <fstream>
#include <thread>

#include "test_window.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/level/level.hpp"

namespace {

namespace fs = std::filesystem;
using vole::Colour;
using namespace std::chrono_literals;

// The rim of the card that stands in for a missing picture.
constexpr Colour loud{0xb3, 0x48, 0x5a, 0xff};

class Patch : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override { stage.load_level("patch"); }
  void tick(vole::Stage& stage) override {
    const std::string now = std::exchange(wish, {});
    if (now == "spawn") stage.spawn("ghost", {32, 20});
    if (now == "another") stage.spawn("mouse", {40, 20});
    if (now == "turn") stage.get<vole::Pose>(stage.first("ghost")).mirrored = true;
    if (now == "throw") stage.get<vole::Sprite>(stage.first("mouse")).play("rnu");
    if (now == "leave") stage.leave_for("yard");
  }
  void draw(vole::Drawing& drawing) const override {
    if (!shows_sheet.empty()) drawing.frame(shows_sheet, 0, {56, 16});
  }
  static inline std::string wish, shows_sheet;
};
template <class V>
void describe(V&, Patch&) {}

class Yard : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override { stage.load_level("yard"); }
};
template <class V>
void describe(V&, Yard&) {}

struct Window : TestSession {
  Window() {
    folder.write("kinds.toml",
                 text("kinds.toml") + "\n[ghost]\nsprite = { sheet = \"ghost\", clip = \"haunt\" }\n");
    game.scene<Patch>("patch").scene<Yard>("yard");
    Patch::wish.clear();
    Patch::shows_sheet.clear();
  }
  void start() {
    TestSession::start();
    step();
  }
  void step() { session->step(); }
  // Steps until it holds, for at most `span`.
  template <class Check>
  bool soon(const Check& check, std::chrono::milliseconds span = 20000ms) {
    const auto end = std::chrono::steady_clock::now() + span;
    while (std::chrono::steady_clock::now() < end) {
      step();
      if (check()) return true;
      std::this_thread::sleep_for(4ms);
    }
    return false;
  }
  bool shows(Colour colour) const {
    for (int y = 0; y < host.shown.size().y; ++y)
      for (int x = 0; x < host.shown.size().x; ++x)
        if (host.shown.at(x, y) == colour) return true;
    return false;
  }
  void change(const std::string& file, const std::string& what, const std::string& by) const {
    std::string changed = text(file);
    REQUIRE(changed.find(what) != std::string::npos);
    folder.write(file, changed.replace(changed.find(what), what.size(), by));
  }
};

const Colour red{0xd9, 0x72, 0x4a, 0xff};
const Colour blue{0x2f, 0x6b, 0x7e, 0xff};

}  // namespace

TEST_CASE("a watch notices every way in which a file can change, and nothing else") {
  const auto check = [](auto&& make) {
    TempFolder folder;
    folder.write("assets/deep/a.txt", "1");
    folder.write("game.toml", "");
    folder.write("elsewhere/b.txt", "1");
    // A ring of links must not lead the watch round and round.
    fs::create_directory_symlink(folder.path("assets"), folder.path("assets/deep/ring"));
    const auto watch =
        make(vole::WatchedFolders{{folder.path("assets"), folder.path("levels")},
                                  {folder.path()},
                                  {folder.path("assets/deep/../out.png"), folder.path("out.png")}});
    const auto noticed = [&] {
      const auto end = std::chrono::steady_clock::now() + 10s;
      while (std::chrono::steady_clock::now() < end) {
        if (watch->changed()) {
          std::this_thread::sleep_for(120ms);
          watch->changed();
          return true;
        }
        std::this_thread::sleep_for(5ms);
      }
      return false;
    };
    std::this_thread::sleep_for(120ms);
    CHECK_FALSE(watch->changed());
    folder.write("assets/deep/a.txt", "22");  // written beside and renamed
    CHECK(noticed());
    {
      std::ofstream out(folder.path("assets/deep/a.txt"), std::ios::app);
      out << "3";
    }
    CHECK(noticed());
    folder.write("assets/new/deeper/c.txt", "1");
    CHECK(noticed());
    folder.write("assets/new/deeper/c.txt", "12");
    CHECK(noticed());
    fs::remove(folder.path("assets/new/deeper/c.txt"));
    CHECK(noticed());
    folder.write("game.toml", "title = 1");
    CHECK(noticed());
    folder.write("levels/d.txt", "1");  // in a folder that was not there
    CHECK(noticed());
    folder.write("levels/d.txt", "12");
    CHECK(noticed());
    folder.write("elsewhere/b.txt", "12");
    folder.write("out.png", "what the watcher writes");
    folder.write("out.png", "again");
    folder.write("assets/out.png", "by another name");
    folder.write("assets/.a.txt.swp", "an editor's own");
    std::this_thread::sleep_for(120ms);
    CHECK_FALSE(watch->changed());
  };
  SECTION("by the system's notice") {
    check(vole::watch_files);
  }
  SECTION("by looking") {
    check(vole::watch_files_by_looking);
  }
}

TEST_CASE("a changed picture is on the screen at once, and a sheet file that comes later too") {
  Window window;
  window.start();
  CHECK_FALSE(window.shows(red));
  window.folder.write_picture("assets/mouse.png", {32, 16}, red);
  CHECK(window.soon([&] { return window.shows(red); }));
  // An editor that writes in steps: first nothing, then half, then all of it.
  const vole::Bytes bytes = vole::encode_png(vole::Image({32, 16}, blue));
  for (const std::size_t part : {std::size_t{0}, bytes.size() / 2, bytes.size()}) {
    std::ofstream out(window.folder.path("assets/mouse.png"), std::ios::binary | std::ios::trunc);
    out.write(reinterpret_cast<const char*>(bytes.data()), static_cast<std::streamsize>(part));
    out.close();
    window.step();
    std::this_thread::sleep_for(10ms);
  }
  CHECK(window.soon([&] { return window.shows(blue); }));
  CHECK(window.session->trouble().empty());

  window.folder.write_picture("assets/sign.png", {8, 4}, red);
  Patch::shows_sheet = "sign";
  CHECK(window.soon([&] { return window.shows(red); }));
  const auto wide = [&] {
    int count = 0;
    for (int y = 0; y < 32; ++y)
      for (int x = 0; x < 64; ++x) count += window.host.shown.at(x, y) == red ? 1 : 0;
    return count;
  };
  CHECK(wide() == 32);
  window.folder.write("assets/sign.sheet.toml", "frame = { size = [4, 4] }\n");
  CHECK(window.soon([&] { return wide() == 16; }));
}

TEST_CASE(
    "a broken file is reported on the screen, the last good one stays, and the next good one replaces it") {
  Window window;
  window.start();
  for (const char* file : {"assets/mouse.sheet.toml", "assets/soil.tileset.toml", "levels/patch.level.toml",
                           "kinds.toml", "controls.toml", "assets/mouse.png"}) {
    CAPTURE(file);
    const std::string good = vole::read_text(window.folder.path(file), 1 << 20);
    window.folder.write(file, "this is = = broken\n");
    REQUIRE(window.soon([&] { return !window.session->trouble().empty(); }));
    CHECK(window.session->trouble().find(file) != std::string::npos);
    CHECK(window.host.told.find(file) != std::string::npos);
    CHECK(window.shows({0xf7, 0xf3, 0xe3, 0xff}) + window.shows(vole::white) > 0);
    window.folder.write(file, good);
    REQUIRE(window.soon([&] { return window.session->trouble().empty(); }));
    CHECK(window.host.told.empty());
  }
}

TEST_CASE("a wrong name in a running game is a loud stand-in on the spot, until it is put right") {
  Window window;
  window.start();
  Patch::wish = "spawn";
  CHECK(window.soon([&] { return window.shows(loud); }));
  CHECK(window.session->trouble() ==
        "kinds.toml:11:20: error: no sheet \"ghost\"; known: \"mouse\", \"soil\"");
  // The name on it can be read, whichever way the thing faces.
  const vole::Image card = window.session->draw(1);
  Patch::wish = "turn";
  CHECK(window.soon([] { return Patch::wish.empty(); }));
  CHECK(window.session->draw(1) == card);
  window.folder.write_picture("assets/ghost.png", {4, 4}, red);
  window.folder.write("assets/ghost.sheet.toml", "clips = { haunt = { frames = [0] } }\n");
  CHECK(window.soon([&] { return window.shows(red) && !window.shows(loud); }));
  CHECK(window.session->trouble().empty());
}

TEST_CASE(
    "a name that becomes wrong in a kind is reported when the file is saved, not when it is next spawned") {
  Window window;
  window.start();
  for (const char* file : {"kinds.toml", "assets/mouse.sheet.toml"}) {
    CAPTURE(file);
    const std::string what = file == std::string("kinds.toml") ? "clip = \"run\"" : "[clips.run]";
    const std::string by = file == std::string("kinds.toml") ? "clip = \"rnu\"" : "[clips.rnu]";
    window.change(file, what, by);
    REQUIRE(window.soon([&] { return !window.session->trouble().empty(); }));
    CHECK(window.session->trouble().find("kinds.toml:2:") == 0);
    // It stays reported when another file changes, and the last good kind is there to be spawned.
    Patch::wish = "another";
    CHECK(window.soon([] { return Patch::wish.empty(); }));
    window.folder.write_picture("assets/other.png", {4, 4}, red);
    window.change("controls.toml", "key Space", "key Enter");
    std::this_thread::sleep_for(300ms);
    for (int i = 0; i < 20; ++i) window.step();
    CHECK(window.session->trouble().find("kinds.toml:2:") == 0);
    window.change(file, by, what);
    window.change("controls.toml", "key Enter", "key Space");
    REQUIRE(window.soon([&] { return window.session->trouble().empty(); }));
  }
}

TEST_CASE("a scene's own mistake is shown and the game goes on") {
  Window window;
  window.start();
  Patch::wish = "throw";
  CHECK(window.soon([&] { return !window.session->trouble().empty(); }));
  CHECK(window.session->trouble() ==
        "error: scene \"patch\", tick 2: no clip \"rnu\" in \"mouse\"; did you mean \"run\"?");
  const std::int64_t ticks = window.session->ticks();
  CHECK(window.soon([&] { return window.session->ticks() > ticks + 3; }));
  // A scene that cannot begin is begun again when the file it lacked is there.
  Patch::wish = "leave";
  CHECK(
      window.soon([&] { return window.session->trouble().find("no level \"yard\"") != std::string::npos; }));
  window.folder.write("levels/yard.level.toml", "sky = \"#d9724a\"\n[[layers]]\nname = \"things\"\n");
  CHECK(window.soon([&] { return window.shows(red); }));
  CHECK(window.session->scene_name() == "yard");
}

TEST_CASE("a level that changes keeps what is still in it") {
  Window window;
  window.start();
  const vole::Stage& stage = window.session->stage();
  for (int i = 0; i < 20; ++i) window.step();
  const vole::Entity mouse = stage.first("mouse");
  const vole::Vec2 stood = stage.get<vole::Pose>(mouse).at;
  // The crumb moves, a second one comes: the mouse is the same, and where it was.
  window.change("levels/patch.level.toml", "cell = [6, 2]",
                "cell = [4, 2]\n\n[[places]]\nkind = \"crumb\"\ncell = [5, 2]");
  CHECK(window.soon([&] { return stage.count("crumb") == 2; }));
  CHECK(stage.first("mouse") == mouse);
  CHECK(stage.get<vole::Pose>(mouse).at == stood);
  // A wall grows where it stands: up it goes.
  window.change("levels/patch.level.toml", "\"...,......\"", "\".##,......\"");
  CHECK(window.soon([&] { return stage.get<vole::Pose>(mouse).at.y <= stood.y - 8; }));
  CHECK(stage.get<vole::Pose>(mouse).at.x == stood.x);
  // A place that is gone takes its thing along.
  window.change("levels/patch.level.toml", "[[places]]\nkind = \"crumb\"\ncell = [5, 2]", "");
  CHECK(window.soon([&] { return stage.count("crumb") == 1; }));
}

TEST_CASE("groups are loaded ahead in steps, with a bar, and given up when no scene needs them") {
  Window window;
  for (int i = 0; i < 40; ++i)
    window.folder.write_picture(std::string("assets/things/t").append(std::to_string(i)).append(".png"),
                                {200, 200}, blue);
  window.folder.write("levels/yard.level.toml", "[[layers]]\nname = \"things\"\n");
  window.folder.write(
      "game.toml",
      "title = \"Small\"\nid = \"small\"\ncanvas = [64, 32]\nfirst_scene = \"patch\"\n"
      "[groups.all]\nsheets = [\"mouse\"]\n[groups.patch]\nneeds = [\"all\"]\nsheets = [\"things/*\"]\n"
      "levels = [\"patch\"]\n[groups.yard]\nneeds = [\"all\"]\nlevels = [\"yard\"]\n"
      "[scenes]\npatch = [\"patch\"]\nyard = [\"yard\"]\n");
  const auto project = vole::read_project(window.folder.path("game.toml"));
  window.start();
  CHECK(window.soon([&] { return !window.session->loading(); }));
  vole::Catalog& catalog = window.session->stage().catalog();
  CHECK(catalog.is_loaded<vole::Sheet>("things/t39"));
  Patch::wish = "leave";
  CHECK(window.soon([&] { return window.session->scene_name() == "yard" && !window.session->loading(); }));
  CHECK_FALSE(catalog.is_loaded<vole::Sheet>("things/t39"));
  CHECK_FALSE(catalog.is_loaded<vole::Picture>("things/t39"));
  CHECK(catalog.is_loaded<vole::Sheet>("mouse"));
  CHECK(catalog.is_loaded<vole::Level>("yard"));

  // One by one: each counts once, whatever the groups.
  vole::Catalog other(window.folder.path());
  const auto wanted = vole::wanted_by_scene(project.assets, "patch", other);
  CHECK(wanted.size() == 42);
  vole::Preload preload(other, wanted);
  for (std::size_t done = 0; !preload.complete(); ++done) {
    CHECK(preload.done() == done);
    preload.step();
  }
  CHECK(vole::wanted_by_scene(project.assets, "nowhere", other).empty());
}

TEST_CASE("groups that contain themselves and names that are not there are reported at their places") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("game.toml",
               "title = \"S\"\nid = \"s\"\nfirst_scene = \"patch\"\n[groups.a]\nneeds = [\"b\"]\n[groups.b]\n"
               "needs = [\"a\", \"c\"]\nsheets = [\"mose\"]\n[scenes]\npatch = [\"a\"]\n");
  const auto project = vole::read_project(folder.path("game.toml"));
  vole::Catalog catalog(folder.path());
  CHECK(error_of([&] { vole::wanted_by_scene(project.assets, "patch", catalog); }, folder) ==
        "game.toml:7:10: error: the group \"a\" contains itself; through \"b\"\n"
        "game.toml:7:15: error: no group \"c\"; did you mean \"a\"?\n"
        "game.toml:8:11: error: no sheet \"mose\"; did you mean \"mouse\"?");
}
