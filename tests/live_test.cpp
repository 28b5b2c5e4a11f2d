// A session with a window nobody sees: runs recorded while scenes load, scenes that throw, settings that change.
#include "test_window.hpp"

namespace {

using vole::Stage;

// Goes to and fro at a checkpoint's tick.
class Hall : public vole::Scene {
 public:
  void enter(Stage& stage) override { stage.load_level("patch"); }
  void tick(Stage& stage) override {
    luck += static_cast<int>(stage.random().below(100));
    if (stage.ticks() == leaves_at - 1) opens ? stage.open("yard") : stage.leave_for("yard");
    if (const std::string now = std::exchange(wish, {}); now == "out of range")
      stage.get<vole::Pose>(vole::Entity{12345, 7});
    else if (now == "not standard")
      throw std::runtime_error("a plain mistake");
    else if (now == "ask")
      asked = stage.input().held("jump");
  }
  int luck = 0;
  static inline std::int64_t leaves_at = 0;
  static inline bool opens = false;
  static inline std::string wish;
  static inline bool asked = false;
};
template <class V>
void describe(V& v, Hall& hall) {
  v.state("luck", hall.luck);
}
class Yard : public vole::Scene {
 public:
  void tick(Stage& stage) override {
    luck += static_cast<int>(stage.random().below(100));
    if (stage.ticks() == 40) stage.leave_for("hall");
  }
  int luck = 0;
};
template <class V>
void describe(V& v, Yard& yard) {
  v.state("luck", yard.luck);
}
// Loads the level it is in once more.
class Twice : public vole::Scene {
 public:
  void enter(Stage& stage) override {
    stage.load_level("long");
    stage.load_level("patch");
  }
};
template <class V>
void describe(V&, Twice&) {}

struct Live : TestSession {
  explicit Live(const std::string& first = "hall") {
    // The yard waits for a group to load, which takes a step at least.
    std::string sheets;
    for (int i = 0; i < 12; ++i) {
      const std::string name = "pebble" + std::to_string(i);
      folder.write_picture("assets/" + name + ".png", {200, 200});
      sheets += "\"" + name + "\", ";
    }
    folder.write("game.toml", "title = \"Small\"\nid = \"small\"\ncanvas = [64, 32]\nfirst_scene = \"" +
                                  first + "\"\n[groups.pebbles]\nsheets = [" + sheets +
                                  "]\n[scenes]\nyard = [\"pebbles\"]\n");
    game.scene<Hall>("hall").scene<Yard>("yard").scene<Twice>("twice");
    Hall::wish.clear();
    Hall::leaves_at = 0;
    Hall::opens = false;
  }
  // Replays the recording without a window; the exit code.
  int replay() {
    vole::HeadlessHost headless(60);
    options = {};
    options.headless = true;
    options.replay = folder.path("a.run");
    start(headless);
    while (session->step()) {
    }
    return session->finish();
  }
};

}  // namespace

TEST_CASE(
    "a run recorded in a window, with a scene that loads at a checkpoint's tick, is replayed without one") {
  for (const std::int64_t leaves_at : {299, 300, 301}) {
    Live live;
    live.options.record = live.folder.path("a.run");
    Hall::leaves_at = leaves_at;
    live.start();
    bool has_loaded = false;
    while (live.session->ticks() < 640) {
      live.session->step();
      has_loaded = has_loaded || live.session->loading();
    }
    CHECK(has_loaded);
    CHECK(live.session->finish() == 0);
    CAPTURE(leaves_at);
    CHECK(live.replay() == 0);
  }
}

TEST_CASE("a window that is closed while a scene loads leaves a recording that can be replayed") {
  Live live;
  live.options.record = live.folder.path("a.run");
  Hall::leaves_at = 20;
  live.start();
  for (int i = 0; i < 1000 && !live.session->loading(); ++i) live.session->step();
  REQUIRE(live.session->loading());
  CHECK(live.session->ticks() == 20);
  live.host.closes = true;
  CHECK_FALSE(live.session->step());
  CHECK(live.session->finish() == 0);
  CHECK(live.replay() == 0);
  // Closed before there was any tick, too.
  Live early("yard");
  early.options.record = early.folder.path("a.run");
  early.start();
  CHECK(early.session->loading());
  CHECK(early.session->finish() == 0);
  CHECK(early.replay() == 0);
}

TEST_CASE("a scene that opens over another loads with a bar over what lies below, and is replayed") {
  Live live;
  live.options.record = live.folder.path("a.run");
  Hall::leaves_at = 20;
  Hall::opens = true;
  live.start();
  while (live.session->ticks() < 19) live.session->step();
  const vole::Image before = live.session->draw(1);
  for (int i = 0; i < 1000 && !live.session->loading(); ++i) live.session->step();
  REQUIRE(live.session->loading());
  // Of the picture below all is seen but for the bar.
  const vole::Image meanwhile = live.session->draw(1);
  int same = 0;
  for (int y = 0; y < before.size().y; ++y)
    for (int x = 0; x < before.size().x; ++x) same += before.at(x, y) == meanwhile.at(x, y) ? 1 : 0;
  CHECK(same > 64 * 32 / 2);
  CHECK(same < 64 * 32);
  CHECK(live.session->ticks() == 20);
  while (live.session->ticks() < 50) live.session->step();
  CHECK(live.session->scene_name() == "yard");
  CHECK(live.session->simulation().pile().size() == 2);
  CHECK(live.session->finish() == 0);
  CHECK(live.replay() == 0);
}

TEST_CASE("a scene's mistake that ends a run without a window leaves the recording up to it") {
  Live live;
  live.options.headless = true;
  live.options.ticks = 100;
  live.options.record = live.folder.path("a.run");
  vole::HeadlessHost headless(60);
  live.start(headless);
  for (int i = 0; i < 9; ++i) live.session->step();
  Hall::wish = "not standard";
  CHECK_THROWS_AS(live.session->step(), std::runtime_error);
  CHECK(vole::read_recording(live.folder.path("a.run")).ticks == live.session->ticks());
  // Repeated, it comes to the same mistake.
  Hall::wish.clear();
  live.options = {};
  live.options.headless = true;
  live.options.replay = live.folder.path("a.run");
  live.start(headless);
  while (live.session->ticks() < 9) live.session->step();
  Hall::wish = "not standard";
  CHECK_THROWS_AS(live.session->step(), std::runtime_error);
}

TEST_CASE("whatever a scene throws is shown, with scene and tick, and the game goes on") {
  Live live;
  live.start();
  live.session->step();
  Hall::wish = "out of range";
  live.session->step();
  CHECK(live.session->trouble() ==
        "error: scene \"hall\", tick 2: the thing whose pose is asked for is gone");
  Hall::wish = "not standard";
  live.session->step();
  CHECK(live.session->trouble() == "error: scene \"hall\", tick 3: a plain mistake");
  const std::int64_t before = live.session->ticks();
  for (int i = 0; i < 5; ++i) live.session->step();
  CHECK(live.session->ticks() == before + 5);
  // Where nobody watches it ends the run: an error must not pass for a result.
  Live strict;
  vole::HeadlessHost headless(60);
  strict.start(headless);
  Hall::wish = "out of range";
  CHECK_THROWS_WITH(strict.session->step(), Catch::StartsWith("error: scene \"hall\", tick "));
}

TEST_CASE("controls may change while a scene still looks at its input") {
  Live live;
  live.start();
  live.host.press("key Space");
  live.session->step();
  for (int round = 0; round < 20; ++round) {
    // Fewer, more and other names than the input of the last tick has.
    live.folder.write("controls.toml",
                      round % 2 == 0
                          ? "[actions]\njump = [\"key KeyX\"]\nx = []\ny = []\n[axes.walk]\n"
                            "less = [\"key KeyA\"]\n"
                          : "[axes.walk]\nless = [\"key KeyB\"]\n[actions]\njump = [\"key Space\"]\n");
    live.session->refresh();
    CHECK_NOTHROW(live.session->stage().input().held("jump"));
    Hall::wish = "ask";
    live.session->step();
    // The key is held on, and counts for what it is bound to.
    CHECK(Hall::asked == (round % 2 == 1));
  }
  live.host.press("key Space");
  live.session->step();
  Hall::wish = "ask";
  live.session->step();
  CHECK(Hall::asked);
}

TEST_CASE("a second level in one scene is reloaded as the first would be") {
  Live live("twice");
  std::string places;
  for (int i = 0; i < 40; ++i)
    places += "[[places]]\nkind = \"crumb\"\nat = [40, " + std::to_string(i) + "]\n";
  live.folder.write("levels/long.level.toml", live.text("levels/patch.level.toml") + places);
  live.start();
  live.session->step();
  CHECK(live.session->stage().count("crumb") == 42);
  std::string patch = live.text("levels/patch.level.toml");
  patch.replace(patch.find("cell = [6, 2]"), 13, "cell = [7, 2]");
  live.folder.write("levels/patch.level.toml", patch);
  live.session->refresh();
  live.session->step();
  live.session->step();
  // What came from the level before stays; of the one that is there now, a crumb moved.
  CHECK(live.session->stage().count("crumb") == 42);
  CHECK(live.session->trouble().empty());
}

TEST_CASE(
    "a played game draws a new seed each time and keeps it in the recording; a headless one is the same") {
  const auto seed_of = [](bool shown, std::optional<std::uint64_t> seed) {
    Live live;
    vole::HeadlessHost headless(60);
    live.options.record = live.folder.path("a.run");
    live.options.seed = seed;
    live.start(shown ? static_cast<vole::Host&>(live.host) : headless);
    live.session->tick();
    live.session->finish();
    return vole::read_recording(live.folder.path("a.run")).seed;
  };
  CHECK(seed_of(false, {}) == 0);
  CHECK(seed_of(true, 5) == 5);
  CHECK((seed_of(true, {}) != seed_of(true, {}) || seed_of(true, {}) != seed_of(true, {})));
}
