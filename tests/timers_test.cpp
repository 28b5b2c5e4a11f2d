// Timers against plain counters that are all looked at in each tick.
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/timers.hpp"

#include "test_stage.hpp"
#include "vole/world/world.hpp"

namespace {

using vole::Entity;
using vole::Stage;

// A timer as one would write it at first.
struct Counter {
  std::string name;
  Entity entity;
  std::int64_t left = 0;       // ticks
  std::int64_t even_left = 0;  // without the spread
  std::int64_t every = 0, spread = 0, times = 0;
  bool stopped = false;
  int number = 0;
};

struct Counters {
  std::vector<Counter> all;
  vole::Random chance;
  int added = 0;

  void set_left(Counter& counter) {
    counter.left = counter.even_left;
    if (counter.spread > 0)
      counter.left +=
          static_cast<std::int64_t>(chance.below(static_cast<std::uint32_t>(2 * counter.spread + 1))) -
          counter.spread;
    counter.left = std::max<std::int64_t>(counter.left, 1);
  }
  void add(Counter counter, std::int64_t ticks) {
    counter.number = added++;
    counter.even_left = ticks;
    set_left(counter);
    all.push_back(counter);
  }
  std::vector<std::string> pass() {
    std::vector<std::string> told;
    for (Counter& counter : all)
      if (!counter.stopped) {
        --counter.left;
        --counter.even_left;
      }
    // In the order in which they were set.
    std::sort(all.begin(), all.end(), [](const Counter& a, const Counter& b) { return a.number < b.number; });
    for (Counter& counter : all) {
      if (counter.stopped || counter.left > 0) continue;
      told.push_back(counter.name + std::to_string(counter.entity.index));
      if (counter.every == 0 || counter.times == 1) {
        counter.left = -1;
        continue;
      }
      if (counter.times > 0) --counter.times;
      counter.even_left += counter.every;
      set_left(counter);
    }
    std::erase_if(all, [](const Counter& counter) { return counter.left < 0; });
    return told;
  }
};

}  // namespace

TEST_CASE("timers come to what counters come to that are all looked at in each tick") {
  vole::Random chance(12);
  for (int round = 0; round < cases(200, 60); ++round) {
    CAPTURE(round);
    const std::uint64_t seed = chance.next_wide();
    vole::Timers timers;
    vole::Random drawn(seed);
    Counters counters;
    counters.chance = vole::Random(seed);
    const auto some_name = [&] { return std::string(1, static_cast<char>('a' + below(chance, 3))); };
    const auto some_thing = [&] { return Entity{static_cast<std::uint32_t>(below(chance, 3)), 1}; };
    for (int tick = 0; tick < 200; ++tick) {
      const std::string name = some_name();
      const Entity about = chance.chance(0.5f) ? some_thing() : Entity{};
      const auto meant = [&](const Counter& counter) {
        return counter.name == name && (!about || counter.entity == about);
      };
      switch (below(chance, 10)) {
        case 0:
        case 1:
        case 2: {
          Counter counter{name,
                          about,
                          0,
                          0,
                          below(chance, 2) * below(chance, 20),
                          below(chance, 2) * below(chance, 30),
                          below(chance, 4)};
          const std::int64_t ticks = 1 + below(chance, 30);
          timers.add({.name = name,
                      .entity = about,
                      .every = counter.every,
                      .spread = counter.spread,
                      .times = counter.times},
                     ticks, drawn);
          counters.add(counter, ticks);
          break;
        }
        case 3:
          timers.cancel(name, about);
          std::erase_if(counters.all, meant);
          break;
        case 4:
          timers.stop(name, about);
          for (Counter& counter : counters.all) counter.stopped = counter.stopped || meant(counter);
          break;
        case 5:
          timers.go_on(name, about);
          for (Counter& counter : counters.all) counter.stopped = counter.stopped && !meant(counter);
          break;
        case 6: {
          const Entity gone = some_thing();
          if (!chance.chance(0.2f)) break;
          timers.remove_of([&](Entity thing) { return thing == gone; });
          std::erase_if(counters.all, [&](const Counter& counter) { return counter.entity == gone; });
          break;
        }
        case 7: {
          vole::StateWriter out;
          write_state(out, timers);
          const vole::StateBytes bytes = out.take();
          timers = {};
          vole::StateReader in(bytes);
          read_state(in, timers);
          timers.find_due();
          break;
        }
        default:
          break;
      }
      std::vector<vole::Told> told;
      timers.pass(drawn, told);
      std::vector<std::string> names;
      for (const vole::Told& each : told) names.push_back(each.name + std::to_string(each.entity.index));
      REQUIRE(names == counters.pass());
      REQUIRE(timers.all().size() == counters.all.size());
      std::int64_t least = 0;
      bool any = false;
      for (const Counter& counter : counters.all)
        if (meant(counter)) {
          least = any ? std::min(least, counter.left) : counter.left;
          any = true;
        }
      REQUIRE(timers.left(name, about) == least);
      REQUIRE(timers.has(name, about) == any);
    }
  }
}

TEST_CASE("a scene's timers come again, so many times or for so long, can be asked, stopped and started") {
  TestStage small;
  TempFolder folder;
  write_small_game(folder);
  Stage& stage = small.start(folder);
  std::string told;
  small.say([&](vole::Cues& cues) {
    for (const char* name : {"a", "b", "c"}) cues.when_told(name, [&told, name](Stage&) { told += name; });
  });
  stage.every(0.1f, "a", {}, {.times = 3});
  stage.every(0.25f, "b", {}, {.lasts = 1});
  small.tick(600);
  CHECK(told == "aababbb");
  told.clear();
  stage.after(1, "c");
  small.tick(30);
  CHECK(stage.time_left("c") == 0.5f);
  stage.stop_timer("c");
  small.tick(500);
  CHECK(stage.time_left("c") == 0.5f);
  stage.start_timer("c");
  small.tick(29);
  CHECK(told.empty());
  CHECK(stage.has_timer("c"));
  small.tick();
  CHECK(told == "c");
  CHECK_FALSE(stage.has_timer("c"));
  CHECK(stage.time_left("c") == 0);
  // For less than once it never comes.
  stage.every(1, "a", {}, {.lasts = 0.5f});
  CHECK_FALSE(stage.has_timer("a"));
  CHECK_THROWS_AS(stage.every(1, "d"), vole::Error);
}

TEST_CASE("100,000 timers of one tick are all told") {
  vole::Timers timers;
  vole::Random chance(1);
  for (int i = 0; i < 100'000; ++i) timers.add({.name = "x"}, 5, chance);
  std::vector<vole::Told> told;
  for (int i = 0; i < 4; ++i) timers.pass(chance, told);
  CHECK(told.empty());
  timers.pass(chance, told);
  CHECK(told.size() == 100'000);
  CHECK(timers.all().empty());
}
