// The example game as a whole: the shipped run, options, live files, and memory.
#include "allotment.hpp"

#include "support.hpp"
#include "vole/app/session.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/physics/subpixel.hpp"

namespace {

// A host that shows (and throws away) each frame, and presses what it is told to.
class WatchingHost final : public vole::HeadlessHost {
 public:
  WatchingHost() : HeadlessHost(60) {}
  void gather(vole::InputGather& gather) override {
    for (const auto& event : events) gather.add(event);
    events.clear();
  }
  bool shows() const override { return true; }
  void tell(const std::string& line) override { told = line; }

  std::vector<vole::ControlEvent> events;
  std::string told;
};

struct Run {
  vole::Game game = allotment();
  vole::Options options;
  WatchingHost host;
  std::unique_ptr<vole::Session> session;

  explicit Run(const std::string& replay = {}, const std::string& folder = allotment_folder(),
               const vole::FirstScene& first = {}) {
    options.replay = replay;
    options.first = first;
    if (replay.empty()) options.seed = 0;
    session = std::make_unique<vole::Session>(game, vole::read_project(folder + "/game.toml"), options, host);
  }
  void press(const char* key, bool down = true) {
    host.events.push_back({*vole::find_control(key), down ? 1.0f : 0.0f});
  }
  void steps(int count) {
    for (int i = 0; i < count; ++i) session->step();
  }
};

// Of the scene that is played; none before it.
std::string level_of(const Run& run) {
  return run.session->scene_name() == "garden" ? run.session->stage().level().name() : std::string();
}

void copy_allotment(const TempFolder& folder) {
  std::filesystem::copy(allotment_folder(), folder.path(), std::filesystem::copy_options::recursive);
}

}  // namespace

TEST_CASE("the shipped run gathers every bulb and ends in the same state") {
  const std::string file = allotment_folder() + "/recordings/harvest.run";
  Run run(file);
  const std::int64_t ticks = vole::read_recording(file).ticks;
  std::map<std::string, int> left;  // in each level, when it was left
  for (std::int64_t i = 0; i < ticks; ++i) {
    run.session->tick();
    const vole::Stage& stage = run.session->stage();
    left[stage.level().name()] = stage.count("bulb") + stage.count("mound");
  }
  CHECK(left.at("beds") == 0);
  CHECK(left.at("cellar") == 0);
  CHECK(run.session->scene_name() == "finish");
  CHECK(vole::checksum_text(run.session->checksum()) == vole::read_recording(file).checksum.value);
  CHECK(run.session->finish() == 0);
}

TEST_CASE("on the way the vole digs and is hurt, and the shed opens for it and lets one hedgehog out") {
  const std::string file = allotment_folder() + "/recordings/harvest.run";
  Run run(file);
  std::string clips, door;
  int most_hedgehogs = 0, mounds = -1, leaves = 0;
  for (std::int64_t i = 0; i < vole::read_recording(file).ticks; ++i) {
    run.session->tick();
    if (level_of(run) != "beds") continue;
    const vole::Stage& stage = run.session->stage();
    const auto note = [&](const char* kind, std::string& list) {
      const auto& sprite = stage.get<vole::Sprite>(stage.first(kind));
      const std::string& clip = sprite.playhead().clip()->name;
      if (!list.ends_with(" " + clip)) list += " " + clip;
      return sprite.playhead().frame(60);
    };
    note("vole", clips);
    const int door_frame = note("shed", door);
    // It comes out on the frame where the door is widest, and not before.
    if (stage.count("hedgehog") > most_hedgehogs) CHECK(door_frame == 4);
    most_hedgehogs = std::max(most_hedgehogs, stage.count("hedgehog"));
    mounds = stage.count("mound");
    leaves = std::max(leaves, stage.count("leaf"));
  }
  CHECK(door == " lamp welcome");
  CHECK(most_hedgehogs == 1);
  CHECK(mounds == 0);
  CHECK(leaves > 5);
  CAPTURE(clips);
  for (const char* clip : {"idle", "run", "jump", "fall", "land", "dig", "hurt"})
    CHECK(clips.find(clip) != std::string::npos);
}

TEST_CASE("in the cellar the lever raises its own gate, and bulbs lie on the walls of the store") {
  const std::string file = allotment_folder() + "/recordings/harvest.run";
  Run run(file);
  bool was_shut = false, counted = false;
  for (std::int64_t i = 0; i < vole::read_recording(file).ticks; ++i) {
    run.session->tick();
    if (level_of(run) != "cellar") continue;
    const vole::Stage& stage = run.session->stage();
    const vole::Entity gate = stage.named("gate");
    const vole::Rect shut = stage.box(gate);
    std::vector<vole::BodyOrCell> found;
    stage.bodies().find(shut, {.categories = stage.categories({"doors"}), .tiles = false}, found);
    const bool holds = !found.empty();
    const std::string clip = stage.get<vole::Sprite>(gate).playhead().clip()->name;
    if (clip == "shut") {
      REQUIRE(holds);
      // Nobody is past it.
      REQUIRE(stage.get<vole::Pose>(stage.first("vole")).at.x < shut.left());
    }
    was_shut = was_shut || holds;
    if (!was_shut || std::exchange(counted, true)) continue;
    int in_store = 0;
    stage.entities().visit<vole::KindOf, vole::Pose>(
        [&](vole::Entity, const vole::KindOf& kind, const vole::Pose& pose) {
          if (kind.name != "bulb" || !stage.zone("store").contains(pose.at - vole::Vec2{0, 1})) return;
          const vole::IVec2 below = stage.level().cell_at(pose.at + vole::Vec2{0, 1});
          CHECK(stage.level().material("ground", below) == "wall");
          ++in_store;
        });
    CHECK(in_store == 6);
  }
  CHECK(was_shut);
  CHECK(run.session->scene_name() == "finish");
}

TEST_CASE("between the cellar and the beds each stays as the vole left it") {
  Run run({}, allotment_folder(), {"garden", "level = 'cellar'"});
  const auto walk = [&run](const char* key, std::string_view to) {
    run.press(key);
    for (int i = 0; i < 300 && level_of(run) != to; ++i) run.steps(1);
    REQUIRE(level_of(run) == to);
    run.press(key, false);
    const vole::Stage& stage = run.session->stage();
    CHECK(stage.count("vole") == 1);
    CHECK(stage.get<vole::Attached>(stage.first("lantern")).to == stage.first("vole"));
    run.steps(60);  // until the change is over
  };
  const auto hedgehog_at = [&run] {
    const vole::Stage& stage = run.session->stage();
    return stage.get<vole::Pose>(stage.first("hedgehog")).at;
  };
  walk("key ArrowLeft", "beds");
  walk("key ArrowRight", "cellar");
  CHECK(run.session->stage().count("hedgehog") == 0);
  walk("key ArrowLeft", "beds");
  REQUIRE(run.session->stage().count("hedgehog") == 1);
  const vole::Vec2 before = hedgehog_at();
  run.steps(30);
  CHECK(hedgehog_at() != before);
  // No second one: the lodger is out.
  walk("key ArrowRight", "cellar");
  walk("key ArrowLeft", "beds");
  CHECK(run.session->stage().count("hedgehog") == 1);
}

TEST_CASE("a run that differs is reported, with the tick") {
  TempFolder folder;
  copy_allotment(folder);
  const std::string kinds = vole::read_text(folder.path("kinds.toml"), 100000);
  std::string faster = kinds;
  folder.write("kinds.toml", faster.replace(faster.find("speed = 92"), 10, "speed = 93"));
  Run run(folder.path("recordings/harvest.run"), folder.path());
  while (run.session->step()) {
  }
  CHECK(run.session->finish() == 1);
}

TEST_CASE("a recording of another game or rate is refused") {
  TempFolder folder;
  copy_allotment(folder);
  const std::string file = folder.path("recordings/harvest.run");
  const std::string text = vole::read_text(file, 1 << 20);
  const auto with = [&](const std::string& what, const std::string& by) {
    std::string changed = text;
    folder.write("recordings/harvest.run", changed.replace(changed.find(what), what.size(), by));
    return error_of([&] { Run run(file, folder.path()); }, folder);
  };
  CHECK(with("game = \"allotment\"", "game = \"weir\"") ==
        "recordings/harvest.run: error: is a recording of the game \"weir\", and this is \"allotment\"");
  CHECK(with("ticks_per_second = 60", "ticks_per_second = 50")
            .find("was recorded at 50 ticks a second, and this build runs at 60") != std::string::npos);
  CHECK(with("\"90 start +;", "\"90 strat +;")
            .find("harvest.run:21:3: error: no action or axis \"strat\"; did you mean \"start\"?") !=
        std::string::npos);
}

TEST_CASE("a key held over a change of scene is no press in the next") {
  Run run;
  run.press("key Space");  // starts the game, and would jump
  run.steps(1);
  CHECK(run.session->scene_name() == "garden");
  for (int i = 0; i < 60; ++i) {
    run.steps(1);
    REQUIRE(run.session->stage().get<vole::Motion>(run.session->stage().first("vole")).velocity.y >= 0);
  }
}

TEST_CASE("what a host hears is what its thing wants in the tick that comes next, and not one later") {
  vole::Random chance(18);
  Run run;
  run.press("key Enter");
  run.steps(2);
  run.press("key Enter", false);
  run.steps(60);  // until the night has come and gone
  const vole::Stage& stage = run.session->stage();
  const vole::Entity vole = stage.first("vole");
  bool jumps = false, walks = false;
  int events = 0;
  for (int i = 0; i < 600; ++i) {
    bool pressed = false;
    if (chance.chance(0.3f)) {
      jumps = pressed = !jumps;
      run.press("key KeyW", jumps);
      ++events;
    }
    if (chance.chance(0.1f)) {
      walks = !walks;
      run.press("key ArrowRight", walks);
      ++events;
    }
    const std::int64_t ticks = run.session->ticks();
    const bool frozen = stage.frozen();  // then things want nothing new
    run.steps(1);
    REQUIRE(run.session->ticks() == ticks + 1);
    if (frozen) continue;
    const vole::Intent& wants = stage.get<vole::Intent>(vole);
    CAPTURE(i);
    REQUIRE(wants.jump_held == jumps);
    REQUIRE(wants.jump_pressed == pressed);
    REQUIRE(wants.direction.x == (walks ? 1.0f : 0.0f));
  }
  CHECK(events > 100);
}

TEST_CASE("drawing changes nothing, and shows what lies in between") {
  Run drawn, plain;
  for (Run* run : {&drawn, &plain}) {
    run->press("key Enter");
    run->steps(2);
    run->press("key ArrowRight");
  }
  for (int i = 0; i < 100; ++i) {
    drawn.session->tick();
    plain.session->tick();
    const vole::Image start = drawn.session->draw(0);
    const vole::Image again = drawn.session->draw(0);
    REQUIRE(start == again);
    drawn.session->draw(0.5f);
    REQUIRE(drawn.session->checksum() == plain.session->checksum());
  }
}

TEST_CASE("a steady frame allocates nothing") {
  Run run;
  run.press("key Enter");
  run.steps(2);
  run.press("key ArrowRight");
  run.steps(30);
  run.press("key ArrowRight", false);
  run.steps(120);  // the vole stands again, everything has grown to its size
  const std::int64_t before = allocations_so_far();
  if (allocations_are_counted()) REQUIRE(before > 1000);
  for (int i = 0; i < 300; ++i) {
    run.session->tick();
    run.session->draw(0.5f);
  }
  CHECK(allocations_so_far() - before == 0);
}

TEST_CASE("looking an asset up by its name allocates nothing, however long the name") {
  TempFolder folder;
  const std::string name =
      "a-name-that-is-much-too-long-to-fit-into-any-small-text-without-memory-of-its-own";
  folder.write_picture("assets/" + name + ".png", {4, 4});
  vole::Catalog catalog(folder.path());
  catalog.get<vole::Sheet>(name);
  const std::int64_t before = allocations_so_far();
  for (int i = 0; i < 100; ++i) catalog.get<vole::Sheet>(name);
  CHECK(allocations_so_far() == before);
}

TEST_CASE("changed files show while the game runs, and broken ones leave the last good version") {
  TempFolder folder;
  copy_allotment(folder);
  Run run({}, folder.path());
  run.press("key Enter");
  run.steps(3);
  const vole::Image before = run.session->draw(1);
  CHECK(run.session->refresh().problems().empty());

  folder.write_picture("assets/sky.png", {320, 180}, {0x7f, 0xb8, 0xb0, 0xff});
  CHECK(run.session->refresh().problems().empty());
  run.steps(1);
  CHECK_FALSE(run.session->draw(1) == before);

  const std::string level = vole::read_text(folder.path("levels/beds.level.toml"), 1 << 20);
  folder.write("levels/beds.level.toml", level.substr(0, level.size() / 2));
  const vole::Report report = run.session->refresh();
  CHECK(report.has_errors());
  CHECK(run.host.told.find("beds.level.toml:") != std::string::npos);
  CHECK(run.session->refresh().problems().empty());  // told once
  run.steps(5);
  CHECK(run.session->stage().level().cells().x == 72);

  folder.write("levels/beds.level.toml", level);
  CHECK(run.session->refresh().problems().empty());
  CHECK(run.host.told.empty());

  folder.write("controls.toml", "[actions]\nstart = [\"key Entr\"]\n");
  CHECK(to_text(run.session->refresh().problems().at(0)).find("did you mean \"key Enter\"?") !=
        std::string::npos);
  run.steps(5);
}

TEST_CASE("a key shows the xray, all and part by part, and changes nothing of the game") {
  Run run, plain;
  for (Run* each : {&run, &plain}) {
    each->press("key Enter");
    each->steps(2);
    each->press("key Enter", false);
    each->steps(20);
  }
  const vole::Image without = run.session->draw(1);
  std::vector<vole::Image> seen;
  for (int i = 0; i < 11; ++i) {
    run.press("key F8");
    run.steps(1);
    run.press("key F8", false);
    run.steps(1);
    plain.steps(2);
    seen.push_back(run.session->draw(1));
    REQUIRE(run.session->checksum() == plain.session->checksum());
  }
  CHECK_FALSE(seen[0] == seen[1]);
  CHECK_FALSE(seen[1] == seen[2]);
  // After the usual and nine parts there is nothing again.
  CHECK(seen[10] == plain.session->draw(1));
}

TEST_CASE("the wheelbarrow carries the pumpkin, and the shed door holds until it is open") {
  Run run;
  run.press("key Enter");
  run.steps(2);
  const vole::Stage& stage = run.session->stage();
  const vole::Entity barrow = stage.first("barrow"), pumpkin = stage.first("pumpkin");
  const auto at = [&stage](vole::Entity thing) { return stage.get<vole::Pose>(thing).at; };
  run.steps(2);
  const vole::Vec2 stands = at(pumpkin) - vole::on_lattice(at(barrow));
  float highest = 1000;
  for (int i = 0; i < 400; ++i) {
    run.steps(1);
    highest = std::min(highest, at(pumpkin).y);
    REQUIRE(at(pumpkin) - vole::on_lattice(at(barrow)) == stands);
  }
  CHECK(highest == 288 - 64);
  CHECK(stage.get<vole::Body>(stage.first("shed")).use == vole::BodyUse::solid);
}
