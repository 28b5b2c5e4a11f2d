// Things at their own rate of time against the same things at the usual one.
#include "vole/world/own_time.hpp"

#include <cmath>

#include "vole/world/compiled_kinds.hpp"
#include "vole/world/routine.hpp"
#include "yard.hpp"

namespace {

using vole::Entity;
using vole::Stage;

const char* const runner = R"([runner]
body = { size = [10, 10], category = "walkers" }
side_mover = { speed = 90 }
routine = { steps = ["0.5 right", "0.3 right jump", "1 left", "0.2"], loop = true }
)";

struct Seen {
  vole::Vec2 at{0, 0}, velocity{0, 0};
  float jumped = 0;
  bool operator==(const Seen&) const = default;
};
Seen seen(Stage& stage, Entity thing) {
  const vole::SideMover& mover = stage.get<vole::SideMover>(thing);
  return {stage.get<vole::Pose>(thing).at, stage.get<vole::Motion>(thing).velocity,
          static_cast<float>(mover.now.state)};
}

// What the runner is after each of its steps, at the usual rate.
std::vector<Seen> steps_of_runner(int count) {
  Yard yard(runner);
  const Entity thing = yard.stage->spawn("runner", {200, 240});
  std::vector<Seen> all{seen(*yard.stage, thing)};
  for (int i = 0; i < count; ++i) {
    yard.tick();
    all.push_back(seen(*yard.stage, thing));
  }
  return all;
}

}  // namespace

TEST_CASE("at any rate a thing takes the steps that it takes at the usual one, as many as the rate says") {
  constexpr int ticks = 240;
  const std::vector<Seen> usual = steps_of_runner(4 * ticks);
  for (const auto& [scene_rate, rate] : std::vector<std::pair<float, float>>{{1, 1},
                                                                             {1, 0},
                                                                             {1, 0.25f},
                                                                             {1, 0.3f},
                                                                             {1, 2.5f},
                                                                             {1, 4},
                                                                             {0.25f, 1},
                                                                             {3, 1},
                                                                             {0.5f, 4},
                                                                             {4, 4},
                                                                             {0.25f, 4},
                                                                             {0, 4}}) {
    CAPTURE(scene_rate, rate);
    Yard yard(runner);
    const Entity thing = yard.stage->spawn("runner", {200, 240}),
                 other = yard.stage->spawn("runner", {500, 240});
    yard.stage->set_time_rate(scene_rate);
    if (rate != 1) yard.stage->set_time_rate(thing, rate);
    CHECK(yard.stage->time_rate(thing) == rate);
    const double whole = std::min(double{scene_rate} * double{rate}, 4.0);
    for (int i = 1; i <= ticks; ++i) {
      yard.tick();
      // The owed part of a step is rounded to 2^-32.
      const auto steps = static_cast<std::size_t>(i * whole + 1e-6);
      REQUIRE(seen(*yard.stage, thing) == usual[steps]);
      REQUIRE(seen(*yard.stage, other).velocity ==
              usual[static_cast<std::size_t>(i * double{scene_rate})].velocity);
    }
  }
}

TEST_CASE("in a day at any rate no step is missing and none is too many") {
  for (const float rate : {1.0f / 3, 0.1f, 0.7f, 1.9f, 3.999f}) {
    vole::OwnTime time;
    time.rate = rate;
    std::int64_t steps = 0;
    constexpr std::int64_t ticks = 24 * 3600 * 60;
    for (std::int64_t i = 0; i < ticks; ++i) {
      time.pass(1);
      steps += time.steps;
    }
    CHECK(std::abs(static_cast<double>(steps) - static_cast<double>(ticks) * double{rate}) < 1.5);
  }
}

TEST_CASE("slow and quick motion are drawn as evenly as the usual motion, also beside what is quicker") {
  for (const float rate : {1.0f, 0.5f, 0.25f, 0.2f, 2.0f, 4.0f}) {
    CAPTURE(rate);
    for (const bool of_thing : {false, true}) {
      Yard yard(
          "[cart]\nbody = { size = [10, 10], category = \"walkers\" }\n"
          "side_mover = { speed = 60, acceleration = 100000 }\nroutine = { steps = [\"9 right\"] }\n");
      const Entity cart = yard.stage->spawn("cart", {100, 240});
      const Entity quick = yard.stage->spawn("cart", {400, 240});
      if (of_thing)
        yard.stage->set_time_rate(cart, rate);
      else
        yard.stage->set_time_rate(rate);
      yard.stage->set_time_rate(quick, 4);
      yard.tick(15);
      std::vector<float> shown;
      for (int i = 0; i < 20; ++i) {
        yard.tick();
        for (const float share : {0.0f, 0.25f, 0.5f, 0.75f})
          shown.push_back(yard.stage->get<vole::Pose>(cart)
                              .shown_at(vole::shown_share(yard.running->world(), cart, share))
                              .x);
      }
      for (std::size_t i = 1; i < shown.size(); ++i)
        REQUIRE(shown[i] - shown[i - 1] == Approx(0.25f * rate).margin(1e-3));
    }
  }
}

TEST_CASE("a press is for one step, at any rate and while things are frozen") {
  for (const float rate : {0.0f, 0.1f, 0.4f, 1.0f, 2.0f, 4.0f}) {
    CAPTURE(rate);
    Yard yard("[hero]\nbody = { size = [10, 10], category = \"walkers\" }\nside_mover = {}\nplayer = {}\n",
              {}, {},
              {"controls.toml",
               "[actions]\njump = [\"key Space\"]\nact = [\"key KeyX\"]\n"
               "[axes.walk]\nless = [\"key ArrowLeft\"]\nmore = [\"key ArrowRight\"]\n"});
    const Entity hero = yard.stage->spawn("hero", {100, 240});
    yard.stage->set_time_rate(rate);
    int acts = 0;
    yard.game.step_after("pilots", "count",
                         [&](Stage& stage) { acts += stage.get<vole::Intent>(hero).act_pressed; });
    for (int i = 0; i < 6; ++i) {
      const bool frozen = i % 2 == 1;
      yard.input.players[0].actions[1].presses = 1;
      if (frozen) yard.stage->freeze(0.1f);
      yard.tick();
      yard.input.players[0].actions[1].presses = 0;
      yard.tick(20);
      CHECK(acts == (rate > 0 ? i + 1 : 0));
    }
    // What was pressed while time stood still is still meant when it goes on.
    yard.stage->set_time_rate(1);
    yard.tick(2);
    CHECK(acts == (rate > 0 ? 6 : 1));
  }
}

TEST_CASE("what is fast meets all that lies on its way, once") {
  for (const float rate : {1.0f, 4.0f}) {
    Yard yard(
        "[dart]\nbody = { size = [2, 2], category = \"walkers\" }\n"
        "side_mover = { speed = 900, acceleration = 100000 }\nroutine = { steps = [\"9 right\"] }\n");
    int met = 0;
    yard.say(
        [&](vole::Cues& cues) { cues.when_meet("dart", "bulb", [&](Stage&, Entity, Entity) { ++met; }); });
    const Entity dart = yard.stage->spawn("dart", {20, 240});
    for (int i = 0; i < 20; ++i) yard.stage->spawn("bulb", {60.0f + 25.0f * static_cast<float>(i), 240});
    yard.stage->set_time_rate(dart, rate);
    yard.tick(60);
    CHECK(met == 20);
  }
}

TEST_CASE("rates are set for all of a kind or a tag that are there, and what is meant must be known") {
  Yard yard(runner);
  const Entity runner_thing = yard.stage->spawn("runner", {100, 240}),
               bulb = yard.stage->spawn("bulb", {200, 200});
  yard.stage->set_time_rate("runner", 0.5f);
  yard.stage->set_time_rate("tagged seed", 9);
  CHECK(yard.stage->time_rate(runner_thing) == 0.5f);
  CHECK(yard.stage->time_rate(bulb) == 4);
  CHECK(yard.stage->time_rate() == 1);
  CHECK_THROWS_WITH(yard.stage->set_time_rate("runer", 1), Catch::Contains("did you mean \"runner\"?"));
}
