// Clips: how they are written, when each frame is shown, what happens on frames, and which clip plays.
#include <algorithm>
#include <cmath>
#include <map>

#include "sheet_stage.hpp"
#include "vole/animation/playhead.hpp"
#include "vole/asset/clip_rules.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/described_type.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"

namespace {

using vole::Clip;
using vole::ClipEvent;
using vole::Entity;
using vole::Playhead;

// A sheet of 4 x 3 frames with these lines after it.
struct Written {
  TempFolder folder;
  std::unique_ptr<vole::Catalog> catalog;

  explicit Written(const std::string& text) {
    folder.write_picture("assets/a.png", {16, 12});
    folder.write("assets/a.sheet.toml", std::string("frame = { size = [4, 4] }\n").append(text));
    catalog = std::make_unique<vole::Catalog>(folder.path());
  }
  const vole::Sheet& sheet() { return *catalog->get<vole::Sheet>("a"); }
  std::string wrong() {
    return error_of([&] { sheet(); }, folder);
  }
};

std::vector<int> frames_of(const std::string& clip) {
  return Written(std::string("[clips.c]\n").append(clip)).sheet().clip("c").frames;
}

std::string wrong_clip(const std::string& clip) {
  return Written(std::string("[clips.c]\n").append(clip)).wrong();
}

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

Clip made(std::vector<int> frames, int millifps, bool loop) {
  return {.name = {}, .frames = std::move(frames), .millifps = millifps, .loop = loop};
}

int whole(vole::Random& chance, int least, int most) {
  return least + static_cast<int>(chance.below(static_cast<std::uint32_t>(most - least + 1)));
}

}  // namespace

TEST_CASE("a clip is written by list, range or row, forward, back, and both") {
  using Frames = std::vector<int>;
  CHECK(frames_of("frames = [3, 1, 1]") == Frames{3, 1, 1});
  CHECK(frames_of("range = [4, 7]") == Frames{4, 5, 6, 7});
  CHECK(frames_of("range = [7, 5]") == Frames{7, 6, 5});
  CHECK(frames_of("row = 2") == Frames{8, 9, 10, 11});
  CHECK(frames_of("row = 1\norder = \"reverse\"") == Frames{7, 6, 5, 4});
  CHECK(frames_of("range = [0, 3]\norder = \"back and forth\"") == Frames{0, 1, 2, 3, 2, 1});
  CHECK(frames_of("frames = [5]\norder = \"back and forth\"") == Frames{5});
  CHECK(frames_of("frames = [5, 6]\norder = \"back and forth\"") == Frames{5, 6});
}

TEST_CASE("what is wrong with a clip is reported at its place") {
  CHECK(has(wrong_clip("fps = 3"), "a.sheet.toml:2:8: error: clip \"c\" has no frames"));
  CHECK(
      has(wrong_clip("frames = [0]\nrow = 1"), "a clip has \"frames\", or else \"row\", \"range\" or both"));
  CHECK(has(wrong_clip("row = 3"), "a.sheet.toml:3:7: error: clip \"c\" is row 3, but \"a\" has 3 rows"));
  CHECK(has(wrong_clip("range = [0, 12]"), "names frame 12, but \"a\" has 12 frames"));
  CHECK(has(wrong_clip("row = 0\nseconds = [0.1]"),
            "4:11: error: clip \"c\" has 4 frames and 1 times for them"));
  CHECK(
      has(wrong_clip("row = 0\nseconds = [0, 1, 1, 1]"), "4:12: error: 0 is too small; the least is 0.001"));
  CHECK(has(wrong_clip("row = 0\nseconds = [inf, 1, 1, 1]"), "a finite number wanted"));
  CHECK(has(wrong_clip("row = 0\nfps = nan"), "a finite number wanted"));
  CHECK(has(wrong_clip("row = 0\nfps = -1"), "-1 is too small"));
  CHECK(has(wrong_clip("row = 0\norder = \"backwards\""), "unknown word \"backwards\""));
  CHECK(has(wrong_clip("row = 0\nloop = false\ntimes = 2"), "\"loop\" or \"times\", not both"));
  CHECK(has(wrong_clip("row = 0\nevents = { step = 4 }"),
            "event \"step\" is on frame 4 of clip \"c\", which has 4"));
  CHECK(has(wrong_clip("row = 0\nevents = { step = \"last\" }"),
            "or \"end\" wanted here, not the text \"last\""));
  CHECK(has(Written("[[rules]]\nclip = \"c\"\n").wrong(), "a.sheet.toml:3:8: error: no clip \"c\""));
  const std::string clips = "[clips.c]\nrow = 0\n[[rules]]\nclip = \"c\"\n";
  CHECK(has(Written(clips + "when = [\"vy <\"]\n").wrong(),
            "6:9: error: \"vy <\" is not a condition; one is \"grounded\""));
  CHECK(has(Written(clips + "when = [\"vy < high\"]\n").wrong(), "is not a condition"));
  CHECK(has(Written(clips + "when = [3]\n").wrong(), "a text in quotes"));
  CHECK(has(Written(clips + "finish = true\n").wrong(), "clip \"c\" loops, so it is never finished"));
  std::string days = "frames = [0", times = "seconds = [3600";
  for (int i = 0; i < 24; ++i) {
    days += ", 0";
    times += ", 3600";
  }
  CHECK(has(wrong_clip(days + "]\n" + times + "]"), "clip \"c\" takes 90000 seconds; the most is a day"));
  std::string many = "[clips.c]\nrow = 0\n";
  for (int i = 0; i < 1001; ++i) many += "[[rules]]\nclip = \"c\"\nwhen = [\"a\"]\n";
  CHECK(has(Written(many).wrong(), "1001 items are too many here; the most is 1000"));
}

TEST_CASE("frames of their own length are shown for as long as they say, in every pass") {
  Written written("[clips.c]\nframes = [0, 1, 2]\nseconds = [0.05, 0.2, 0.1]\norder = \"back and forth\"\n");
  const Clip& clip = written.sheet().clip("c");
  CHECK(clip.length() == 550'000);
  // 3, 12, 6 and 12 ticks of 60, over and over.
  std::vector<int> shown;
  for (int tick = 0; tick < 66; ++tick) shown.push_back(clip.frame_at(tick, 60));
  std::vector<int> expected;
  for (int pass = 0; pass < 2; ++pass)
    for (const auto& [frame, ticks] : {std::pair(0, 3), std::pair(1, 12), std::pair(2, 6), std::pair(1, 12)})
      expected.insert(expected.end(), static_cast<std::size_t>(ticks), frame);
  CHECK(shown == expected);
  CHECK(clip.frame_at_seconds(0.049) == 0);
  CHECK(clip.frame_at_seconds(0.051) == 1);
  CHECK(clip.frame_at_seconds(std::nan("")) == 0);
  CHECK(clip.frame_at_seconds(INFINITY) == clip.frame_at_seconds(1e9));
}

TEST_CASE("an playhead and the plain function of time agree, and do not drift in ten hours") {
  vole::Random chance(18);
  for (int round = 0; round < 60; ++round) {
    Clip clip = made({4, 5, 6, 7, 8}, whole(chance, 1, 60'000), chance.chance(0.5f));
    clip.times = whole(chance, 1, 4);
    if (chance.chance(0.4f)) {
      std::int64_t end = 0;
      for (int i = 0; i < 5; ++i) clip.ends.push_back(end += whole(chance, 1000, 400'000));
    }
    Playhead playhead;
    playhead.play(clip);
    for (std::int64_t tick = 0; tick < 2000; ++tick) {
      REQUIRE(playhead.frame(60) == clip.frame_at(tick, 60));
      REQUIRE(playhead.finished(60) == clip.over_at(tick, 60));
      playhead.tick();
    }
  }
  const Clip clip = made({0, 1, 2}, 7'000, true);
  Playhead playhead;
  playhead.play(clip);
  const std::int64_t ten_hours = std::int64_t{10} * 3600 * 60;
  for (std::int64_t tick = 0; tick < ten_hours; ++tick) playhead.tick();
  CHECK(playhead.progress() == ten_hours * 7'000 * 1000);
  CHECK(playhead.frame(60) == ten_hours * 7 / 60 % 3);
}

TEST_CASE("a clip can be paused, taken up, slowed down, sped up and moved") {
  const Clip clip = made({9, 8, 7, 6}, 30'000, true);
  Playhead playhead;
  playhead.play(clip);
  playhead.pause();
  for (int i = 0; i < 10; ++i) playhead.tick();
  CHECK(playhead.frame(60) == 9);
  playhead.resume();
  playhead.tick();
  playhead.tick();
  CHECK(playhead.frame(60) == 8);
  playhead.set_speed(0.5f);
  for (int i = 0; i < 3; ++i) playhead.tick();
  CHECK(playhead.frame(60) == 8);
  playhead.tick();
  CHECK(playhead.frame(60) == 7);
  playhead.set_speed(2);
  playhead.tick();
  CHECK(playhead.frame(60) == 6);
  playhead.go_to(2, 60);
  CHECK(playhead.frame(60) == 7);
  playhead.go_to(99, 60);
  CHECK(playhead.position(60) == 3);
  CHECK_THROWS_AS(playhead.set_speed(std::nanf("")), vole::Error);
  CHECK(playhead.speed() == 2);
  playhead.set_speed(1);
  playhead.restart(clip);
  CHECK(playhead.frame(60) == 9);
  playhead.stop();
  CHECK(playhead.frame(60) == 0);
}

TEST_CASE("each event is reported once, in order, whatever the rate and speed: against tiny steps") {
  vole::Random chance(44);
  for (int round = 0; round < 400; ++round) {
    Clip clip = made({0, 1, 2, 3}, whole(chance, 500, 90'000), chance.chance(0.6f));
    clip.times = whole(chance, 1, 3);
    for (int i = 0; i < 4; ++i)
      if (chance.chance(0.5f)) clip.events.push_back({std::string(1, static_cast<char>('a' + i)), i});
    if (chance.chance(0.5f)) clip.events.push_back({"end", ClipEvent::at_end});
    const float speed = static_cast<float>(whole(chance, 0, 30)) / 4;
    const int rate = whole(chance, 1, 3) * 20;
    const int ticks = whole(chance, 1, 60);
    Playhead playhead;
    playhead.play(clip);
    playhead.set_speed(speed);
    std::string told;
    for (int tick = 0; tick < ticks; ++tick)
      playhead.tick(rate, [&](const ClipEvent& event) { told += event.name; });
    // The same span in units of the clip, one by one: an event when its moment is reached, the first at once.
    const std::int64_t scale = 1000 * rate;
    std::string expected;
    for (std::int64_t unit = 0; unit * scale <= playhead.progress(); ++unit) {
      const std::int64_t pass = unit / clip.length();
      const bool ends = unit > 0 && unit % clip.length() == 0 && (clip.loop || pass == clip.times);
      for (const ClipEvent& event : clip.events)
        if (event.position == ClipEvent::at_end && ends) expected += event.name;
      if (!clip.loop && pass >= clip.times) continue;
      for (const ClipEvent& event : clip.events)
        if (event.position != ClipEvent::at_end && unit % clip.length() == clip.start_of(event.position))
          expected += event.name;
    }
    CAPTURE(clip.millifps, clip.loop, clip.times, speed, rate, ticks);
    REQUIRE(told == expected);
  }
}

TEST_CASE(
    "a million frames in clips are the most, and the longest clip at the highest speed stays in its "
    "numbers") {
  TempFolder folder;
  folder.write_picture("assets/a.png", {256, 256});
  std::string text = "frame = { size = [1, 1] }\n";
  for (int i = 0; i < 17; ++i) {
    text.append("[clips.c").append(std::to_string(i)).append("]\nrange = [0, 65535]\n");
  }
  folder.write("assets/a.sheet.toml", text);
  CHECK(has(error_of([&] { vole::Catalog(folder.path()).get<vole::Sheet>("a"); }, folder),
            "up to clip \"c15\" the sheet's clips show 1048576 frames; the most is 1000000"));
  Clip day = made({0, 1}, 1000, true);
  const std::int64_t half = std::int64_t{12} * 3600 * 1'000'000;
  day.ends = {half, 2 * half};
  day.events = {{"noon", 1}};
  Playhead playhead;
  playhead.play(day);
  playhead.set_speed(100);
  int noons = 0;
  for (int tick = 0; tick < 1000 * 3600; ++tick) playhead.tick(1000, [&](const ClipEvent&) { ++noons; });
  // A hundred hours: four noons, and the fifth is 8 hours off.
  CHECK(noons == 4);
  CHECK(playhead.frame(1000) == 0);
}

TEST_CASE("conditions hold as they read, and the first rule that holds wins: against plain code") {
  vole::ClipRules rules;
  rules.add("jump", {"not grounded", "vy < 0"})
      .add("fall", {"not grounded"})
      .add("run", {"speed >= 8"})
      .add("idle", {});
  CHECK(rules.facts() == std::vector<std::string>{"grounded", "vy", "speed"});
  vole::Random chance(3);
  for (int round = 0; round < 2000; ++round) {
    const float values[] = {chance.chance(0.5f) ? 1.0f : 0.0f, chance.within(-10, 10),
                            static_cast<float>(whole(chance, 6, 10))};
    const bool grounded = values[0] != 0;
    const int expected = !grounded && values[1] < 0 ? 0 : !grounded ? 1 : values[2] >= 8 ? 2 : 3;
    REQUIRE(rules.decide(values) == expected);
  }
  CHECK(to_text(rules.rules()[0].when[0], rules) == "not grounded");
  CHECK(to_text(rules.rules()[0].when[1], rules) == "vy < 0");
  CHECK(to_text(rules.rules()[2].when[0], rules) == "speed >= 8");
  CHECK(vole::ClipRules().add("a", {"b"}).decide(std::vector<float>{0}) == -1);
}

TEST_CASE("long lists of rules decide as if each rule were asked in turn") {
  vole::Random chance(9);
  const auto holds = [](const vole::ClipRules::Condition& condition, float value) {
    using Compare = vole::ClipRules::Compare;
    switch (condition.compare) {
      case Compare::less:
        return value < condition.value;
      case Compare::equal:
        return value == condition.value;
      case Compare::at_most:
        return value <= condition.value;
      case Compare::more:
        return value > condition.value;
      case Compare::at_least:
        return value >= condition.value;
      default:
        return value != condition.value;
    }
  };
  const char* const signs[] = {"<", "==", "<=", ">", ">=", "!="};
  for (int round = 0; round < 60; ++round) {
    vole::ClipRules rules;
    const auto count = 1 + chance.below(200);
    for (std::uint32_t i = 0; i < count; ++i) {
      std::vector<std::string> when;
      for (std::uint32_t n = 3 + chance.below(3); n-- > 0;)
        when.push_back(std::string(1, static_cast<char>('a' + chance.below(6))) + " " +
                       signs[chance.below(6)] + " " + std::to_string(chance.below(4)));
      rules.add("clip", when);
    }
    for (int asked = 0; asked < 50; ++asked) {
      std::vector<float> values;
      for (std::size_t i = 0; i < rules.facts().size(); ++i)
        values.push_back(static_cast<float>(chance.below(4)));
      int expected = -1;
      for (std::size_t i = rules.rules().size(); i-- > 0;) {
        const auto& when = rules.rules()[i].when;
        if (std::all_of(when.begin(), when.end(), [&](const auto& c) { return holds(c, values[c.fact]); }))
          expected = static_cast<int>(i);
      }
      REQUIRE(rules.decide(values) == expected);
    }
  }
}

namespace {

// The small game with a mouse that has rules and events.
struct Ruled : SheetStage {
  Ruled()
      : SheetStage(
            "[clips.idle]\nframes = [0]\n[clips.run]\nframes = [1, 2]\nfps = 30\n"
            "events = { step = [0, 1] }\n[clips.hurt]\nframes = [3, 4]\nfps = 10\nloop = false\n"
            "events = { better = \"end\" }\n[clips.dig]\nframes = [5]\n"
            "[[rules]]\nclip = \"hurt\"\nwhen = [\"hurt\"]\nfinish = true\n"
            "[[rules]]\nclip = \"dig\"\nwhen = [\"digging\"]\nhold = 0.2\n"
            "[[rules]]\nclip = \"run\"\nwhen = [\"speed > 1\"]\n[[rules]]\nclip = \"idle\"\n") {
    spawn();
  }
  std::string clip_after(int ticks) {
    tick(ticks);
    return clip();
  }
};

}  // namespace

TEST_CASE("the state decides the clip, and the same decision does not restart it") {
  Ruled ruled;
  CHECK(ruled.clip_after(1) == "idle");
  ruled.moves({-20, 0});
  CHECK(ruled.clip_after(1) == "run");
  CHECK(ruled.clip_after(7) == "run");
  CHECK(ruled.sprite().playhead().ticks() == 8);
  // At least 0.2 seconds of digging, though it is over at once.
  ruled.sprite().set_fact("digging", 1);
  CHECK(ruled.clip_after(1) == "dig");
  ruled.sprite().set_fact("digging", 0);
  CHECK(ruled.clip_after(11) == "dig");
  CHECK(ruled.clip_after(1) == "run");
  // Being hurt is played to its end.
  ruled.sprite().set_fact("hurt", 1);
  CHECK(ruled.clip_after(1) == "hurt");
  ruled.sprite().set_fact("hurt", 0);
  CHECK(ruled.clip_after(11) == "hurt");
  CHECK(ruled.clip_after(1) == "run");
  CHECK(error_of([&] { ruled.sprite().set_fact("hurtt", 1); }, ruled.folder) ==
        "error: no rule of \"mouse\" asks for \"hurtt\"; did you mean \"hurt\"?");
}

TEST_CASE("a thing that does not move stands still on the ground, as far as rules ask") {
  Ruled ruled;
  ruled.reload(
      "[clips.idle]\nframes = [0]\n[clips.fall]\nframes = [1]\n"
      "[[rules]]\nclip = \"fall\"\nwhen = [\"not grounded\"]\n[[rules]]\nclip = \"idle\"\n");
  ruled.stage->entities().add(ruled.mouse, vole::Touching{});
  CHECK(ruled.clip_after(1) == "fall");
  ruled.stage->entities().remove<vole::Touching>(ruled.mouse);
  CHECK(ruled.clip_after(1) == "idle");
  // Nor is it at a wall, unless it touches one.
  ruled.reload(
      "[clips.idle]\nframes = [0]\n[clips.lean]\nframes = [1]\n"
      "[[rules]]\nclip = \"lean\"\nwhen = [\"at_wall\"]\n[[rules]]\nclip = \"idle\"\n");
  CHECK(ruled.clip_after(1) == "idle");
  ruled.stage->entities().add(ruled.mouse, vole::Touching{});
  CHECK(ruled.clip_after(1) == "idle");
  ruled.stage->get<vole::Touching>(ruled.mouse).wall_left = true;
  CHECK(ruled.clip_after(1) == "lean");
}

TEST_CASE("a handler of an event may change the clip, remove the thing, or begin a scene") {
  Ruled ruled;
  vole::Stage& stage = *ruled.stage;
  int steps = 0, better = 0;
  bool steps_stop = false;
  ruled.say([&](vole::Cues& cues) {
    cues.when_event("mouse", "step", [&](vole::Stage&, Entity) { ++steps; });
    cues.when_event("mouse", "better", [&](vole::Stage& on, Entity entity) {
      ++better;
      on.remove(entity);
      on.leave_for("cues");
    });
    cues.when_event("mouse", "step", [&](vole::Stage& on, Entity entity) {
      if (steps_stop) on.get<vole::Sprite>(entity).restart("idle");
    });
    CHECK_THROWS_AS(cues.when_event("moose", "step", [](vole::Stage&, vole::Entity) {}), vole::Error);
  });
  ruled.moves({20, 0});
  // A step every other tick, the first at once.
  ruled.clip_after(20);
  CHECK(steps == 11);
  ruled.sprite().set_speed(8);
  ruled.clip_after(1);
  CHECK(steps == 11 + 4);
  ruled.sprite().set_fact("hurt", 1);
  for (int i = 0; i < 30 && stage.entities().alive(ruled.mouse); ++i) ruled.tick();
  CHECK(better == 1);
  CHECK_FALSE(stage.entities().alive(ruled.mouse));
  REQUIRE(ruled.running->change() != nullptr);
  CHECK(ruled.running->change()->scene == "cues");
  // What the old clip had still to tell in that tick is not told once another plays.
  const Entity other = stage.spawn("mouse", {10, 10});
  steps_stop = true;
  stage.entities().add(other, vole::Motion{{20, 0}});
  stage.get<vole::Sprite>(other).set_speed(20);
  const int before = steps;
  ruled.tick();
  CHECK(steps == before + 1);
}

TEST_CASE("rules that change in their file keep what is known by name") {
  Ruled ruled;
  ruled.sprite().set_fact("digging", 1);
  CHECK(ruled.clip_after(1) == "dig");
  ruled.reload(
      "[clips.idle]\nframes = [0]\n[clips.burrow]\nframes = [1]\n"
      "[[rules]]\nclip = \"burrow\"\nwhen = [\"vy == 0\", \"digging\"]\n[[rules]]\nclip = \"idle\"\n");
  CHECK(ruled.clip_after(1) == "burrow");
}

TEST_CASE(
    "a clip that has played for weeks keeps its place in the pass, and one that ends stays at its end") {
  const auto after = [](const Clip& clip, std::int64_t progress) {
    Playhead head;
    head.play(clip);
    head.tick();
    std::string text = vole::to_toml(head);
    const std::string key = "progress = ";
    const std::size_t at = text.find(key) + key.size();
    text.replace(at, text.find('\n', at) - at, std::to_string(progress));
    vole::Report report;
    vole::read(vole::parse_toml(text, "f"), head, report, vole::TableOf::state);
    REQUIRE(report.problems().empty());
    head.tick();
    return head;
  };
  constexpr std::int64_t most = std::int64_t{1} << 61;
  const Clip loop = made({0, 1, 2}, 12'000, true), once = made({0, 1, 2}, 12'000, false);
  const std::int64_t step = loop.units_per_second() * 1000;
  const std::int64_t pass = loop.length() * 1000 * 60;
  CHECK(after(loop, most - step).progress() == most);
  const Playhead wrapped = after(loop, most - step + 1);
  CHECK(wrapped.progress() == (most + 1) % pass);
  CHECK(wrapped.frame(60) ==
        loop.frames[static_cast<std::size_t>(loop.position_at((most + 1) % pass / 60'000))]);
  CHECK(after(once, most).progress() == most);
  CHECK(after(once, most).finished(60));
  CHECK(after(once, most).frame(60) == 2);
}

TEST_CASE("a rule may wait until the clip has come to its end, and a mistake in a handler names the event") {
  Ruled ruled;
  ruled.reload(
      "[clips.dig]\nframes = [0, 1]\nfps = 30\nloop = false\nevents = { dug = 1 }\n[clips.rest]\nframes = "
      "[2]\n"
      "[[rules]]\nclip = \"rest\"\nwhen = [\"finished\"]\n[[rules]]\nclip = \"dig\"\nwhen = [\"not "
      "finished\"]\n");
  std::vector<std::string> clips;
  for (int i = 0; i < 6; ++i) clips.push_back(ruled.clip_after(1));
  CHECK(clips.front() == "dig");
  CHECK(std::find(clips.begin(), clips.end(), "rest") != clips.end());
  ruled.say([](vole::Cues& cues) {
    cues.when_event("mouse", "dug", [](vole::Stage&, Entity) { throw std::runtime_error("no spade"); });
  });
  const auto dig = [&] {
    for (int i = 0; i < 10; ++i) {
      ruled.sprite().restart("dig");
      ruled.tick(3);
    }
  };
  CHECK_THROWS_WITH(dig(),
                    Catch::Contains("when the \"mouse\" (thing 0) came to \"dug\" in its clip: no spade"));
  ruled.say([](vole::Cues& cues) {
    cues.when_event("mouse", "dug", [](vole::Stage& stage, Entity) { stage.spawn("moose", {0, 0}); });
  });
  CHECK_THROWS_WITH(dig(), Catch::Contains("came to \"dug\" in its clip: no kind \"moose\""));
}

TEST_CASE("a sprite that is stopped plays nothing, and shows its first frame") {
  Ruled ruled;
  ruled.reload(
      "[clips.run]\nframes = [3, 4]\n[sets.way]\ndirections = \"two\"\nrows = { right = 0, left = 1 }\n");
  for (const char* name : {"run", "way"}) {
    ruled.sprite().play(name);
    ruled.tick(5);
    REQUIRE(ruled.sprite().playhead().clip() != nullptr);
    ruled.sprite().stop();
    CHECK(ruled.sprite().playhead().clip() == nullptr);
    CHECK(ruled.sprite().playing_set() == nullptr);
    ruled.tick(3);
    CHECK(ruled.sprite().playhead().clip() == nullptr);
    CHECK(ruled.sprite().playhead().frame(60) == 0);
  }
}
