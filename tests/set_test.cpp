// Sets of clips by direction and by state.
#include <algorithm>
#include <cmath>

#include "sheet_stage.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/input/intent.hpp"

namespace {

using vole::ClipSet;
using vole::Direction;
using vole::Vec2;

enum class Mood { calm, cross, asleep };
constexpr auto enum_names(Mood) {
  return std::array<std::string_view, 3>{"calm", "cross", "asleep"};
}

// Two rows of four frames: the first is for the right, the second for down.
const std::string walks =
    "[clips.sit]\nframes = [0]\n[clips.stamp]\nframes = [4, 5]\n"
    "[sets.walk]\ndirections = \"four\"\nrows = { right = 0, down = 1, up = 0 }\nrange = [0, 3]\nfps = 10\n"
    "events = { step = 2 }\n"
    "[sets.stand]\ndirections = \"two\"\nclips = { right = \"sit\" }\n"
    "[sets.turn]\ndirections = \"eight\"\nmissing = \"turned\"\nclips = { right = \"stamp\" }\n"
    "[sets.mood]\nclips = { calm = \"sit\", cross = \"stamp\" }\n";

struct Walker : SheetStage {
  explicit Walker(const std::string& more = {}, const std::string& of_mouse = {})
      : SheetStage(walks + more, {}, of_mouse) {
    spawn();
  }
  std::string wrong(const std::string& lines) {
    write_sheet("[clips.sit]\nframes = [0]\n[sets.s]\n" + lines);
    return error_of([&] { vole::Catalog(folder.path()).get<vole::Sheet>("mouse"); }, folder);
  }
  std::string key() { return sprite().playing_member() ? sprite().playing_member()->key : ""; }
};

// The angle from one vector to the other, in degrees without a sign.
double angle_between(Vec2 a, Vec2 b) {
  const double angle = std::abs(std::atan2(a.y, a.x) - std::atan2(b.y, b.x)) * 180 / 3.14159265358979;
  return std::min(angle, 360 - angle);
}

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

}  // namespace

TEST_CASE("the nearest way is the one at the least angle, and the last one where two are as near") {
  vole::Random chance(5);
  for (const int ways : {2, 4, 8}) {
    ClipSet set;
    for (int i = 0; i < 8; i += 8 / ways)
      set.members.push_back({.key = {}, .direction = static_cast<Direction>(i)});
    for (int round = 0; round < 5000; ++round) {
      const Vec2 towards{chance.within(-3, 3), chance.within(-3, 3)};
      const auto last = static_cast<Direction>(chance.below(8));
      const auto chosen = set.members[static_cast<std::size_t>(set.nearest(towards, last))].direction;
      for (const auto& member : set.members)
        REQUIRE(angle_between(towards, unit_of(chosen)) <
                angle_between(towards, unit_of(member.direction)) + 1e-3);
    }
    for (const auto& member : set.members) {
      CHECK(set.members[static_cast<std::size_t>(set.nearest({0, 0}, member.direction))].direction ==
            member.direction);
      if (ways == 2)
        CHECK(set.members[static_cast<std::size_t>(set.nearest({0, -7}, member.direction))].direction ==
              member.direction);
    }
    if (ways != 4) continue;
    CHECK(set.members[static_cast<std::size_t>(set.nearest({3, 3}, Direction::down))].direction ==
          Direction::down);
    CHECK(set.members[static_cast<std::size_t>(set.nearest({3, 3}, Direction::right))].direction ==
          Direction::right);
  }
  for (int i = 0; i < 8; ++i) {
    const auto way = static_cast<Direction>(i);
    const Vec2 unit = unit_of(way), other = unit_of(mirrored(way));
    CHECK(unit.x == -other.x);
    CHECK(unit.y == other.y);
  }
}

TEST_CASE("a set takes its clips from rows, and makes up the ways that are missing") {
  Walker walker;
  const vole::Sheet& sheet = *walker.sprite().sheet();
  CHECK(sheet.clip("walk right").frames == std::vector<int>{0, 1, 2, 3});
  CHECK(sheet.clip("walk down").frames == std::vector<int>{4, 5, 6, 7});
  CHECK(sheet.clip("walk down").millifps == 10'000);
  CHECK(sheet.clip("walk down").events.size() == 1);
  const ClipSet& walk = sheet.set("walk");
  REQUIRE(walk.members.size() == 4);
  for (const char* key : {"right", "down", "left", "up"}) {
    const auto& member = walk.members[static_cast<std::size_t>(walk.find(key))];
    CHECK(member.mirrored == (std::string(key) == "left"));
    CHECK(member.rotation == 0);
    CHECK(sheet.clips[member.clip].name == "walk " + std::string(member.mirrored ? "right" : key));
  }
  // By rotation each way looks as the first one does, turned.
  const ClipSet& turn = sheet.set("turn");
  REQUIRE(turn.members.size() == 8);
  for (std::size_t i = 0; i < 8; ++i) {
    const auto& member = turn.members[i];
    CHECK(sheet.clips[member.clip].name == "stamp");
    CHECK_FALSE(member.mirrored);
    CHECK(std::abs(std::remainder(member.rotation - 45.0 * static_cast<double>(i), 360.0)) < 1e-6);
  }
}

TEST_CASE("a thing that stops keeps facing its last direction, in any set that it plays") {
  Walker walker;
  auto& sprite = walker.sprite();
  sprite.play("walk");
  CHECK(walker.key() == "right");
  sprite.face({-5, 1});
  CHECK(walker.key() == "left");
  CHECK(walker.drawn().mirrored);
  sprite.play("stand");
  CHECK(walker.key() == "left");
  CHECK(walker.drawn().mirrored);
  sprite.face({0, -3});
  CHECK(walker.key() == "left");
  sprite.play("walk", Direction::up);
  CHECK(walker.clip() == "walk up");
  CHECK_FALSE(walker.drawn().mirrored);
  sprite.face({0, 0});
  CHECK(walker.key() == "up");
  sprite.face({0, 1});
  CHECK(walker.key() == "down");
  sprite.face({0, -1});
  CHECK(walker.key() == "up");
  sprite.play("turn");
  CHECK(walker.drawn().rotation == -90);
  sprite.play("sit");
  CHECK(sprite.playing_set() == nullptr);
  CHECK(walker.drawn().rotation == 0);
  sprite.face({-1, 1});
  sprite.play("turn");
  CHECK(walker.key() == "down left");
}

TEST_CASE("turning on the way keeps the step, and playing the same does not restart") {
  Walker walker;
  auto& sprite = walker.sprite();
  vole::Random chance(8);
  int steps = 0;
  walker.say([&](vole::Cues& cues) {
    cues.when_event("mouse", "step", [&](vole::Stage&, vole::Entity) { ++steps; });
  });
  sprite.play("walk");
  for (int tick = 1; tick <= 2400; ++tick) {
    sprite.play("walk");
    sprite.face({chance.within(-1, 1), chance.within(-1, 1)});
    walker.tick();
    REQUIRE(sprite.playhead().ticks() == tick);
    REQUIRE(sprite.playhead().position(60) == tick / 6 % 4);
  }
  CHECK(steps == 100);
  // By state it begins again, since the clips are different things.
  sprite.play("mood", Mood::calm);
  walker.tick(3);
  sprite.play("mood", Mood::cross);
  CHECK(sprite.playhead().ticks() == 0);
}

TEST_CASE("a set by the game's own states remembers the last, and knows no others") {
  Walker walker;
  auto& sprite = walker.sprite();
  sprite.play("mood");
  CHECK(walker.key() == "calm");
  sprite.play("mood", Mood::cross);
  CHECK(walker.clip() == "stamp");
  sprite.play("walk");
  sprite.play("mood");
  CHECK(walker.key() == "cross");
  // The pose's own facing still mirrors what is no set by direction.
  walker.stage->get<vole::Pose>(walker.mouse).mirrored = true;
  CHECK(walker.drawn().mirrored);
  const auto error = [&](const auto& work) { return error_of(work, walker.folder); };
  CHECK(error([&] { sprite.play("mood", Mood::asleep); }) ==
        "error: set \"mood\" of \"mouse\" has no \"asleep\"; known: \"calm\", \"cross\"");
  CHECK(error([&] { sprite.play("moood", Mood::calm); }) ==
        "error: no set \"moood\" in \"mouse\"; did you mean \"mood\"?");
  CHECK(error([&] { sprite.play("stnad"); }) ==
        "error: no clip or set \"stnad\" in \"mouse\"; did you mean \"stand\"?");
}

TEST_CASE("rules play sets, and what walks faces where it wants to go") {
  Walker walker("[[rules]]\nclip = \"walk\"\nwhen = [\"speed > 1\"]\n[[rules]]\nclip = \"stand\"\n");
  const auto after = [&](Vec2 velocity) {
    walker.moves(velocity);
    walker.tick();
    return walker.sprite().playing_set()->name + " " + walker.key();
  };
  CHECK(after({0, 0}) == "stand right");
  CHECK(after({-30, 4}) == "walk left");
  CHECK(after({5, 40}) == "walk down");
  CHECK(after({0, 0}) == "stand right");
  CHECK(after({-30, 0}) == "walk left");
  CHECK(after({0, 0}) == "stand left");
  // What it wants counts more than where it is pushed.
  walker.stage->entities().add(walker.mouse, vole::Intent{.direction = {0, -1}});
  CHECK(after({20, 0}) == "walk up");
}

TEST_CASE("a set goes on in a new version of its sheet, or ends with it") {
  Walker walker;
  walker.sprite().play("walk", Direction::down);
  walker.tick(7);
  std::string changed = walks;
  changed.replace(changed.find("[sets.mood]"), 0, "[sets.a]\nclips = { b = \"sit\" }\n");
  walker.reload("[clips.first]\nframes = [7]\n" + changed);
  walker.tick();
  CHECK(walker.clip() == "walk down");
  CHECK(walker.key() == "down");
  CHECK(walker.sprite().playhead().ticks() == 8);
  walker.reload("[clips.sit]\nframes = [0]\n");
  walker.tick();
  CHECK(walker.clip().empty());
  CHECK(walker.sprite().playing_set() == nullptr);
}

TEST_CASE("a set by the game's own states goes on with the same one when it is restored") {
  Walker walker;
  walker.sprite().play("mood", Mood::cross);
  walker.tick(3);
  const vole::StateBytes state = walker.state();
  vole::RunningScene again(*walker.setting, walker.game.steps(), walker.game.scenes().get("cues"), {}, 1);
  vole::StateReader in(state);
  again.read(in);
  again.bind();
  auto& sprite = again.stage().get<vole::Sprite>(walker.mouse);
  CHECK(sprite.playhead().clip()->name == "stamp");
  CHECK(sprite.playing_member()->key == "cross");
  CHECK(sprite.playhead().ticks() == walker.sprite().playhead().ticks());
}

TEST_CASE("things that turn this way and that allocate nothing") {
  if (!allocations_are_counted()) return;
  Walker walker("[[rules]]\nclip = \"walk\"\nwhen = [\"speed > 1\"]\n[[rules]]\nclip = \"stand\"\n");
  vole::Random chance(3);
  const auto wander = [&](int ticks) {
    for (int i = 0; i < ticks; ++i) {
      walker.moves({chance.within(-2, 2), chance.within(-2, 2)});
      walker.tick();
      walker.drawn();
    }
  };
  wander(20);
  const auto drawn_before = allocations_so_far();
  walker.drawn();
  const std::int64_t by_drawing = allocations_so_far() - drawn_before;
  const std::int64_t before = allocations_so_far();
  wander(200);
  CHECK(allocations_so_far() - before == 200 * by_drawing);
}

TEST_CASE("what is wrong with a set is reported at its place") {
  Walker walker;
  CHECK(
      has(walker.wrong("directions = \"four\"\nrows = { right = 0, don = 1 }"),
          "mouse.sheet.toml:6:21: error: \"don\" is none of the 4 directions of this set; did you mean \"down\"?"));
  CHECK(has(walker.wrong("directions = \"four\"\nrows = { right = 0 }"),
            ":4:7: error: set \"s\" has no clip for \"down\", \"up\"; missing = \"turned\" would rotate"));
  CHECK(has(walker.wrong("directions = \"two\"\nmissing = \"error\"\nrows = { right = 0 }"),
            "no clip for \"left\""));
  CHECK(has(walker.wrong("directions = \"fuor\"\nrows = { right = 0 }"), "did you mean \"four\"?"));
  CHECK(
      has(walker.wrong("clips = { a = \"sitt\" }"), "no clip \"sitt\" in \"mouse\"; did you mean \"sit\"?"));
  CHECK(has(walker.wrong("rows = { a = 2 }"), "clip \"s a\" is row 2, but \"mouse\" has 2 rows"));
  CHECK(has(walker.wrong("rows = { a = 1 }\nrange = [1, 4]"),
            "clip \"s a\" goes from frame 1 to 4 of its row, which has 4"));
  CHECK(has(walker.wrong("directions = \"two\""), "set \"s\" is empty; it has \"rows\" or \"clips\""));
  CHECK(has(walker.wrong("rows = { a = 1 }\nclips = { a = \"sit\" }"), "has \"a\" twice"));
  CHECK(
      has(walker.wrong("rows = { a = 1 }\n[sets.sit]\nrows = { b = 0 }"), "there is a clip \"sit\" already"));
  CHECK(has(walker.wrong("rows = { a = 0 }\nfps = 0"), "0 is too small"));
  CHECK(has(walker.wrong("rows = { a = 0 }\n[[rules]]\nclip = \"s\"\nfinish = true"),
            "clip \"s a\" loops, so it is never finished"));
}
