// Tracks that change any described field, for what is drawn only.
#include <algorithm>

#include "sheet_stage.hpp"
#include "vole/base/field.hpp"

namespace {

using vole::Vec2;

struct Lamp {
  float reach = 20;
  int sparks = 3;
  double heat = 0.1;
  Vec2 sway{1, 2};
  vole::Colour light{10, 20, 30, 255};
  bool lit = true;
  std::string maker = "Otter";
};
template <class V>
void describe(V& v, Lamp& lamp) {
  v("reach", lamp.reach, vole::within(0, 50));
  v("sparks", lamp.sparks, vole::within(0, 9));
  v("heat", lamp.heat);
  v("sway", lamp.sway);
  v("lit", lamp.lit);
  v("maker", lamp.maker);
  v.state("light", lamp.light);
}

bool same(const Lamp& a, const Lamp& b) {
  return a.reach == b.reach && a.sparks == b.sparks && a.heat == b.heat && a.sway == b.sway &&
         a.light == b.light;
}

const std::string flare =
    "[clips.idle]\nframes = [0]\n[clips.burn]\nframes = [1]\ntracks = [\"glow\"]\n"
    "[tracks.flare.fields]\n\"lamp.reach\" = [{ at = 0, value = 0 }, { at = 0.5, value = 8 }]\n"
    "\"lamp.light\" = [{ at = 0, value = \"#000000\" }, { at = 0.5, value = \"#ffffff\" }]\n"
    "[tracks.glow]\nloop = true\n[tracks.glow.fields]\n"
    "\"lamp.sparks\" = [{ at = 0, value = 0, ease = \"stepped\" }, { at = 0.2, value = 2.4 }, { at = 0.4, "
    "value = 0 }]\n"
    "\"lamp.heat\" = [{ at = 0, value = 0.7 }, { at = 0.4, value = 0.3 }]\n"
    "\"lamp.sway\" = [{ at = 0, value = [3, -3] }, { at = 0.3, value = [0, 0] }]\n"
    "\"lamp.reach\" = [{ at = 0, value = 100 }, { at = 0.4, value = 0 }]\n";

struct Lit : SheetStage {
  explicit Lit(const std::string& sheet = flare)
      : SheetStage(sheet, {}, "lamp = {}\n", [](vole::Game& own) { own.knows<Lamp>("lamp"); }) {}
  // The lamp as it is while a picture is drawn.
  Lamp shown() {
    Lamp seen;
    CueScene::look = [this, &seen] { seen = lamp(); };
    drawn();
    CueScene::look = nullptr;
    return seen;
  }
  Lamp& lamp() { return stage->get<Lamp>(mouse); }
};

}  // namespace

TEST_CASE("numbers, pairs and colours of a struct are found by name, and put within what they may be") {
  const auto& fields = vole::numeric_fields<Lamp>();
  std::string names;
  for (const vole::FieldInfo& field : fields) names += field.name + " " + std::to_string(field.parts) + " ";
  CHECK(names == "reach 1 sparks 1 heat 1 sway 2 light 4 ");
  Lamp lamp;
  vole::FieldRef reach = vole::field_at(lamp, 0), sparks = vole::field_at(lamp, 1),
                 light = vole::field_at(lamp, 4);
  CHECK(reach.value().x == 20);
  reach.put({70, 0, 0, 0});
  CHECK(lamp.reach == 50);
  sparks.put({4.6f, 0, 0, 0});
  CHECK(lamp.sparks == 5);
  light.put({300, -4, 7.5f, 255});
  CHECK(lamp.light == vole::Colour{255, 0, 8, 255});
  CHECK_FALSE(vole::field_at(lamp, 5));
}

TEST_CASE("a track shows a field otherwise while a picture is drawn, and only then") {
  Lit lit;
  lit.spawn();
  lit.sprite().play_track("flare");
  lit.tick(15);
  CHECK(lit.lamp().reach == 20);
  CHECK(lit.shown().reach == 24);
  CHECK(lit.shown().light == vole::Colour{128, 128, 128, 255});
  CHECK(lit.lamp().reach == 20);
  lit.lamp().reach += 1;
  CHECK(lit.shown().reach == 25);
  lit.tick(16);
  CHECK(same(lit.shown(), lit.lamp()));
  CHECK(lit.lamp().reach == 21);
  // While all stand still, what is shown stays.
  lit.sprite().play_track("flare", 0.5f);
  lit.tick(15);
  lit.stage->freeze(0.1f);
  lit.tick(3);
  CHECK(lit.shown().reach == 23);
}

TEST_CASE("drawing changes nothing, whatever plays, changes or leaves meanwhile") {
  Lit lit;
  lit.spawn();
  vole::Random chance(12);
  int shown_otherwise = 0;
  for (int round = 0; round < 4000; ++round) {
    switch (chance.below(8)) {
      case 0:
        lit.sprite().play_track("flare", chance.within(0, 2));
        break;
      case 1:
        lit.sprite().play_track("glow");
        break;
      case 2:
        lit.sprite().play("burn");
        break;
      case 3:
        lit.sprite().play("idle");
        break;
      case 4:
        lit.sprite().stop_tracks();
        break;
      case 5:
        lit.lamp().reach = chance.within(0, 50);
        break;
      case 6:
        lit.lamp().heat += 0.1;
        break;
      default:
        break;
    }
    lit.tick();
    const vole::StateBytes before = lit.state();
    const Lamp shown = lit.shown();
    REQUIRE(lit.state() == before);
    REQUIRE(shown.reach <= 50);
    if (!same(shown, lit.lamp())) ++shown_otherwise;
    const bool plays = std::any_of(lit.sprite().playing.tracks.begin(), lit.sprite().playing.tracks.end(),
                                   [](const auto& playing) { return playing.track != nullptr; });
    if (!plays && lit.clip() != "burn") REQUIRE(same(shown, lit.lamp()));
  }
  CHECK(shown_otherwise > 1000);
  // The component or the thing may go in the middle of it.
  lit.sprite().play("burn");
  lit.tick();
  lit.stage->entities.remove<Lamp>(lit.mouse);
  lit.drawn();
  lit.tick();
  lit.stage->entities.add(lit.mouse, Lamp{});
  lit.drawn();
  lit.stage->remove(lit.mouse);
  lit.drawn();
  lit.tick(2);
  CHECK(lit.stage->entities.count() == 0);
}

TEST_CASE("a steady frame with tracks on fields allocates nothing") {
  if (!allocations_are_counted()) return;
  Lit lit;
  lit.spawn();
  lit.sprite().play("burn");
  vole::DrawList list;
  const auto frames = [&](int count) {
    for (int i = 0; i < count; ++i) {
      lit.tick();
      list.start({64, 32});
      lit.running->draw(list, 1);
    }
  };
  frames(10);
  const std::int64_t before = allocations_so_far();
  frames(200);
  CHECK(allocations_so_far() == before);
}

TEST_CASE("a track on a field that is none is reported at its place when a thing shows the sheet") {
  const auto wrong = [](const std::string& field, const std::string& value) {
    Lit lit("[tracks.t.fields]\n\"" + field + "\" = [{ at = 1, value = " + value + " }]\n");
    return error_of([&] { lit.spawn(); }, lit.folder);
  };
  const std::string at = "assets/mouse.sheet.toml:3:1: error: ";
  CHECK(wrong("lamp.reach", "1").empty());
  CHECK(wrong("lampp.reach", "1") == at + "no component \"lampp\"; did you mean \"lamp\"?");
  CHECK(wrong("lamp.raech", "1") ==
        at + "\"lamp\" has no number, pair or colour \"raech\"; did you mean \"reach\"?");
  CHECK(wrong("lamp.lit", "1").find(at + "\"lamp\" has no number, pair or colour \"lit\"") == 0);
  CHECK(wrong("lamp.reach", "[1, 2]") == at + "\"reach\" of \"lamp\" is a number");
  CHECK(wrong("lamp.light", "2") == at + "\"light\" of \"lamp\" is a colour");
  CHECK(wrong("lamp", "2") == at + "\"lamp\" names no field; one is \"component.field\", as \"body.size\"");
  CHECK(wrong("lamp.reach", "1 }, { at = 2, value = [1, 2]").find("3:58: error: a number wanted here") !=
        std::string::npos);
  CHECK(wrong("lamp.reach", "inf").find("a finite number wanted") != std::string::npos);
  CHECK(wrong("lamp.reach", "true").find("number") != std::string::npos);
}
