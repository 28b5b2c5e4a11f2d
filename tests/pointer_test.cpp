// What the pointer is on, what is clicked, and what goes along with it.
#include <array>

#include "test_stage.hpp"
#include "vole/input/gather.hpp"
#include "vole/world/body.hpp"

namespace {

using Catch::Contains;
using vole::Entity;
using vole::Vec2;

struct Table : TestStage {
  TempFolder folder;
  std::optional<vole::InputGather> gather;
  std::vector<Entity> cards;

  explicit Table(bool pointer = true) {
    write_small_game(folder);
    folder.write("controls.toml", std::string(pointer ? "pointer = true\n" : "") +
                                      "[actions]\nselect = [\"mouse left\"]\nother = [\"mouse right\"]\n");
    folder.write("kinds.toml",
                 "[card]\nsprite = { sheet = \"mouse\" }\nbody = { size = [8, 8], use = \"sensor\" }\n"
                 "[stone]\nsprite = { sheet = \"mouse\" }\nbody = { size = [8, 8] }\n");
    start(folder).camera().jump_to({32, 16});  // its top left is the canvas's
    gather.emplace(setting->controls);
  }
  void next() {
    input = gather->latch();
    tick();
  }
  void press(const char* button, bool down) {
    gather->add({*vole::find_control(button), down ? 1.0f : 0.0f});
  }
};

}  // namespace

TEST_CASE("the pointer is on the thing that is drawn last there, whatever the zoom") {
  vole::Random chance(51);
  Table table;
  vole::Stage& stage = table.running->stage();
  for (int i = 0; i < 40; ++i) {
    // Never with a side on the middle of a pixel of the canvas.
    const float x = static_cast<float>(below(chance, 256)) / 4 + 0.0625f;
    const float y = static_cast<float>(below(chance, 160)) / 4 + 0.0625f;
    table.cards.push_back(stage.spawn(i % 2 == 0 ? "card" : "stone", {x, y}));
    stage.get<vole::Sprite>(table.cards.back()).depth = static_cast<float>(below(chance, 5));
  }
  int on_something = 0;
  for (int i = 0; i < 300; ++i) {
    stage.camera().zoom = static_cast<float>(1 << below(chance, 3));
    stage.camera().jump_to({chance.within(20, 40), chance.within(10, 20)});
    const float x = chance.within(0, 64), y = chance.within(0, 32);
    table.gather->point_at(Vec2{x, y});
    table.next();
    const Vec2 at = stage.pointer();
    Entity top;
    float depth = -1;
    for (const Entity card : table.cards) {
      const float its = stage.get<vole::Sprite>(card).depth;
      if (!stage.box(card).contains(at) || its < depth) continue;
      top = card;
      depth = its;
    }
    CAPTURE(i, at.x, at.y);
    REQUIRE(stage.under_pointer() == top);
    on_something += top ? 1 : 0;
  }
  CHECK(on_something > 100);
  table.gather->point_at(std::nullopt);
  table.next();
  CHECK_FALSE(stage.under_pointer());
}

TEST_CASE("what is clicked is told once, and only what was meant") {
  Table table;
  vole::Stage& stage = table.running->stage();
  const Entity card = stage.spawn("card", {20, 20}), stone = stage.spawn("stone", {40, 20});
  std::vector<Entity> clicked, other;
  table.say([&](vole::Cues& cues) {
    cues.when_clicked("card", "select", [&](vole::Stage&, Entity which) { clicked.push_back(which); });
    cues.when_clicked("stone", "other", [&](vole::Stage& at, Entity which) {
      other.push_back(which);
      at.remove(which);
    });
    CHECK_THROWS_WITH(cues.when_clicked("crad", "select", [](vole::Stage&, vole::Entity) {}),
                      Contains("did you mean \"card\"?"));
  });
  const auto press_at = [&](Vec2 at, const char* button) {
    table.gather->point_at(at);
    table.press(button, true);
    table.next();
    table.next();
    table.press(button, false);
    table.next();
  };
  press_at({20, 18}, "mouse left");
  CHECK(clicked == std::vector<Entity>{card});
  press_at({20, 18}, "mouse right");
  press_at({40, 18}, "mouse left");
  press_at({60, 5}, "mouse left");
  CHECK(clicked.size() == 1);
  CHECK(other.empty());
  press_at({40, 18}, "mouse right");
  CHECK(other == std::vector<Entity>{stone});
  press_at({40, 18}, "mouse right");
  CHECK(other.size() == 1);
}

TEST_CASE(
    "a thing that is dragged keeps its place under the pointer until it is let go, and after a restore too") {
  Table table;
  vole::Stage& stage = table.running->stage();
  const Entity card = stage.spawn("card", {20, 20});
  int dropped = 0;
  table.say([&](vole::Cues& cues) {
    cues.drag("card", "select", [&](vole::Stage&, Entity which) { dropped += which == card ? 1 : 100; });
  });
  table.gather->point_at(Vec2{22, 17});
  table.press("mouse left", true);
  table.next();
  const Vec2 grip = stage.get<vole::Pose>(card).at - stage.pointer();
  vole::Random chance(52);
  for (int i = 0; i < 50; ++i) {
    const float x = chance.within(0, 64), y = chance.within(0, 32);
    table.gather->point_at(Vec2{x, y});
    if (i == 20) {
      const vole::StateBytes before = table.state();
      table.enter();
      vole::StateReader in(before);
      table.running->read(in);
      table.running->bind();
      REQUIRE(table.state() == before);
    }
    table.next();
    vole::Stage& now = table.running->stage();
    REQUIRE(now.get<vole::Pose>(card).at == now.pointer() + grip);
  }
  CHECK(dropped == 0);
  table.press("mouse left", false);
  table.next();
  CHECK(dropped == 1);
  const Vec2 lies = table.running->stage().get<vole::Pose>(card).at;
  table.gather->point_at(Vec2{1, 1});
  table.next();
  CHECK(table.running->stage().get<vole::Pose>(card).at == lies);
  CHECK(dropped == 1);
}

TEST_CASE("a finger that taps between two ticks points where it tapped, and then nowhere") {
  Table table;
  table.gather->add(vole::FingerEvent{1, vole::FingerPhase::down, {20, 18}});
  table.gather->add(vole::FingerEvent{1, vole::FingerPhase::up, {20, 18}});
  table.next();
  const vole::Stage& stage = table.running->stage();
  CHECK(stage.input().pointer() == vole::Pointer{{20, 18}, true, {0, 0}});
  table.next();
  CHECK_FALSE(stage.input().pointer().inside);
}

TEST_CASE("a game that asks for the pointer without saying so is told") {
  Table table(false);
  vole::Stage& stage = table.running->stage();
  CHECK_THROWS_WITH(stage.pointer(),
                    Contains("controls.toml: error: the game asks for the pointer; add at its top: "
                             "pointer = true"));
  CHECK_THROWS_WITH(stage.under_pointer(), Contains("pointer = true"));
}
