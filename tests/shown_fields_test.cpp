// Tracks that change any described field, for what is drawn only.
#include <algorithm>

#include "sheet_stage.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/field.hpp"

namespace {

using vole::Vec2;

struct Torch {
  float reach = 20;
  int sparks = 3;
  double heat = 0.1;
  Vec2 sway{1, 2};
  vole::Colour light{10, 20, 30, 255};
  bool lit = true;
  std::string maker = "Otter";
};
template <class V>
void describe(V& v, Torch& torch) {
  v("reach", torch.reach, vole::within(0, 50));
  v("sparks", torch.sparks, vole::within(0, 9));
  v("heat", torch.heat);
  v("sway", torch.sway);
  v("lit", torch.lit);
  v("maker", torch.maker);
  v.state("light", torch.light);
}

bool same(const Torch& a, const Torch& b) {
  return a.reach == b.reach && a.sparks == b.sparks && a.heat == b.heat && a.sway == b.sway &&
         a.light == b.light;
}

const std::string flare =
    "[clips.idle]\nframes = [0]\n[clips.burn]\nframes = [1]\ntracks = [\"glow\"]\n"
    "[tracks.flare.fields]\n\"torch.reach\" = [{ at = 0, value = 0 }, { at = 0.5, value = 8 }]\n"
    "\"torch.light\" = [{ at = 0, value = \"#000000\" }, { at = 0.5, value = \"#ffffff\" }]\n"
    "[tracks.glow]\nloop = true\n[tracks.glow.fields]\n"
    "\"torch.sparks\" = [{ at = 0, value = 0, ease = \"stepped\" }, { at = 0.2, value = 2.4 }, { at = 0.4, "
    "value = 0 }]\n"
    "\"torch.heat\" = [{ at = 0, value = 0.7 }, { at = 0.4, value = 0.3 }]\n"
    "\"torch.sway\" = [{ at = 0, value = [3, -3] }, { at = 0.3, value = [0, 0] }]\n"
    "\"torch.reach\" = [{ at = 0, value = 100 }, { at = 0.4, value = 0 }]\n";

struct Lit : SheetStage {
  explicit Lit(const std::string& sheet = flare)
      : SheetStage(sheet, {}, "torch = {}\n", [](vole::Game& own) { own.knows<Torch>("torch"); }) {}
  // The torch as it is while a picture is drawn.
  Torch shown() {
    Torch seen;
    CueScene::look = [this, &seen] { seen = torch(); };
    drawn();
    CueScene::look = nullptr;
    return seen;
  }
  Torch& torch() { return stage->get<Torch>(mouse); }
};

}  // namespace

TEST_CASE("numbers, pairs and colours of a struct are found by name, and put within what they may be") {
  const auto& fields = vole::numeric_fields<Torch>();
  std::string names;
  for (const vole::FieldInfo& field : fields) names += field.name + " " + std::to_string(field.parts) + " ";
  CHECK(names == "reach 1 sparks 1 heat 1 sway 2 light 4 ");
  Torch torch;
  vole::FieldRef reach = vole::field_at(torch, 0), sparks = vole::field_at(torch, 1),
                 light = vole::field_at(torch, 4);
  CHECK(reach.value().x == 20);
  reach.put({70, 0, 0, 0});
  CHECK(torch.reach == 50);
  sparks.put({4.6f, 0, 0, 0});
  CHECK(torch.sparks == 5);
  light.put({300, -4, 7.5f, 255});
  CHECK(torch.light == vole::Colour{255, 0, 8, 255});
  CHECK_FALSE(vole::field_at(torch, 5));
}

TEST_CASE("a track shows a field otherwise while a picture is drawn, and only then") {
  Lit lit;
  lit.spawn();
  lit.sprite().play_track("flare");
  lit.tick(15);
  CHECK(lit.torch().reach == 20);
  CHECK(lit.shown().reach == 24);
  CHECK(lit.shown().light == vole::Colour{128, 128, 128, 255});
  CHECK(lit.torch().reach == 20);
  lit.torch().reach += 1;
  CHECK(lit.shown().reach == 25);
  lit.tick(16);
  CHECK(same(lit.shown(), lit.torch()));
  CHECK(lit.torch().reach == 21);
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
        lit.torch().reach = chance.within(0, 50);
        break;
      case 6:
        lit.torch().heat += 0.1;
        break;
      default:
        break;
    }
    lit.tick();
    const vole::StateBytes before = lit.state();
    const Torch shown = lit.shown();
    REQUIRE(lit.state() == before);
    REQUIRE(shown.reach <= 50);
    if (!same(shown, lit.torch())) ++shown_otherwise;
    const bool plays = std::any_of(lit.sprite().playing.tracks.begin(), lit.sprite().playing.tracks.end(),
                                   [](const auto& playing) { return playing.track != nullptr; });
    if (!plays && lit.clip() != "burn") REQUIRE(same(shown, lit.torch()));
  }
  CHECK(shown_otherwise > 1000);
  // The component or the thing may go in the middle of it.
  lit.sprite().play("burn");
  lit.tick();
  lit.stage->entities().remove<Torch>(lit.mouse);
  lit.drawn();
  lit.tick();
  lit.stage->entities().add(lit.mouse, Torch{});
  lit.drawn();
  lit.stage->remove(lit.mouse);
  lit.drawn();
  lit.tick(2);
  CHECK(lit.stage->entities().count() == 0);
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
  CHECK(wrong("torch.reach", "1").empty());
  CHECK(wrong("torchh.reach", "1") == at + "no component \"torchh\"; did you mean \"torch\"?");
  CHECK(wrong("torch.raech", "1") ==
        at + "\"torch\" has no number, pair or colour \"raech\"; did you mean \"reach\"?");
  CHECK(wrong("torch.lit", "1").find(at + "\"torch\" has no number, pair or colour \"lit\"") == 0);
  CHECK(wrong("torch.reach", "[1, 2]") == at + "\"reach\" of \"torch\" is a number");
  CHECK(wrong("torch.light", "2") == at + "\"light\" of \"torch\" is a colour");
  CHECK(wrong("torch", "2") == at + "\"torch\" names no field; one is \"component.field\", as \"body.size\"");
  CHECK(wrong("torch.reach", "1 }, { at = 2, value = [1, 2]").find("3:59: error: a number wanted here") !=
        std::string::npos);
  CHECK(wrong("torch.reach", "inf").find("a finite number wanted") != std::string::npos);
  CHECK(wrong("torch.reach", "true").find("number") != std::string::npos);
}
