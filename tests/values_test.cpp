// Values that tell when they change, values that all scenes share, and what a scene shows of them by itself.
#include "support.hpp"
#include "vole/app/game.hpp"
#include "vole/app/pile_picture.hpp"
#include "vole/app/printed_values.hpp"
#include "vole/app/simulation.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/asset/track.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/kinds.hpp"
#include "vole/vole.hpp"
#include "vole/world/world.hpp"

namespace {

using vole::Entity;
using vole::Stage;
using Texts = std::vector<std::string>;

struct Purse {
  int coins = 0;
};
template <class V>
void describe(V& v, Purse& purse) {
  v.state("coins", purse.coins);
}
struct Unknown {};
template <class V>
void describe(V&, Unknown&) {}

struct Health {
  int left = 3;
};
template <class V>
void describe(V& v, Health& health) {
  v("left", health.left);
}

Texts told;
const bool closed = false;
const int four = 4;

// Work is done to it by tests.
class Shelf : public vole::Scene {
 public:
  void enter(Stage& stage) override { stage.set_background({1, 2, 3, 255}); }
  void cues(vole::Cues& cues) override {
    cues.when_changes(jars,
                      [](Stage&, const int& before) { told.push_back("jars " + std::to_string(before)); });
    cues.when_changes(label, [this](Stage&) { told.push_back("label " + label); });
    cues.when_changes(cues.value<Purse>().coins, [](Stage&) { told.push_back("coins"); });
    cues.when_changes("crumb", &Health::left, [](Stage&, Entity thing, const int& before) {
      told.push_back("crumb " + std::to_string(thing.index) + " " + std::to_string(before));
    });
    if (say) say(cues, *this);
  }
  void shows(vole::Shown& shown) override {
    if (show) show(shown, *this);
  }
  void tick(Stage& stage) override {
    if (work) work(stage, *this);
  }
  void draw(vole::Drawing& drawing) const override {
    if (draws) draws(drawing);
  }

  int jars = 0;
  std::string label = "empty";
  bool open = true;
  static inline std::function<void(vole::Cues&, Shelf&)> say;
  static inline std::function<void(vole::Shown&, Shelf&)> show;
  static inline std::function<void(Stage&, Shelf&)> work;
  static inline std::function<void(vole::Drawing&)> draws;
};
template <class V>
void describe(V& v, Shelf& shelf) {
  v.state("jars", shelf.jars);
  v.state("label", shelf.label);
  v.state("open", shelf.open);
}

struct Shop {
  TempFolder folder;
  vole::Game game{"game.toml"};
  std::unique_ptr<vole::Catalog> catalog;
  vole::Kinds kinds;
  std::shared_ptr<const vole::Controls> controls;
  std::unique_ptr<vole::Simulation> simulation;

  Shop() {
    write_small_game(folder);
    folder.write("kinds.toml", "[crumb]\nhealth = {}\n[stone]\nhealth = {}\n");
    game.scene<Shelf>("shelf").knows<Health>("health").value<Purse>("purse");
    catalog = std::make_unique<vole::Catalog>(folder.path());
    kinds = vole::read_kinds(folder.path(), vole::Categories{});
    controls = std::make_shared<const vole::Controls>(vole::read_controls(folder.path("controls.toml")));
    begin();
  }
  ~Shop() {
    Shelf::say = nullptr;
    Shelf::show = nullptr;
    Shelf::work = nullptr;
    Shelf::draws = nullptr;
    told.clear();
  }
  std::unique_ptr<vole::Simulation> make() {
    return std::make_unique<vole::Simulation>(
        game, vole::SimulationSetting{*catalog, kinds, controls, {64, 32}, 60}, 1);
  }
  void begin() {
    told.clear();
    simulation = make();
    simulation->ask_for("shelf");
    simulation->make_change();
  }
  std::string tick(std::function<void(Stage&, Shelf&)> work = nullptr) {
    Shelf::work = std::move(work);
    return error_of(
        [&] {
          simulation->tick(vole::TickInput(controls));
          while (simulation->change()) simulation->make_change();
        },
        folder);
  }
  Texts heard() { return std::exchange(told, {}); }
  void restore(bool as_text) {
    auto other = make();
    const std::uint64_t checksum = simulation->checksum();
    if (as_text)
      other->restore_toml(vole::parse_toml(simulation->to_toml(), "state"));
    else
      other->restore(simulation->snapshot());
    REQUIRE(other->checksum() == checksum);
    REQUIRE(other->to_toml() == simulation->to_toml());
    simulation = std::move(other);
  }
  vole::Image picture() {
    vole::PilePicture pictures;
    vole::Image canvas({64, 32});
    pictures.draw(*simulation, game, *catalog, 1, {}, canvas);
    return canvas;
  }
};

}  // namespace

TEST_CASE("a value is told of once in each tick that leaves it changed, wherever a state is restored") {
  Shop shop;
  vole::Random chance(5);
  int jars = 0;
  std::map<std::uint32_t, int> left;  // of each crumb
  std::vector<Entity> things;
  for (int tick = 0; tick < cases(3000, 300); ++tick) {
    CAPTURE(tick);
    Texts expected;
    const int add = below(chance, 3) - 1;
    if (add != 0) expected.push_back("jars " + std::to_string(jars));
    jars += add;
    const bool pays = chance.chance(0.2f);
    if (pays) expected.push_back("coins");
    std::vector<std::pair<Entity, int>> hits;
    std::optional<Entity> gone;
    if (!things.empty() && chance.chance(0.2f))
      gone = things[static_cast<std::size_t>(below(chance, static_cast<int>(things.size())))];
    for (const Entity thing : things)
      if (chance.chance(0.3f)) hits.emplace_back(thing, below(chance, 3));
    const bool spawns = things.size() < 6 && chance.chance(0.3f);
    Entity spawned;
    REQUIRE(shop.tick([&](Stage& stage, Shelf& shelf) {
                  shelf.jars += 5;
                  shelf.jars += add - 5;
                  if (pays) stage.value<Purse>().coins += 1;
                  for (const auto& [thing, by] : hits) stage.get<Health>(thing).left -= by;
                  if (gone) stage.remove(*gone);
                  if (spawns) spawned = stage.spawn(chance.chance(0.5f) ? "crumb" : "stone", {10, 10});
                })
                .empty());
    if (gone) std::erase(things, *gone);
    for (const Entity thing : things) {
      const auto hit =
          std::find_if(hits.begin(), hits.end(), [&](const auto& each) { return each.first == thing; });
      if (hit == hits.end() || hit->second == 0) continue;
      const Stage& stage = shop.simulation->stage();
      if (stage.kind_of(thing) == "crumb")
        expected.push_back("crumb " + std::to_string(thing.index) + " " +
                           std::to_string(stage.get<Health>(thing).left + hit->second));
    }
    if (spawned) things.push_back(spawned);
    Texts heard = shop.heard();
    std::sort(heard.begin(), heard.end());
    std::sort(expected.begin(), expected.end());
    REQUIRE(heard == expected);
    if (chance.chance(0.1f)) shop.restore(chance.chance(0.3f));
  }
}

TEST_CASE("what handlers change is told in the same tick, and without end it is an error") {
  Shop shop;
  Shelf::say = [](vole::Cues& cues, Shelf& shelf) {
    cues.when_changes(shelf.jars, [&shelf](Stage& stage) {
      shelf.label = std::to_string(shelf.jars);
      if (shelf.jars == 3) stage.value<Purse>().coins = 9;
      if (shelf.jars >= 100) ++shelf.jars;
      if (shelf.jars == 50) throw std::runtime_error("too many jars");
    });
  };
  shop.begin();
  CHECK(shop.tick([](Stage&, Shelf& shelf) { shelf.jars = 3; }).empty());
  CHECK(shop.heard() == Texts{"jars 0", "label 3", "coins"});
  CHECK(shop.tick().empty());
  CHECK(shop.heard().empty());
  CHECK_THAT(shop.tick([](Stage&, Shelf& shelf) { shelf.jars = 50; }),
             Catch::Contains("when a value changed") && Catch::Contains("too many jars"));
  CHECK(shop.tick().empty());
  CHECK_THAT(shop.tick([](Stage&, Shelf& shelf) { shelf.jars = 100; }), Catch::Contains("without end"));
}

TEST_CASE("a change between two ticks is told at the end of the next, also after a restore") {
  for (const bool restored : {false, true}) {
    Shop shop;
    shop.simulation->stage().value<Purse>().coins = 4;
    if (restored) shop.restore(true);
    CHECK(shop.tick().empty());
    CHECK(shop.heard() == Texts{"coins"});
  }
}

TEST_CASE("values of the game are there for each scene, and are saved; one that is not named is an error") {
  Shop shop;
  const vole::Snapshot before = shop.simulation->snapshot();
  CHECK(shop.tick([](Stage& stage, Shelf&) {
              stage.value<Purse>().coins = 7;
              stage.leave_for("shelf");
            })
            .empty());
  CHECK(shop.simulation->stage().value<Purse>().coins == 7);
  CHECK_THAT(shop.simulation->to_toml(), Catch::Contains("[values.purse]\ncoins = 7\n"));
  shop.restore(true);
  CHECK(shop.simulation->values().get<Purse>().coins == 7);
  shop.simulation->restore(before);
  CHECK(shop.simulation->stage().value<Purse>().coins == 0);
  CHECK_THAT(shop.tick([](Stage& stage, Shelf&) { stage.value<Unknown>(); }),
             Catch::Contains("the game has no value of the class Unknown"));
  std::string text = shop.simulation->to_toml();
  text.replace(text.find("values.purse"), 12, "values.purs");
  CHECK_THAT(error_of([&] { shop.simulation->restore_toml(vole::parse_toml(text, "state")); }, shop.folder),
             Catch::Contains("no value \"purs\"") && Catch::Contains("\"purse\""));
  CHECK_THROWS_WITH(shop.game.value<Unknown>("purse"), Catch::Contains("defined twice"));
}

TEST_CASE("what a scene shows by itself is what it would draw by hand") {
  Shop shop;
  static const vole::Track hop{.name = "hop", .offset = {{0, {0, -4}}, {50'000, {0, -4}}}};
  const auto see = [&](auto show, auto draw) {
    Shelf::show = show;
    Shelf::draws = nullptr;
    shop.begin();
    CHECK(shop.tick([](Stage&, Shelf& shelf) { shelf.jars = 2; }).empty());
    const vole::Image by_itself = shop.picture();
    Shelf::show = nullptr;
    Shelf::draws = draw;
    shop.begin();
    CHECK(shop.tick().empty());
    CHECK(by_itself == shop.picture());
  };
  see(
      [](vole::Shown& shown, Shelf& shelf) {
        shown.text("plain", "{} jars", {4, 6}).of(shelf.jars);
      },
      [](vole::Drawing& drawing) {
        drawing.text("2 jars", {4, 6});
      });
  see(
      [](vole::Shown& shown, Shelf& shelf) {
        shown.text("plain", "{}", {-9, 6}).of(shelf.jars).plays(hop).from(vole::Anchor::top_right);
      },
      [](vole::Drawing& drawing) {
        drawing.text("2", {55, 2});
      });
  see(
      [](vole::Shown& shown, Shelf& shelf) {
        shown.row("mouse", 0, {}, 3, {6, 20}, {10, 0}).of(shelf.jars);
        shown.frame("mouse", 0, {50, 20});
        shown.text("plain", "never", {1, 1}).when(closed);
        shown.text("plain", "is", {40, 1}).when(shelf.open);
      },
      [](vole::Drawing& drawing) {
        drawing.frame("mouse", 0, {6, 20});
        drawing.frame("mouse", 0, {16, 20});
        drawing.frame("mouse", 0, {50, 20});
        drawing.text("is", {40, 1});
      });
  const vole::Colour full{9, 9, 9, 255}, low{8, 8, 8, 255}, back{7, 7, 7, 255};
  see(
      [&](vole::Shown& shown, Shelf& shelf) {
        shown.bar({{4, 4}, {22, 6}}, {.full = full, .low = low, .low_at = 0.2f, .back = back})
            .of(shelf.jars, four);
        shown
            .bar({{4, 12}, {22, 6}},
                 {.full = full, .low = low, .low_at = 0.6f, .back = back, .grows = vole::Direction::left})
            .of(shelf.jars, four);
      },
      [&](vole::Drawing& drawing) {
        drawing.list().fill(drawing.layer(), {{4, 4}, {22, 6}}, back);
        drawing.list().fill(drawing.layer(), {{5, 5}, {10, 4}}, full);
        drawing.list().fill(drawing.layer(), {{4, 12}, {22, 6}}, back);
        drawing.list().fill(drawing.layer(), {{15, 13}, {10, 4}}, low);
      });
}

TEST_CASE("a value of the game is printed by its name") {
  Shop shop;
  shop.simulation->stage().value<Purse>().coins = 12;
  const auto line = [&](const char* path) {
    return vole::PrintedValues(path).line(*shop.simulation, shop.game.types());
  };
  CHECK(line("values.purse.coins") == "values.purse.coins = 12");
  CHECK(line("values.purse") == "values.purse = { coins = 12 }");
  CHECK_THROWS_WITH(line("values.purs"), Catch::Contains("did you mean \"purse\"?"));
  CHECK_THROWS_WITH(line("values"), Catch::Contains("which value of the game is missing"));
}

TEST_CASE("what is watched and shown allocates nothing while nothing changes") {
  if (!allocations_are_counted()) return;
  Shop shop;
  static const vole::Track hop{.name = "hop", .offset = {{0, {0, -4}}, {50'000, {0, 0}}}};
  Shelf::show = [](vole::Shown& shown, Shelf& shelf) {
    shown.text("plain", "a long text that is no short string, {}", {0, 0})
        .of(shelf.jars, shelf.label)
        .plays(hop);
    shown.bar({{4, 4}, {22, 6}}).of(shelf.jars, four).plays(hop);
  };
  shop.begin();
  for (int i = 0; i < 20; ++i) shop.simulation->stage().spawn("crumb", {8, 8});
  vole::PilePicture pictures;
  vole::Image canvas({64, 32});
  const vole::TickInput input(shop.controls);
  const auto frame = [&] {
    shop.simulation->tick(input);
    pictures.draw(*shop.simulation, shop.game, *shop.catalog, 1, {}, canvas);
  };
  for (int i = 0; i < 10; ++i) frame();
  const std::int64_t before = allocations_so_far();
  for (int i = 0; i < 50; ++i) frame();
  CHECK(allocations_so_far() == before);
}
