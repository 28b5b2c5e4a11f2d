// Sequences against a plain model that works out when each name is told; and each step by itself.
#include "vole/scene/steps.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/running_sequences.hpp"
#include "vole/world/sequence.hpp"
#include "yard.hpp"

namespace {

using vole::Entity;
using vole::Stage;
using vole::Steps;

constexpr float tick_seconds = 1.0f / 60;

// A list of steps as one would write it down.
struct Plan {
  enum class Does { wait, tell, together, repeat };
  Does does = Does::wait;
  int number = 0;  // ticks, which name, or times
  std::vector<std::vector<Plan>> lists;
};
using Plans = std::vector<Plan>;

Plans random_plans(vole::Random& chance, int depth) {
  Plans plans;
  const int count = 1 + below(chance, 4);
  for (int i = 0; i < count; ++i) {
    Plan plan;
    const int what = below(chance, depth > 0 ? 6 : 4);
    if (what < 2) {
      plan.number = below(chance, 8);
    } else if (what < 4) {
      plan.does = Plan::Does::tell;
      plan.number = below(chance, 3);
    } else {
      plan.does = what == 4 ? Plan::Does::together : Plan::Does::repeat;
      plan.number = 1 + below(chance, 3);
      const int lists = what == 4 ? 1 + below(chance, 3) : 1;
      for (int k = 0; k < lists; ++k) plan.lists.push_back(random_plans(chance, depth - 1));
    }
    plans.push_back(plan);
  }
  return plans;
}

constexpr const char* names[] = {"a", "b", "c"};

Steps steps_of(const Plans& plans) {
  Steps steps;
  for (const Plan& plan : plans) switch (plan.does) {
      case Plan::Does::wait:
        steps.wait(static_cast<float>(plan.number) * tick_seconds);
        break;
      case Plan::Does::tell:
        steps.tell(names[plan.number]);
        break;
      case Plan::Does::together:
        // A list of any length cannot be written as one.
        if (plan.lists.size() == 1) steps.together({steps_of(plan.lists[0])});
        if (plan.lists.size() == 2) steps.together({steps_of(plan.lists[0]), steps_of(plan.lists[1])});
        if (plan.lists.size() == 3)
          steps.together({steps_of(plan.lists[0]), steps_of(plan.lists[1]), steps_of(plan.lists[2])});
        break;
      case Plan::Does::repeat:
        steps.repeat(plan.number, steps_of(plan.lists[0]));
        break;
    }
  return steps;
}

// What is told in which tick; returns the tick of the end.
std::size_t work_out(const Plans& plans, std::size_t tick, std::vector<std::string>& told) {
  for (const Plan& plan : plans) switch (plan.does) {
      case Plan::Does::wait:
        tick += static_cast<std::size_t>(plan.number);
        break;
      case Plan::Does::tell:
        if (told.size() <= tick) told.resize(tick + 1);
        told[tick] += names[plan.number];
        break;
      case Plan::Does::together: {
        std::size_t end = tick;
        for (const Plans& list : plan.lists) end = std::max(end, work_out(list, tick, told));
        tick = end;
        break;
      }
      case Plan::Does::repeat:
        for (int i = 0; i < plan.number; ++i) tick = work_out(plan.lists[0], tick, told);
        break;
    }
  return tick;
}

std::string sorted(std::string text) {
  std::sort(text.begin(), text.end());
  return text;
}

// The yard, with what is told noted, and state that can be taken back and forth.
struct Told : Yard {
  std::string told;
  explicit Told(const std::string& more = {}, const std::pair<std::string, std::string>& file = {})
      : Yard(more, {}, {}, file) {
    say([this](vole::Cues& cues) {
      for (const char* name : names) cues.when_told(name, [this, name](Stage&) { told += name; });
      cues.when_told("bell", [](Stage&) {});
    });
  }
  void restore() {
    const vole::StateBytes bytes = state();
    enter();
    stage = &running->stage();
    vole::StateReader in(bytes);
    running->read(in);
    running->bind();
    REQUIRE(state() == bytes);
  }
};

}  // namespace

TEST_CASE(
    "random sequences tell what a plain model works out, in the same ticks, also restored in the middle of "
    "any step") {
  vole::Random chance(5);
  Told yard;
  for (int round = 0; round < cases(300, 40); ++round) {
    CAPTURE(round);
    const Plans plans = random_plans(chance, 3);
    std::vector<std::string> expected;
    const std::size_t end = work_out(plans, 0, expected);
    expected.resize(end + 1);
    if (end > 400) continue;
    const bool of_thing = chance.chance(0.5f);
    const Entity owner = of_thing ? yard.stage->spawn("crate", {100, 230}) : Entity{};
    yard.stage->start_sequence("x", steps_of(plans), owner);
    for (std::size_t tick = 0; tick <= end; ++tick) {
      REQUIRE(yard.stage->has_sequence("x", owner));
      if (below(chance, 6) == 0) yard.restore();
      yard.told.clear();
      yard.tick();
      REQUIRE(sorted(yard.told) == sorted(expected[tick]));
    }
    REQUIRE_FALSE(yard.stage->has_sequence("x", owner));
    if (of_thing) yard.stage->remove(owner);
  }
}

TEST_CASE(
    "a sequence tells where it stands, is hurried step by step, and is cancelled by name and with its "
    "thing") {
  Told yard;
  Stage& stage = *yard.stage;
  const Entity crate = stage.spawn("crate", {100, 230});
  const Steps steps = Steps().wait(5).named("first").tell("a").wait(5).named("second").tell("b");
  stage.start_sequence("x", steps, crate);
  yard.tick(3);
  CHECK(stage.sequence_step("x", crate) == "first");
  CHECK(stage.sequence_step("x").empty());
  stage.hurry_sequence("x", crate);
  yard.tick();
  CHECK(yard.told == "a");
  CHECK(stage.sequence_step("x", crate) == "second");
  // The wait that was hurried is not owed.
  yard.tick(299);
  CHECK(yard.told == "a");
  yard.tick();
  CHECK(yard.told == "ab");
  CHECK_FALSE(stage.has_sequence("x", crate));
  stage.start_sequence("x", steps, crate);
  stage.start_sequence("y", steps, crate);
  stage.start_sequence("y", steps);
  stage.cancel_sequence("x", crate);
  CHECK_FALSE(stage.has_sequence("x", crate));
  stage.remove(crate);
  yard.tick();
  CHECK_FALSE(stage.has_sequence("y", crate));
  CHECK(stage.has_sequence("y"));
}

TEST_CASE("an action hurries a sequence that says so, and one that takes over is all that steers its thing") {
  Told yard(
      "[hero]\nbody = { size = [10, 10], category = \"walkers\" }\nside_mover = { speed = 60 }\nplayer = "
      "{}\n",
      {"controls.toml",
       "[actions]\njump = [\"key Space\"]\nact = [\"key KeyX\"]\n"
       "[axes.walk]\nless = [\"key ArrowLeft\"]\nmore = [\"key ArrowRight\"]\n"});
  const Entity hero = yard.stage->spawn("hero", {100, 240});
  yard.input.players[0].axes[0].x = 100;
  const auto x = [&] { return yard.stage->get<vole::Pose>(hero).at.x; };
  yard.stage->start_sequence("x", Steps().wait(100).tell("a").hurried_by("act").take_over(), hero);
  yard.tick(30);
  CHECK(x() == 100);
  yard.input.players[0].actions[1].presses = 1;
  // Also where things stand still in the tick in which it is pressed.
  yard.stage->freeze(0.05f);
  yard.tick();
  CHECK(yard.told.empty());
  yard.input.players[0].actions[1].presses = 0;
  yard.tick(5);
  CHECK(yard.told == "a");
  yard.tick(10);
  CHECK(x() > 102);
  CHECK_THROWS_WITH(yard.stage->start_sequence("x", Steps().wait(1).hurried_by("akt"), hero),
                    Catch::Contains("did you mean \"act\"?"));
}

TEST_CASE("what goes somewhere walks there with its mover, and is moved straight on without one") {
  Told yard(
      "[leaf]\n[cart]\nbody = { size = [10, 10], category = \"walkers\" }\nside_mover = { speed = 90 }\n");
  Stage& stage = *yard.stage;
  const auto at = [&](Entity thing) { return stage.get<vole::Pose>(thing).at; };
  const Entity leaf = stage.spawn("leaf", {10, 20}), cart = stage.spawn("cart", {100, 240}),
               held = stage.spawn("cart", {300, 240});
  stage.spawn("door", {340, 240});
  stage.start_sequence("x", Steps().go({40, 60}, 50).tell("a"), leaf);
  // It is 50 pixels away: a second.
  yard.tick(59);
  CHECK(yard.told.empty());
  yard.tick();
  CHECK(yard.told == "a");
  CHECK(at(leaf) == vole::Vec2{40, 60});
  stage.start_sequence("x", Steps().go({200, 0}).tell("b"), cart);
  stage.start_sequence("x", Steps().go({400, 240}).tell("c"), held);
  yard.tick(240);
  CHECK(std::abs(at(cart).x - 200) < 2);
  CHECK(at(held).x < 335);
  CHECK(sorted(yard.told) == "abc");
  // One that is cancelled is not steered any more.
  stage.start_sequence("x", Steps().go({500, 0}), cart);
  yard.tick(30);
  stage.cancel_sequence("x", cart);
  yard.tick(20);
  const float left_at = at(cart).x;
  yard.tick(30);
  CHECK(at(cart).x == left_at);
  // A hurried one is there at once.
  yard.told.clear();
  stage.start_sequence("x", Steps().go({400, 10}, 1).tell("a"), leaf);
  yard.tick(3);
  stage.hurry_sequence("x", leaf);
  yard.tick();
  CHECK(at(leaf) == vole::Vec2{400, 10});
  CHECK(yard.told == "a");
  // One without a speed cannot.
  stage.start_sequence("x", Steps().go(vole::Vec2{0, 0}), leaf);
  CHECK_THROWS_WITH(yard.tick(), Catch::Contains("in step 1 of the sequence \"x\" of the \"leaf\"") &&
                                     Catch::Contains("say a speed"));
  CHECK_FALSE(stage.has_sequence("x", leaf));
}

TEST_CASE("a place is gone to by its name, and a step is about another thing by its place") {
  Told yard(
      "[leaf]\n[leaf.sequences.fall]\nsteps = [{ does = \"go\", to = \"well\", speed = 600 },\n"
      "{ does = \"tell\", told = \"a\", thing = \"well\" }]\n");
  const std::string level = vole::read_text(yard.folder.path("levels/yard.level.toml"), 1 << 20);
  yard.folder.write("levels/yard.level.toml",
                    level + "[[places]]\nname = \"well\"\nkind = \"door\"\nat = [300, 100]\n");
  yard.stage = &yard.start(yard.folder);
  yard.stage->load_level("yard");
  Entity about;
  yard.say([&](vole::Cues& cues) { cues.when_told("a", [&about](Stage&, Entity thing) { about = thing; }); });
  const Entity leaf = yard.stage->spawn("leaf", {10, 10});
  yard.stage->start_sequence("fall", leaf);
  yard.tick(31);
  CHECK(yard.stage->get<vole::Pose>(leaf).at == vole::Vec2{300, 100});
  CHECK(about == yard.stage->named("well"));
  CHECK_THROWS_WITH(yard.stage->start_sequence("fal", leaf), Catch::Contains("did you mean \"fall\"?"));
}

TEST_CASE("clips are played to their end, fields become what is said, and texts appear letter by letter") {
  TestStage small;
  TempFolder folder;
  write_small_game(folder);
  folder.write(
      "assets/mouse.sheet.toml",
      "frame = { size = [8, 8] }\npivot = \"bottom\"\n\n[clips.run]\nframes = [0, 1, 2]\nfps = 12\n\n"
      "[clips.idle]\nframes = [3]\n[clips.once]\nframes = [0, 1]\nfps = 10\nloop = false\n"
      "[[rules]]\nclip = \"idle\"\n");
  Stage& stage = small.start(folder);
  std::string told;
  small.say([&](vole::Cues& cues) {
    for (const char* name : names) cues.when_told(name, [&told, name](Stage&) { told += name; });
  });
  const Entity mouse = stage.spawn("mouse", {20, 20});
  const vole::Sprite& sprite = stage.get<vole::Sprite>(mouse);
  small.tick();
  CHECK(sprite.playing.clip == "idle");
  stage.start_sequence("x", Steps().play("once").tell("a").play("run").tell("b"), mouse);
  small.tick(12);
  CHECK(sprite.playing.clip == "once");
  CHECK(told.empty());
  // Three frames at 12 a second: a quarter of a second.
  small.tick(15);
  CHECK(told == "a");
  CHECK(sprite.playing.clip == "run");
  small.tick(2);
  CHECK(told == "ab");
  CHECK(sprite.playing.clip == "idle");
  // Rules count again also where it is cancelled.
  stage.start_sequence("x", Steps().play("run"), mouse);
  small.tick(2);
  stage.cancel_sequence("x", mouse);
  small.tick();
  CHECK(sprite.playing.clip == "idle");

  stage.start_sequence("x", Steps().tween(&vole::Sprite::opacity, 0.0f, 0.5f).tell("c"), mouse);
  small.tick(15);
  CHECK(sprite.opacity == Approx(0.5f).margin(0.04));
  stage.hurry_sequence("x", mouse);
  small.tick();
  CHECK(sprite.opacity == 0);
  CHECK(told == "abc");

  told.clear();
  stage.start_sequence("x", Steps().say("Good morning!").tell("a"), mouse);
  small.tick(21);
  REQUIRE(stage.said().size() == 1);
  CHECK(stage.said()[0].by == mouse);
  CHECK(stage.said()[0].text == "Good morni");
  CHECK(stage.said()[0].all == "Good morning!");
  stage.hurry_sequence("x", mouse);
  small.tick();
  CHECK(stage.said()[0].text == "Good morning!");
  CHECK(told.empty());
  stage.hurry_sequence("x", mouse);
  small.tick();
  CHECK(told == "a");
  CHECK(stage.said().empty());
}

TEST_CASE("a sequence waits until something holds, or until a name is told") {
  Told yard;
  const Entity walker = yard.stage->spawn("walker", {100, 100});
  yard.stage->start_sequence("x", Steps().wait_until({"grounded"}).tell("a").wait_for("bell").tell("b"),
                             walker);
  yard.stage->start_sequence("y", Steps().wait_for("bell", 2).tell("c"));
  while (!yard.stage->get<vole::Touching>(walker).ground) {
    CHECK(yard.told.empty());
    yard.restore();
    yard.tick();
  }
  yard.tick();
  CHECK(yard.told == "a");
  // About another thing it is not meant.
  yard.stage->tell("bell", yard.stage->spawn("crate", {200, 200}));
  yard.tick(3);
  CHECK(yard.told == "a");
  yard.stage->tell("bell", walker);
  yard.tick(2);
  CHECK(yard.told == "ab");
  yard.tick(120);
  CHECK(yard.told == "abc");
  // What is gone is not waited for.
  yard.stage->remove(walker);
  yard.tick();
  yard.stage->start_sequence("x", Steps().wait_until({"speed > 900"}).of(walker).tell("a"));
  yard.tick();
  CHECK(yard.told == "abca");
}

TEST_CASE("sequences of kinds begin with their things, and go on after a restore as without one") {
  const std::string kind = R"([gate]
body = { size = [10, 10], category = "walkers" }
side_mover = { speed = 90 }
[gate.sequences.opening]
starts = true
takes_over = true
steps = [
  { does = "wait", seconds = 0.1 },
  { does = "together", sequences = ["swing", "shine"] },
  { does = "tell", told = "a" },
  { does = "repeat", sequences = ["swing"], times = 2 },
  { does = "tell", told = "b", name = "end" },
]
[gate.sequences.swing]
steps = [{ does = "go", at = [150, 0] }, { does = "go", at = [100, 0] }, { does = "say", text = "Well." }]
[gate.sequences.shine]
steps = [
  { does = "tween", field = "side_mover.speed", number = 40, seconds = 0.5, ease = "quad out" },
  { does = "wait until", when = ["grounded", "speed < 50"] },
]
)";
  std::vector<vole::StateBytes> states;
  for (const bool restored : {false, true}) {
    Told yard(kind);
    yard.stage->spawn("gate", {100, 200});
    for (int i = 0; i < 900; ++i) {
      yard.tick();
      if (restored && i % 7 == 0) yard.restore();
      if (!restored)
        states.push_back(yard.state());
      else
        REQUIRE(yard.state() == states[static_cast<std::size_t>(i)]);
    }
    CHECK(yard.told == "ab");
  }
}

TEST_CASE("what is wrong in a sequence of a kind is told with its place and what was probably meant") {
  const auto error = [](const std::string& steps) {
    TempFolder folder;
    write_small_game(folder);
    folder.write("kinds.toml",
                 "[mouse]\nsprite = { sheet = \"mouse\" }\n[mouse.sequences.nap]\nsteps = [" + steps +
                     "]\n[mouse.sequences.snore]\nsteps = [{ does = \"wait\", seconds = 1 }]\n");
    TestStage small;
    return error_of([&] { small.start(folder).spawn("mouse", {0, 0}); }, folder);
  };
  CHECK(error("{ does = \"wait\" }") == "kinds.toml:4:10: error: a step that does \"wait\" says \"seconds\"");
  CHECK(error("{ does = \"wiat\", seconds = 1 }") ==
        "kinds.toml:4:19: error: unknown word \"wiat\"; did you mean \"wait\"?");
  CHECK(error("{ does = \"wait\", seconds = 1, clip = \"run\" }") ==
        "kinds.toml:4:10: error: a step that does \"wait\" has no \"clip\": leave it out");
  CHECK(error("{ does = \"play\", clip = \"rnu\" }") ==
        "kinds.toml:4:34: error: no clip \"rnu\" of \"mouse\"; did you mean \"run\"?");
  CHECK(error("{ does = \"repeat\", sequences = [\"snor\"] }") ==
        "kinds.toml:4:42: error: no sequence \"snor\"; did you mean \"snore\"?");
  CHECK(error("{ does = \"repeat\", sequences = [\"nap\"] }") ==
        "kinds.toml:3:18: error: the sequence \"nap\" does itself again, and again in that; what comes again "
        "and again is "
        "done by \"repeat\"");
  CHECK(error("{ does = \"go\" }") ==
        "kinds.toml:4:10: error: a step that goes says where: either to = \"a place\" or at = [120, 80]");
  CHECK(error("{ does = \"tween\", field = \"sprite.opacty\", number = 0 }") ==
        "kinds.toml:4:36: error: \"sprite\" has no number, pair or colour \"opacty\"; did you mean "
        "\"opacity\"?");
  CHECK(error("{ does = \"tween\", field = \"sprite.opacity\", pair = [0, 0] }") ==
        "kinds.toml:4:10: error: \"sprite.opacity\" is a number: say number = ...");
  CHECK(error("{ does = \"wait until\", when = [\"gruonded\"] }") ==
        "kinds.toml:4:41: error: no fact \"gruonded\" of \"mouse\": neither its probes nor its sheet's rules "
        "have it, so "
        "the sequence would wait for ever; did you mean \"grounded\"?");
}

TEST_CASE("a sequence that goes in a circle without waiting is reported and ends, and all else goes on") {
  Told yard;
  Stage& stage = *yard.stage;
  stage.start_sequence("x", Steps().repeat(0, Steps().tell("a")));
  stage.start_sequence("y", Steps().wait(0.1f).tell("b"));
  CHECK_THROWS_WITH(yard.tick(), Catch::Contains("more than 10000 steps in one tick"));
  CHECK_FALSE(stage.has_sequence("x"));
  yard.tick(8);
  CHECK(std::count(yard.told.begin(), yard.told.end(), 'b') == 1);
  CHECK_THROWS_WITH(stage.start_sequence("x", Steps().tell("d")),
                    Catch::Contains("no cue for when \"d\" is told"));
  CHECK_THROWS_WITH(stage.start_sequence("x", stage.spawn("crate", {1, 1})),
                    Catch::Contains("no sequence \"x\" of \"crate\""));
}

TEST_CASE("sequences stand still with their things: frozen, and at the rate of their time") {
  Told yard;
  Stage& stage = *yard.stage;
  const Entity crate = stage.spawn("crate", {100, 230});
  stage.set_time_rate(crate, 0.5f);
  stage.start_sequence("x", Steps().wait(0.5f).tell("a"), crate);
  stage.start_sequence("x", Steps().wait(0.5f).tell("b"));
  yard.tick(31);
  CHECK(yard.told == "b");
  stage.freeze(1);
  yard.tick(60);
  CHECK(yard.told == "b");
  yard.tick(31);
  CHECK(yard.told == "ba");
}

TEST_CASE("10,000 sequences that wait allocate nothing in a steady tick") {
  if (!allocations_are_counted()) return;
  Told yard;
  for (int i = 0; i < 10'000; ++i)
    yard.stage->start_sequence("x" + std::to_string(i),
                               Steps().repeat(0, Steps().wait(static_cast<float>(1 + i % 50) * 0.1f)));
  yard.tick(400);
  const std::int64_t before = allocations_so_far();
  yard.tick(100);
  CHECK(allocations_so_far() == before);
}
