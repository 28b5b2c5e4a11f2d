// What components say for themselves: a game's own are asked, bound and forgotten as the library's are.
#include "test_stage.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/component_hooks.hpp"

namespace bells {

// What the bells below were asked, in order.
std::vector<std::string> diary;

const std::vector<std::string> tones{"high", "low", "crack"};

// Rings in a tone of a list, and hangs on a place of the level.
struct Bell {
  vole::Located<std::string> tone, hangs_on;
  int index = -1;         // of the tone: no state
  std::string found_for;  // by which name it was found
};
template <class V>
void describe(V& v, Bell& bell) {
  v("tone", bell.tone);
  v("hangs_on", bell.hangs_on);
}
void find_tone(Bell& bell) {
  if (bell.found_for == bell.tone.value) return;
  bell.index = static_cast<int>(std::find(tones.begin(), tones.end(), bell.tone.value) - tones.begin());
  bell.found_for = bell.tone.value;
  if (bell.index == static_cast<int>(tones.size()))
    throw vole::Error(bell.tone.where, "no tone \"" + bell.tone.value + "\"");
}
void need(Bell& bell, const vole::OfKind& kind) {
  diary.push_back("need " + std::string(kind.name()));
  if (!kind.find<vole::Body>())
    kind.report().error(kind.where(), "a bell without a body rings in nobody's hand");
  kind.report().gather([&] { find_tone(bell); });
}
void expect(const Bell& bell, const vole::InLevel& in) {
  in.expect_place(bell.hangs_on);
}
void bind(Bell& bell, const vole::OnThing& on) {
  if (bell.found_for != bell.tone.value) diary.push_back("bind " + std::to_string(on.thing.index));
  find_tone(bell);
}
void forget(Bell& bell) {
  diary.push_back("forget " + bell.tone.value);
}

}  // namespace bells

namespace {

using bells::Bell;
using bells::diary;
using Catch::Contains;

struct Belfry : TestStage {
  TempFolder folder;
  Belfry() {
    diary.clear();
    write_small_game(folder);
    game.knows<Bell>("bell");
    add("\n[ringer]\nbody = { size = [4, 4] }\nbell = { tone = \"low\" }\n");
  }
  void add(const std::string& more) {
    folder.write("kinds.toml", vole::read_text(folder.path("kinds.toml"), 1 << 20) + more);
  }
  static int times(const std::string& line) {
    return static_cast<int>(std::count(diary.begin(), diary.end(), line));
  }
};

Bell bell(const char* tone) {
  Bell bell;
  bell.tone.value = tone;
  return bell;
}

}  // namespace

TEST_CASE("a component of a game's own is asked when its kind is made ready, and copied as it is then") {
  Belfry belfry;
  vole::Stage& stage = belfry.start(belfry.folder);
  const vole::Entity one = stage.spawn("ringer", {1, 1}), other = stage.spawn("ringer", {2, 2});
  CHECK(diary == std::vector<std::string>{"need ringer"});
  CHECK(stage.get<Bell>(one).index == 1);
  CHECK(stage.get<Bell>(other).index == 1);
  belfry.add("[tool]\nbell = { tone = \"thigh\" }\n");
  vole::Stage& again = belfry.start(belfry.folder);
  const std::string wrong = error_of([&] { again.spawn("tool", {1, 1}); }, belfry.folder);
  CHECK_THAT(wrong, Contains("a bell without a body rings in nobody's hand"));
  CHECK_THAT(wrong, Contains("no tone \"thigh\""));
}

TEST_CASE("what a component of a game's own expects of the level is said before anything is put down") {
  Belfry belfry;
  belfry.add("[hung]\nbody = { size = [4, 4] }\nbell = { tone = \"low\", hangs_on = \"bem\" }\n");
  vole::Stage& stage = belfry.start(belfry.folder);
  CHECK_THAT(error_of(
                 [&] {
                   stage.spawn("hung", {1, 1});
                 },
                 belfry.folder),
             Contains("no place \"bem\": no level is loaded"));
  const std::string level = vole::read_text(belfry.folder.path("levels/patch.level.toml"), 1 << 20);
  belfry.folder.write("levels/patch.level.toml",
                      level + "\n[[places]]\nname = \"beam\"\nkind = \"ringer\"\nat = [8, 8]\n");
  vole::Stage& with_level = belfry.start(belfry.folder);
  with_level.load_level("patch");
  const std::size_t count = with_level.entities().count();
  CHECK_THAT(error_of(
                 [&] {
                   with_level.spawn("hung", {1, 1});
                 },
                 belfry.folder),
             Contains("no place \"bem\" in level \"patch\"; did you mean \"beam\"?"));
  CHECK(with_level.entities().count() == count);
}

TEST_CASE(
    "a component that code adds or renames is bound at the start of the next tick, as after a restore") {
  Belfry belfry;
  vole::Stage& stage = belfry.start(belfry.folder);
  const vole::Entity thing = stage.entities().create();
  stage.entities().add(thing, bell("crack"));
  CHECK(stage.get<Bell>(thing).index == -1);
  belfry.tick();
  CHECK(stage.get<Bell>(thing).index == 2);
  belfry.tick(3);
  CHECK(Belfry::times("bind " + std::to_string(thing.index)) == 1);
  stage.get<Bell>(thing).tone.value = "high";
  belfry.tick();
  CHECK(stage.get<Bell>(thing).index == 0);
  const vole::StateBytes state = belfry.state();
  vole::Stage& restored = belfry.enter();
  vole::StateReader in(state);
  belfry.running->read(in);
  CHECK(restored.get<Bell>(thing).index == -1);
  belfry.running->bind();
  CHECK(restored.get<Bell>(thing).index == 0);
  // One that cannot be bound is told, and hinders none.
  restored.get<Bell>(thing).tone.value = "thigh";
  const vole::Entity other = restored.entities().create();
  restored.entities().add(other, bell("low"));
  CHECK_THROWS_WITH(belfry.tick(), Contains("no tone \"thigh\""));
  CHECK(restored.get<Bell>(other).index == 1);
}

TEST_CASE("a component is forgotten once, however it leaves its thing") {
  Belfry belfry;
  vole::Stage& stage = belfry.start(belfry.folder);
  const auto thing_with = [&](const char* tone) {
    const vole::Entity thing = stage.entities().create();
    stage.entities().add(thing, bell(tone));
    return thing;
  };
  const vole::Entity taken = thing_with("high"), replaced = thing_with("low"), gone = thing_with("crack");
  stage.entities().remove<Bell>(taken);
  stage.entities().add(replaced, bell("high"));
  CHECK(diary == std::vector<std::string>{"forget high", "forget low"});
  stage.entities().remove(gone);
  CHECK(diary.size() == 2);
  belfry.tick();
  CHECK(Belfry::times("forget crack") == 1);
  const std::size_t before = diary.size();
  belfry.running.reset();
  CHECK(diary.size() == before);
}

TEST_CASE("a sprite of code's own is bound and drawn like one of a kind, whatever is changed at it") {
  Belfry belfry;
  vole::Stage& stage = belfry.start(belfry.folder);
  stage.load_level("patch");
  const vole::Entity by_kind = stage.spawn("mouse", {20, 20});
  const vole::Entity by_code = stage.entities().create();
  const vole::Sprite& pattern = stage.get<vole::Sprite>(by_kind);
  vole::Sprite sprite;
  sprite.sheet_name = pattern.sheet_name;
  sprite.layer_name = pattern.layer_name;
  sprite.first_clip = pattern.first_clip;
  stage.entities().add(by_code, vole::Pose{{20, 20}, {20, 20}});
  stage.entities().add(by_code, sprite);
  belfry.tick();
  const vole::Sprite &one = stage.get<vole::Sprite>(by_kind), &two = stage.get<vole::Sprite>(by_code);
  CHECK(one.links.layer == two.links.layer);
  CHECK(one.sheet() == two.sheet());
  CHECK((two.playhead().clip() == nullptr) == (one.playhead().clip() == nullptr));
}
