// What happens when: cues, timers, names that are told, steps of the game's own, and what scenes hand over.
#include <cmath>

#include "test_stage.hpp"
#include "vole/app/simulation.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/world.hpp"

namespace {

using vole::Entity;
using vole::Stage;
using vole::Vec2;

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

struct Small : TestStage {
  TempFolder folder;
  Stage* stage;
  Small() { stage = &((write_small_game(folder), start(folder))); }
};

// A described component without memory of its own.
struct Speck {
  Vec2 drift{1, 2};
  int age = 0;
};
template <class V>
void describe(V& v, Speck& speck) {
  v("drift", speck.drift);
  v.state("age", speck.age);
}

struct Note {
  std::string text;
};
template <class V>
void describe(V& v, Note& note) {
  v.state("text", note.text);
}
struct Coin {
  int worth = 3;
};
template <class V>
void describe(V& v, Coin& coin) {
  v.state("worth", coin.worth);
}

class Street : public vole::Scene {
 public:
  void tick(Stage& stage) override;
};
template <class V>
void describe(V&, Street&) {}

// Expects a coin.
class Shop : public vole::Scene {
 public:
  using Argument = Coin;
  void enter(Stage& stage) override { paid = stage.argument<Coin>().worth; }
  int paid = 0;
};
template <class V>
void describe(V& v, Shop& shop) {
  v.state("paid", shop.paid);
}

std::function<void(Stage&)> in_street;
void Street::tick(Stage& stage) {
  if (in_street) in_street(stage);
}

template <class S, class A>
concept LeavesWith = requires(Stage& stage, A argument) {
  stage.leave_for<S>(argument);
};

struct Streets {
  TempFolder folder;
  vole::Game game{"game.toml"};
  vole::Kinds kinds;
  std::unique_ptr<vole::Catalog> catalog;
  std::unique_ptr<vole::Simulation> simulation;

  Streets() {
    write_small_game(folder);
    game.scene<Street>("street").scene<Shop>("shop");
    kinds = vole::read_kinds(folder.path());
    catalog = std::make_unique<vole::Catalog>(folder.path());
    simulation = std::make_unique<vole::Simulation>(
        game, vole::SimulationSetting{*catalog, kinds, std::make_shared<const vole::Controls>()}, 1);
    simulation->ask_for("street");
    simulation->make_change();
  }
  ~Streets() { in_street = nullptr; }
  std::string tick(std::function<void(Stage&)> work) {
    in_street = std::move(work);
    return error_of([this] { simulation->tick({}); }, folder);
  }
};

}  // namespace

TEST_CASE("what is to come more often than a tick comes each tick") {
  for (const float seconds : {0.0f, 0.0001f, 0.01f}) {
    Small small;
    int calls = 0;
    small.say([&](vole::Cues& cues) { cues.every(seconds, [&](Stage&) { ++calls; }); });
    for (int tick = 0; tick < 10; ++tick) small.tick();
    CHECK(calls == 10);
  }
}

TEST_CASE("intervals come as often as their time says, for hours, at any length") {
  vole::Random chance(5);
  for (int round = 0; round < 20; ++round) {
    Small small;
    const float seconds = chance.within(0.005f, 2);
    std::int64_t calls = 0;
    small.say([&](vole::Cues& cues) { cues.every(seconds, [&](Stage&) { ++calls; }); });
    for (std::int64_t tick = 1; tick <= 3000; ++tick) {
      small.tick();
      const double due = std::min(static_cast<double>(tick) / (static_cast<double>(seconds) * 60),
                                  static_cast<double>(tick));
      REQUIRE(std::abs(static_cast<double>(calls) - std::floor(due + 1e-9)) <=
              (due == std::floor(due) ? 1 : 0));
    }
  }
}

TEST_CASE(
    "a timer tells its name once, when its time has come, unless it is cancelled or its thing has gone") {
  Small small;
  std::string told;
  small.say([&](vole::Cues& cues) {
    for (const char* name : {"a", "b", "c", "thing"})
      cues.when_told(name, [&told, name](Stage& stage, Entity about) {
        told.append(name).append(std::to_string(stage.ticks())).append(about ? "! " : " ");
      });
  });
  const Entity mouse = small.stage->spawn("mouse", {8, 8}), other = small.stage->spawn("mouse", {8, 8});
  small.stage->after(0.5f, "a");
  small.stage->after(0.1f, "b");
  small.stage->after(0.2f, "c");
  small.stage->after(0, "a");
  small.stage->after(0.3f, "thing", mouse);
  small.stage->after(0.3f, "thing", other);
  small.tick(10);
  small.stage->cancel("c");
  small.stage->remove(other);
  small.tick(60);
  // A tick that is under way has not been counted yet.
  CHECK(told == "a0 b5 thing17! a29 ");
  CHECK(small.running->world().timers.all().empty());
}

TEST_CASE("a timer may come sooner or later by chance, and then the same in each run") {
  const auto ticks_of = [](int seed) {
    Small small;
    small.running->world().random = vole::Random(static_cast<std::uint64_t>(seed));
    std::vector<std::int64_t> ticks;
    small.say([&](vole::Cues& cues) {
      cues.when_told("drip", [&](Stage& stage) {
        ticks.push_back(stage.ticks());
        stage.after(0.5f, "drip", {}, 0.2f);
      });
    });
    small.stage->tell("drip");
    small.tick(3000);
    return ticks;
  };
  const auto ticks = ticks_of(1);
  CHECK(ticks == ticks_of(1));
  CHECK(ticks != ticks_of(2));
  std::int64_t least = 1000, most = 0;
  for (std::size_t i = 1; i < ticks.size(); ++i) {
    least = std::min(least, ticks[i] - ticks[i - 1]);
    most = std::max(most, ticks[i] - ticks[i - 1]);
  }
  CHECK(least >= 18);
  CHECK(least < 21);
  CHECK(most <= 42);
  CHECK(most > 39);
}

TEST_CASE("what is told while names are told waits, so that two that tell each other come to an end") {
  Small small;
  int pings = 0;
  small.say([&](vole::Cues& cues) {
    cues.when_told("ping", [&](Stage& stage) {
      ++pings;
      stage.tell("pong");
    });
    cues.when_told("pong", [](Stage& stage) { stage.tell("ping"); });
  });
  small.stage->tell("ping");
  small.tick(50);
  CHECK(pings >= 25);
  CHECK(pings <= 100);
}

TEST_CASE("cues, timers and tweens go on after a restore as if nothing had happened") {
  Small small;
  std::string told;
  const auto cues = [&](vole::Cues& say) {
    say.every(0.11f, [&](Stage&) { told += "."; });
    say.when_told("drip", [&](Stage& stage) {
      told += "d";
      told += std::to_string(stage.random().below(10));
      stage.after(0.3f, "drip", {}, 0.25f);
    });
    say.when_told("turned", [&](Stage& stage, Entity mouse) {
      told += "t";
      stage.tween(mouse, &vole::Sprite::rotation)
          .to(static_cast<float>(stage.random().below(90)), 0.2f)
          .then(0, 0.1f, vole::Ease::back_out)
          .then_tell("turned");
    });
    say.when_meet("mouse", "crumb", [&](Stage&, Entity, Entity) { told += "m"; });
  };
  small.say(cues);
  small.stage->load_level("patch");
  const Entity mouse = small.stage->first("mouse");
  small.stage->entities().remove<vole::SideMover>(mouse);
  small.stage->tell("drip");
  small.stage->tell("turned", mouse);
  vole::Random chance(2);
  for (int round = 0; round < 20; ++round) {
    small.tick(static_cast<int>(chance.below(30)));
    // The mouse steps onto the crumb and off it: a meeting under way must not begin again.
    small.stage->get<vole::Pose>(mouse).at.x = chance.chance(0.5f) ? 104.0f : 20.0f;
    small.tick();
    const vole::StateBytes then = small.state();
    told.clear();
    small.tick(120);
    const std::string first = std::exchange(told, {});
    const vole::StateBytes end = small.state();
    vole::RunningScene again(*small.setting, small.game.steps(), small.game.scenes().get("cues"), {}, 99);
    vole::StateReader in(then);
    again.read(in);
    again.bind();
    for (int i = 0; i < 120; ++i) again.tick(small.input);
    REQUIRE(told == first);
    vole::StateWriter out;
    again.write(out);
    REQUIRE(out.take() == end);
  }
}

TEST_CASE("a game's own step comes after the one it names, and stands still with the things") {
  Small small;
  std::string order;
  small.game.step_after("movers", "wind", [&](Stage&) { order += "w"; });
  small.game.step_after("wind", "gust", [&](Stage&) { order += "g"; });
  small.game.step_after("scene", "score", [&](Stage&) { order += "s"; });
  small.tick(2);
  CHECK(order == "swgswg");
  small.stage->freeze(0.05f);
  order.clear();
  small.tick(4);
  CHECK(order == "sssswg");
  CHECK(error_of([&] { small.game.step_after("moovers", "x", {}); }, small.folder) ==
        "error: no step \"moovers\" in a tick; did you mean \"movers\"?");
}

TEST_CASE("what a scene hands over is what the next expects, or is refused with both names") {
  STATIC_REQUIRE(LeavesWith<Shop, Coin>);
  STATIC_REQUIRE_FALSE(LeavesWith<Shop, Note>);
  Streets streets;
  CHECK(streets.tick([](Stage& stage) { stage.leave_for("shop", Note{"a"}); })
            .find("the scene \"shop\" expects a Coin, not a Note") != std::string::npos);
  CHECK(has(streets.tick([](Stage& stage) { stage.leave_for("street", Coin{1}); }),
            "expects nothing, and is given a"));
  CHECK(has(streets.tick([](Stage& stage) { stage.leave_for("shp"); }),
            "no scene \"shp\"; did you mean \"shop\"?"));
  CHECK(has(streets.tick([](Stage& stage) { stage.leave_for<vole::Scene>(); }),
            "the game does not know the scene"));
  CHECK(streets.simulation->change() == nullptr);
  CHECK(streets.tick([](Stage& stage) { stage.leave_for<Shop>(Coin{7}); }).empty());
  // The change waits for its turn, and is part of the state until then.
  const vole::Snapshot waiting = streets.simulation->snapshot();
  const std::string written = streets.simulation->to_toml();
  streets.simulation->make_change();
  const auto paid = [&] { return dynamic_cast<const Shop&>(streets.simulation->running()->scene()).paid; };
  CHECK(paid() == 7);
  CHECK(has(error_of([&] { streets.simulation->stage().argument<Note>(); }, streets.folder), "was given a"));
  streets.simulation->restore(waiting);
  CHECK(streets.simulation->scene_name() == "street");
  streets.simulation->make_change();
  CHECK(paid() == 7);
  streets.simulation->restore_toml(vole::parse_toml(written, "state"));
  streets.simulation->make_change();
  CHECK(paid() == 7);
}

TEST_CASE("a checksum is of the last tick, whether the next scene has been entered or not") {
  Streets streets;
  streets.tick([](Stage&) {});
  streets.tick([](Stage& stage) { stage.leave_for("shop"); });
  const std::uint64_t before = streets.simulation->checksum();
  streets.simulation->make_change();
  CHECK(streets.simulation->checksum() == before);
  streets.simulation->tick({});
  CHECK(streets.simulation->checksum() != before);
}

TEST_CASE("bringing a thing to life takes no memory beyond what its components hold") {
  if (!allocations_are_counted()) return;
  Small small;
  small.game.knows<Speck>("speck");
  small.folder.write("kinds.toml", "[speck]\nspeck = { drift = [3, 4] }\nbody = { size = [2, 2] }\n");
  small.stage = &small.start(small.folder);
  // Once there were as many, there is room for them.
  const auto spawn_many = [&] {
    for (int i = 0; i < 500; ++i) small.stage->spawn("speck", {static_cast<float>(i), 4});
  };
  spawn_many();
  small.stage->entities().visit<Speck>([&](Entity entity, const Speck&) { small.stage->remove(entity); });
  small.tick();
  REQUIRE(small.stage->count("speck") == 0);
  const std::int64_t before = allocations_so_far();
  spawn_many();
  CHECK(allocations_so_far() == before);
  CHECK(small.stage->get<Speck>(small.stage->first("speck")).drift == Vec2{3, 4});
}

TEST_CASE("removing all of many things is one pass") {
  // Far more than a pass for each would let through in the time a test may take.
  Small small;
  for (int i = 0; i < 200'000; ++i) small.stage->spawn("crumb", {0, 0});
  small.stage->entities().visit<vole::KindOf>(
      [&](Entity entity, const vole::KindOf&) { small.stage->remove(entity); });
  small.tick();
  CHECK(small.stage->entities().count() == 0);
}
