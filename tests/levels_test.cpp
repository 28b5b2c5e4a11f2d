// A scene that goes from one level to another and back: what stayed goes on as if no time had passed for it.
#include "vole/scene/steps.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/left_level.hpp"
#include "yard.hpp"

namespace {

using vole::Entity;
using vole::LeftBehind;
using vole::Stage;
using vole::Steps;

// A yard with a shed, which is a level too.
struct House : Yard {
  std::string told;

  House()
      : Yard(R"([cart]
body = { size = [10, 10], category = "walkers" }
side_mover = { speed = 60 }
routine = { steps = ["0.7 right", "0.4 left jump", "0.3"], loop = true }
[pilot]
body = { size = [10, 10], category = "walkers" }
side_mover = {}
player = {}
[lantern]
sprite = { sheet = "lantern", layer = "ground" }
[bearer]
sprite = { sheet = "lantern", layer = "ground" }
body = { size = [10, 10], category = "walkers" }
side_mover = {}
carries = { top = "lantern" }
)") {
    folder.write("controls.toml",
                 "[actions]\njump = [\"key Space\"]\n"
                 "[axes.walk]\nless = [\"key KeyA\"]\nmore = [\"key KeyD\"]\n"
                 "[players.2.actions]\njump = [\"key ArrowUp\"]\n"
                 "[players.2.axes.walk]\nless = [\"key ArrowLeft\"]\nmore = [\"key ArrowRight\"]\n");
    folder.write_picture("assets/lantern.png", {8, 8}, {0xff, 0xd9, 0x8a, 0xff});
    folder.write("assets/lantern.sheet.toml", "frame = { size = [8, 8] }\n[points.top]\nat = [4, 0]\n");
    std::string level = vole::read_text(folder.path("levels/yard.level.toml"), 1 << 20);
    folder.write("levels/yard.level.toml",
                 level + "[[places]]\nname = \"gate\"\nkind = \"door\"\nat = [600, 240]\n");
    folder.write("levels/shed.level.toml",
                 level +
                     "[[places]]\nname = \"inside\"\nkind = \"door\"\nat = [40, 240]\n"
                     "[[places]]\nkind = \"bulb\"\nat = [200, 200]\n"
                     "[[places]]\nname = \"corner\"\nat = [90, 240]\n"
                     "[[places]]\nkind = \"pilot\"\nat = [60, 240]\n"
                     "[[places]]\nkind = \"pilot\"\nat = [70, 240]\nplayer = { number = 2 }\n"
                     "[[zones]]\nname = \"way back\"\narea = [80, 200, 20, 60]\n");
    stage = &start(folder);
    stage->load_level("yard");
    say([this](vole::Cues& cues) {
      cues.when_told("a", [this](Stage&) { told += "a"; });
      cues.when_arrived("shed", [this](Stage&) { told += "s"; });
      cues.when_arrived("yard", [this](Stage&) { told += "y"; });
    });
  }
  // Over there, and one tick of it.
  void go(const char* level, const char* place, Entity traveller, LeftBehind left = LeftBehind::kept) {
    stage->go_to_level(level, place, {traveller}, left);
    running->go_to_level(running->change()->to);
    running->ask(std::nullopt);
    tick();
  }
  void restore() {
    const vole::StateBytes bytes = state();
    const std::string text = running->to_toml();
    enter();
    stage = &running->stage();
    vole::StateReader in(bytes);
    running->read(in);
    running->bind();
    REQUIRE(state() == bytes);
    REQUIRE(running->to_toml() == text);
  }
};

}  // namespace

TEST_CASE("what stayed in a level goes on as if the scene had never left, whatever was done meanwhile") {
  constexpr int ticks = 200;
  std::vector<vole::Vec2> usual;
  for (const int away_after : {-1, 0, 30, 77, 150}) {
    CAPTURE(away_after);
    House house;
    const Entity cart = house.stage->spawn("cart", {200, 240}),
                 hero = house.stage->spawn("walker", {100, 240});
    house.stage->tween(cart, &vole::SideMover::speed).to(20, 2.5f);
    house.stage->after(2, "a", cart);
    house.stage->start_sequence("x", Steps().wait(1).repeat(3, Steps().wait(0.2f).tell("a")), cart);
    house.stage->level().put("ground", {3, 3}, "soil");
    const vole::Vec2 hero_at = house.stage->get<vole::Pose>(hero).at;
    for (int tick = 0; tick < ticks; ++tick) {
      if (tick == away_after) {
        house.go("shed", "inside", hero);
        CHECK(house.stage->level().name() == "shed");
        CHECK(house.told.ends_with('s'));
        CHECK(house.stage->count("cart") == 0);
        CHECK(house.stage->count("bulb") == 1);
        CHECK_FALSE(house.stage->removed(cart));
        CHECK(house.stage->get<vole::Pose>(hero).at == vole::Vec2{40, 240});
        const std::size_t told = house.told.size();
        for (int i = 0; i < 50; ++i) {
          house.tick();
          if (i % 9 == 0) house.restore();
          house.stage->spawn("crate", {300, 200});
        }
        CHECK(house.told.size() == told);
        house.go("yard", "gate", hero, LeftBehind::forgotten);
        CHECK(house.told.ends_with('y'));
        CHECK(house.stage->count("crate") == 0);
        std::erase(house.told, 's');
        std::erase(house.told, 'y');
        CHECK(house.stage->level().tile("ground", {3, 3}) == "soil");
        house.stage->get<vole::Pose>(hero).at = hero_at;
      } else {
        house.tick();
      }
      const vole::Vec2 at = house.stage->get<vole::Pose>(cart).at;
      if (away_after < 0)
        usual.push_back(at);
      else
        REQUIRE(at == usual[static_cast<std::size_t>(tick)]);
    }
    CHECK(house.told == "aaaa");
  }
}

TEST_CASE(
    "what the traveller carries comes along, a kept level is there again, and a forgotten one begins anew") {
  House house;
  Stage& stage = *house.stage;
  const Entity bearer = stage.spawn("bearer", {100, 240});
  CHECK(stage.count("lantern") == 1);
  house.go("shed", "inside", bearer);
  CHECK(stage.count("lantern") == 1);
  const Entity bulb = stage.first("bulb");
  stage.remove(bulb);
  house.tick();
  for (const LeftBehind left : {LeftBehind::kept, LeftBehind::forgotten}) {
    house.go("yard", "gate", bearer, left);
    CHECK(stage.count("bulb") == 0);
    house.go("shed", "inside", bearer);
    CHECK(stage.count("bulb") == (left == LeftBehind::kept ? 0 : 1));
  }
  CHECK_THROWS_WITH(stage.go_to_level("shet", "inside", {}), Catch::Contains("did you mean \"shed\"?"));
  CHECK_THROWS_WITH(stage.go_to_level("yard", "gaet", {}), Catch::Contains("did you mean \"gate\"?"));
}

TEST_CASE("a place of the player that arrives stays empty, and what lies where it arrives is met later") {
  House house;
  Stage& stage = *house.stage;
  const Entity pilot = stage.spawn("pilot", {100, 240});
  int met = 0, lasts = 0;
  house.say([&](vole::Cues& cues) {
    cues.when_meet("pilot", vole::zone("way back"), [&met](Stage&, Entity, Entity) { ++met; });
    cues.while_touching("pilot", vole::zone("way back"), [&lasts](Stage&, Entity, Entity) { ++lasts; });
  });
  house.go("shed", "corner", pilot);
  // The second player's own comes to life.
  CHECK(stage.count("pilot") == 2);
  house.tick(5);
  CHECK(met == 0);
  CHECK(lasts == 0);
  house.restore();
  Stage& same = *house.stage;
  same.get<vole::Pose>(pilot).at = {150, 240};
  house.tick(2);
  same.get<vole::Pose>(pilot).at = {90, 240};
  house.tick(3);
  CHECK(met == 1);
  CHECK(lasts == 3);
  // A mere place brings nothing to life, and is found by its name.
  CHECK_FALSE(same.named("corner"));
  CHECK(same.place("corner") == vole::Vec2{90, 240});
}

TEST_CASE("what is done to a level that is left counts when the scene comes back") {
  House house;
  const Entity cart = house.stage->spawn("cart", {200, 240}), hero = house.stage->spawn("walker", {100, 240}),
               other = house.stage->spawn("cart", {300, 240});
  house.stage->after(2, "a", cart);
  house.go("shed", "inside", hero);
  // Removed by its id, with what was to be told about it; also what is loaded anew is not what was kept.
  house.stage->remove(cart);
  house.tick();
  CHECK(house.stage->removed(cart));
  house.go("yard", "gate", hero);
  CHECK(house.stage->count("cart") == 1);
  house.tick(200);
  CHECK(house.told == "sy");
  house.go("shed", "inside", hero);
  house.stage->load_level("yard");
  house.tick();
  CHECK(house.stage->removed(other));
  CHECK(house.stage->count("cart") == 0);
  CHECK(house.stage->world().left.empty());
}
