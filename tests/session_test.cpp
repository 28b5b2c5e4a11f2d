// Scenes, what they carry to one another, and the session that runs them.
#include "vole/app/session.hpp"

#include <unistd.h>

#include <cstdio>

#include "support.hpp"
#include "vole/app/comparison.hpp"
#include "vole/app/run.hpp"

namespace {

// What the scenes below did, in order.
std::vector<std::string> diary;

struct Parcel {
  int bulbs = 0;
};
template <class V>
void describe(V& v, Parcel& parcel) {
  v.state("bulbs", parcel.bulbs);
}
struct Letter {
  std::string text;
};
template <class V>
void describe(V& v, Letter& letter) {
  v.state("text", letter.text);
}

class First : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    diary.push_back("enter first");
    CHECK(stage.argument<Parcel>().bulbs == 0);
  }
  void tick(vole::Stage& stage) override {
    diary.push_back("tick first");
    if (stage.ticks() == 2) stage.leave_for("patch", Parcel{7});
  }
  void leave(vole::Stage&) override { diary.push_back("leave first"); }
};

class Patch : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    diary.push_back("enter patch with " + std::to_string(stage.argument<Parcel>().bulbs));
    stage.load_level("patch");
    stage.follow(stage.first("mouse"));
  }
  void tick(vole::Stage& stage) override {
    if (stage.input().pressed("jump")) diary.push_back("jump");
    luck_ += stage.random().below(100);
  }
  void draw(vole::Drawing& drawing) const override { drawing.frame("mouse", 3, {8, 8}); }
  template <class V>
  friend void describe(V& v, Patch& patch) {
    v.state("luck", patch.luck_);
  }
  using Argument = Parcel;

 private:
  std::uint32_t luck_ = 0;
};
template <class V>
void describe(V&, First&) {}

class Lost : public vole::Scene {
 public:
  void tick(vole::Stage& stage) override { stage.leave_for("nowhere"); }
};
template <class V>
void describe(V&, Lost&) {}

vole::Game small_game() {
  vole::Game game("game.toml");
  game.scene<First>("first").scene<Patch>("patch").scene<Lost>("lost");
  return game;
}

struct SmallRun {
  TempFolder folder;
  vole::Game game = small_game();
  vole::Options options;
  vole::HeadlessHost host{60};
  std::unique_ptr<vole::Session> session;

  explicit SmallRun(const std::string& first_scene) {
    write_small_game(folder);
    diary.clear();
    folder.write("game.toml", "title = \"Small\"\nid = \"small\"\ncanvas = [64, 32]\nfirst_scene = \"" +
                                  first_scene + "\"\n");
  }
  vole::Session& start() {
    session =
        std::make_unique<vole::Session>(game, vole::read_project(folder.path("game.toml")), options, host);
    return *session;
  }
  void run() {
    while (session->step()) {
    }
  }
  // Runs the game's main function in this process.
  int main(std::vector<std::string> words) {
    std::vector<const char*> arguments{"small"};
    for (const std::string& word : words) arguments.push_back(word.c_str());
    vole::Game at_place(folder.path("game.toml"));
    at_place.scene<First>("first").scene<Patch>("patch").scene<Lost>("lost");
    return vole::run_on({}, static_cast<int>(arguments.size()), arguments.data(), at_place);
  }
};

}  // namespace

TEST_CASE("a scene is entered, ticks, is left, and hands something on") {
  SmallRun small("first");
  small.options.ticks = 5;
  small.start();
  small.run();
  CHECK(diary == std::vector<std::string>{"enter first", "tick first", "tick first", "tick first",
                                          "leave first", "enter patch with 7"});
  CHECK(small.session->scene_name() == "patch");
  CHECK(small.session->stage().ticks() == 2);
  CHECK(small.session->ticks() == 5);
}

TEST_CASE("a scene that is not there is reported with the nearest name") {
  SmallRun lost("lost");
  lost.start();
  CHECK(error_of([&] { lost.session->tick(); }, lost.folder) ==
        "error: scene \"lost\", tick 1: no scene \"nowhere\"; known: \"first\", \"patch\", \"lost\"");
  SmallRun mistyped("frist");
  CHECK(error_of([&] { mistyped.start(); }, mistyped.folder) ==
        "game.toml:4:15: error: no scene \"frist\"; did you mean \"first\"?");
}

TEST_CASE("all chance comes from the seed") {
  const auto end_of = [](std::uint64_t seed, int ticks) {
    SmallRun small("patch");
    small.options.seed = seed;
    small.options.ticks = ticks;
    small.start();
    small.run();
    return small.session->checksum();
  };
  CHECK(end_of(1, 50) == end_of(1, 50));
  CHECK(end_of(1, 50) != end_of(2, 50));
  CHECK(end_of(1, 50) != end_of(1, 51));
}

TEST_CASE("a recorded run is repeated, and any change of it is noticed") {
  SmallRun small("first");
  const std::string file = small.folder.path("a.run");
  REQUIRE(small.main({"--headless", "--ticks", "700", "--record", file}) == 0);
  CHECK(small.main({"--headless", "--replay", file}) == 0);
  const vole::Recording recording = vole::read_recording(file);
  CHECK(recording.ticks == 700);
  CHECK(recording.checkpoints.size() == 2);

  vole::Recording other = recording;
  other.inputs.push_back({"40 walk 100", {}});
  vole::write_recording(small.folder.path("b.run"), other);
  CHECK(small.main({"--headless", "--replay", small.folder.path("b.run")}) == 1);
  // Cut short by --ticks, it is not to the end, but not different either.
  CHECK(small.main({"--headless", "--replay", file, "--ticks", "20"}) == 0);
  other = recording;
  other.checksum.value = "0000000000000000";
  vole::write_recording(small.folder.path("b.run"), other);
  CHECK(small.main({"--headless", "--replay", small.folder.path("b.run")}) == 1);
}

TEST_CASE("a drawn frame holds the sky, the level, its things, and what the scene adds") {
  SmallRun small("patch");
  std::string level = vole::read_text(small.folder.path("levels/patch.level.toml"), 10000);
  small.folder.write("levels/patch.level.toml", "sky = \"#7fb8b0\"\n" + level);
  const vole::Image& canvas = small.start().draw(1);
  REQUIRE(canvas.size() == vole::IVec2{64, 32});
  const auto count = [&](vole::Colour colour) {
    int found = 0;
    for (int y = 0; y < 32; ++y)
      for (int x = 0; x < 64; ++x) found += canvas.at(x, y) == colour;
    return found;
  };
  CHECK(count({0x4a, 0x30, 0x26, 0xff}) == 64 * 8 + 8 * 8);  // the floor and a tuft
  CHECK(count({0x7a, 0x4a, 0x33, 0xff}) == 2 * 8 * 8);       // the mouse, and the scene's
  CHECK(count({0x7f, 0xb8, 0xb0, 0xff}) == 64 * 32 - 64 * 8 - 3 * 8 * 8);
}

TEST_CASE("the xray shows bodies and solid cells") {
  SmallRun plain("patch"), xray("patch");
  xray.options.xray = vole::XrayParts::usual();
  const vole::Image without = plain.start().draw(1);
  const vole::Image with = xray.start().draw(1);
  CHECK_FALSE(without == with);
  CHECK(with.at(0, 24) == vole::Colour{0xd9, 0x72, 0x4a, 0xff});  // the corner of a solid cell
}

TEST_CASE("what is wrong in a game's files ends it with 1 before anything is shown") {
  for (const char* file : {"game.toml", "controls.toml", "kinds.toml", "levels/patch.level.toml",
                           "assets/mouse.sheet.toml", "assets/soil.tileset.toml"}) {
    SmallRun small("patch");
    small.folder.write(file, "this is = = not TOML\n");
    CAPTURE(file);
    CHECK(small.main({"--headless", "--ticks", "1"}) == 1);
  }
  SmallRun small("patch");
  CHECK(small.main({"--headless", "--ticks", "1"}) == 0);
  CHECK(small.main({"--headless"}) == 2);
  std::filesystem::remove(small.folder.path("controls.toml"));
  CHECK(small.main({"--headless", "--ticks", "1"}) == 1);  // the mouse is a person and wants its axis
}

TEST_CASE("a project says what it needs") {
  TempFolder folder;
  const auto with = [&](const std::string& text) {
    folder.write("game.toml", text);
    return error_of([&] { vole::read_project(folder.path("game.toml")); }, folder);
  };
  const std::string good = "title = \"T\"\nid = \"t\"\nfirst_scene = \"a\"\n";
  CHECK(with(good).empty());
  CHECK(with("title = \"T\"\n").find("game.toml:1:1: error: \"id\" is missing here") != std::string::npos);
  CHECK(with(good + "canvas = [8, 180]\n") == "game.toml:4:11: error: 8 is too small; the least is 16");
  CHECK(with(good + "ticks_per_second = 1e9\n").find("a whole number wanted here") != std::string::npos);
  CHECK(with("title = \"T\"\nid = \"My Game\"\nfirst_scene = \"a\"\n") ==
        "game.toml:2:6: error: \"My Game\" cannot be the game's id; an id has small letters, digits and '-', "
        "and begins with a letter");
  CHECK(error_of([&] { vole::find_project("nowhere/game.toml", "/nowhere/program"); }, folder)
            .find("no such file here nor beside the program") != std::string::npos);
  // The program's own files come before those of whatever folder it is started in.
  folder.write("own/here.toml", good);
  folder.write("here.toml", good);
  CHECK(vole::find_project(folder.path("here.toml"), folder.path("own/program")) == folder.path("here.toml"));
  CHECK(vole::find_project("here.toml", folder.path("own/program")) == folder.path("own/here.toml"));
  folder.write("program.folder", folder.path("elsewhere") + "\n");
  folder.write("elsewhere/x.toml", good);
  CHECK(vole::find_project("x.toml", folder.path("program")) == folder.path("elsewhere/x.toml"));
}

TEST_CASE(
    "a shot is the canvas enlarged, of its tick or of the end, and one that comes too late is an error") {
  SmallRun small("patch");
  const auto shot = [&](const std::string& name, std::vector<std::string> more) {
    more.insert(more.begin(),
                {"--headless", "--ticks", "5", "--seed", "4", "--shot", small.folder.path(name)});
    return small.main(std::move(more));
  };
  REQUIRE(shot("plain.png@3", {"--scale", "1"}) == 0);
  REQUIRE(shot("large.png@3", {"--scale", "3"}) == 0);
  REQUIRE(shot("usual.png", {}) == 0);
  const vole::Image plain = vole::read_png(small.folder.path("plain.png"));
  const vole::Image large = vole::read_png(small.folder.path("large.png"));
  REQUIRE(plain.size() == vole::IVec2{64, 32});
  REQUIRE(large.size() == vole::IVec2{192, 96});
  for (int y = 0; y < 96; ++y)
    for (int x = 0; x < 192; ++x) REQUIRE(large.at(x, y) == plain.at(x / 3, y / 3));
  CHECK(vole::read_png(small.folder.path("usual.png")).size() == vole::IVec2{256, 128});
  small.options.seed = 4;
  small.start();
  for (int i = 0; i < 3; ++i) small.session->tick();
  CHECK(small.session->draw(1) == plain);

  CHECK(shot("late.png@6", {}) == 1);
  CHECK_FALSE(vole::file_exists(small.folder.path("late.png")));
  CHECK(shot("last.png@5", {}) == 0);
  CHECK(shot("no/such/\n/../x\\0.png", {"--xray"}) <= 1);

  // A canvas that would be too large is refused with a scale of the user's, and saved smaller without.
  const std::string game = vole::read_text(small.folder.path("game.toml"), 1000);
  small.folder.write("game.toml", game.substr(0, game.find("canvas")) + "canvas = [4096, 2000]\n" +
                                      game.substr(game.find("first_scene")));
  CHECK(shot("wide.png", {"--scale", "3"}) == 2);
  CHECK_FALSE(vole::file_exists(small.folder.path("wide.png")));
  CHECK(shot("wide.png", {}) == 0);
  CHECK(vole::read_png(small.folder.path("wide.png")).size() == vole::IVec2{4096, 2000});
}

TEST_CASE("behind a scene without a level all is black") {
  SmallRun small("first");
  const vole::Image& canvas = small.start().draw(1);
  for (int y = 0; y < 32; ++y)
    for (int x = 0; x < 64; ++x) REQUIRE(canvas.at(x, y) == vole::Colour{0, 0, 0, 255});
}

TEST_CASE(
    "a window is opened with the title and the icon, and what goes wrong with it ends the game with 1") {
  struct Shown : vole::HeadlessHost {
    Shown() : HeadlessHost(60) {}
    bool shows() const override { return true; }
    void open(const vole::WindowWish& wish) override { wished = wish; }
    vole::WindowWish wished;
  };
  SmallRun small("patch");
  small.folder.write("game.toml",
                     vole::read_text(small.folder.path("game.toml"), 1000) + "icon = \"assets/soil.png\"\n");
  const auto run = [&](const vole::MakeHost& make) {
    vole::Game game(small.folder.path("game.toml"));
    game.scene<First>("first").scene<Patch>("patch").scene<Lost>("lost");
    const std::vector<const char*> words{"small", "--ticks", "3", "--scale", "2"};
    return vole::run_on(make, static_cast<int>(words.size()), words.data(), game);
  };
  const auto host = std::make_shared<Shown>();
  CHECK(run([&] { return host; }) == 0);
  CHECK(host->wished.title == "Small");
  CHECK(host->wished.canvas == vole::IVec2{64, 32});
  CHECK(host->wished.scale == 2);
  CHECK(host->wished.icon.size() == vole::IVec2{16, 8});
  CHECK(run([]() -> std::shared_ptr<vole::Host> { throw std::runtime_error("no screen"); }) == 1);
}

TEST_CASE("titles, ids and versions are what builds, packages and systems can take") {
  const auto fit = [](const auto& wrong, const std::vector<std::string>& good,
                      const std::vector<std::string>& bad) {
    for (const std::string& text : good) {
      CAPTURE(text);
      CHECK(wrong(text).empty());
    }
    for (const std::string& text : bad) {
      CAPTURE(text);
      CHECK_FALSE(wrong(text).empty());
    }
  };
  using Text = std::string;
  fit(vole::wrong_with_title, {"T", "Über den Zaun: 2", Text(200, 'x'), "\x20x"},
      {"", "  ", Text(201, 'x'), "a\nb", "a\\b", "a\x7f", "\x1f", Text("a\0b", 3)});
  fit(vole::wrong_with_id, {"a", "z9-", "my-game", Text(64, 'a'), "com", "com10", "lptx", "games"},
      {"", "A", "9a", "-a", "a_b", "a{", "a`", "a/", "a:", Text(65, 'a'), "game", "con", "com1", "lpt9",
       "prn"});
  CHECK(vole::wrong_with_id("lib").ends_with("\"lib-game\" would do"));
  fit(vole::wrong_with_version, {"0", "9", "1.2.3", "1a-Z+z.A", Text(32, '1')},
      {"", "v1", "1 2", "1/2", "1[", "1@", "1`", "1{", ".1", Text(33, '1')});
}

namespace {

// Left as soon as it is entered.
class Porch : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override { stage.leave_for("hall"); }
};
template <class V>
void describe(V&, Porch&) {}

class Hall : public vole::Scene {
 public:
  void tick(vole::Stage& stage) override { jumps_ += stage.input().pressed("jump") ? 1 : 0; }
  template <class V>
  friend void describe(V& v, Hall& hall) {
    v.state("jumps", hall.jumps_);
  }

 private:
  int jumps_ = 0;
};

}  // namespace

TEST_CASE(
    "recordings are compared tick by tick as they were played, also where the first scene is left at once") {
  SmallRun small("porch");
  small.game.scene<Porch>("porch").scene<Hall>("hall");
  small.folder.write("still.run", "game = \"small\"\nticks = 6\ninputs = []\n");
  small.folder.write("jump.run", "game = \"small\"\nticks = 6\ninputs = [\"0 jump +; +1 jump -\"]\n");
  // What the porch hears in the first tick, the hall does not: so the states differ in what is pressed alone.
  const auto jumps_heard = [&](const std::string& run) {
    small.options.replay = small.folder.path(run);
    small.start();
    small.run();
    return small.session->simulation().to_toml();
  };
  CHECK(jumps_heard("jump.run").find("jumps = 0") != std::string::npos);
  const vole::Project project = vole::read_project(small.folder.path("game.toml"));
  std::fflush(stdout);
  const std::string out = small.folder.path("out.txt");
  const int kept = dup(1);
  REQUIRE(std::freopen(out.c_str(), "w", stdout) != nullptr);
  const int code = vole::compare_recordings(small.game, project, small.folder.path("still.run"),
                                            small.folder.path("jump.run"));
  std::fflush(stdout);
  dup2(kept, 1);
  close(kept);
  CHECK(code == 1);
  const std::string said = vole::read_text(out, 1 << 16);
  CHECK(said == "alike for 0 ticks; after tick 1 the states differ:\n  in what is pressed alone\n");
}
