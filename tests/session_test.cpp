// Scenes, what they carry to one another, and the session that runs them.
#include "vole/app/session.hpp"

#include "support.hpp"
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
    luck_ += stage.random.below(100);
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
        "error: no scene \"nowhere\"; known: \"first\", \"patch\", \"lost\"");
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
  other.checksum = "0000000000000000";
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
  xray.options.xray = true;
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
