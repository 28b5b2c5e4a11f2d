// Whatever numbers a game hands to the setters of the library: what is none is an error, all others are brought within range, and what is
// left goes on.
#include <cmath>
#include <limits>

#include "test_stage.hpp"
#include "vole/animation/playhead.hpp"
#include "vole/asset/clip_rules.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/within.hpp"
#include "vole/draw/camera.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/cues.hpp"

namespace {

constexpr float none = std::numeric_limits<float>::quiet_NaN(),
                endless = std::numeric_limits<float>::infinity();
constexpr float odd[] = {-endless, -3e38f, -1e9f, -1, -0.0f, 0,     1e-38f,
                         0.5f,     1,      1.01f, 70, 1e9f,  3e38f, endless};

struct Setter {
  const char* name;
  std::function<void(vole::Stage&, vole::Entity, float)> set;
};

// All that take a number and keep what comes of it.
const std::vector<Setter>& setters() {
  using vole::Entity;
  using vole::Sprite;
  using vole::Stage;
  static const std::vector<Setter> all{
      {"camera.jump_to",
       [](Stage& stage, Entity, float f) {
         stage.camera().jump_to({f, 3});
       }},
      {"camera.follow",
       [](Stage& stage, Entity, float f) {
         stage.camera().follow(vole::Vec2{3, f}, 0.02f);
       }},
      {"camera.follow seconds",
       [](Stage& stage, Entity, float f) {
         stage.camera().follow({3, 4}, f);
       }},
      {"camera.stay", [](Stage& stage, Entity, float f) { stage.camera().stay(f); }},
      {"camera.zoom_about",
       [](Stage& stage, Entity, float f) {
         stage.camera().zoom_about({f, 4}, 2);
       }},
      {"camera.zoom_about zoom",
       [](Stage& stage, Entity, float f) {
         stage.camera().zoom_about({3, 4}, f);
       }},
      {"camera.zoom_over", [](Stage& stage, Entity, float f) { stage.camera().zoom_over(f, 1); }},
      {"camera.zoom_over seconds", [](Stage& stage, Entity, float f) { stage.camera().zoom_over(2, f); }},
      {"camera.move_over",
       [](Stage& stage, Entity, float f) {
         stage.camera().move_over({{f, 0}, {400, 200}}, 1);
       }},
      {"camera.move_over seconds",
       [](Stage& stage, Entity, float f) {
         stage.camera().move_over({{0, 0}, {400, 200}}, f);
       }},
      {"camera.shake", [](Stage& stage, Entity, float f) { stage.camera().shake(f, 1); }},
      {"camera.shake seconds", [](Stage& stage, Entity, float f) { stage.camera().shake(3, f); }},
      {"spawn",
       [](Stage& stage, Entity, float f) {
         stage.spawn("mouse", {f, 4});
       }},
      {"move",
       [](Stage& stage, Entity thing, float f) {
         stage.move(thing, {f, 0});
       }},
      {"after", [](Stage& stage, Entity, float f) { stage.after(f, "told"); }},
      {"after spread", [](Stage& stage, Entity, float f) { stage.after(1, "told", {}, f); }},
      {"set_time_rate", [](Stage& stage, Entity, float f) { stage.set_time_rate(f); }},
      {"set_time_rate of a thing",
       [](Stage& stage, Entity thing, float f) { stage.set_time_rate(thing, f); }},
      {"every", [](Stage& stage, Entity thing, float f) { stage.every(f, "told", thing, {.spread = f}); }},
      {"steps",
       [](Stage& stage, Entity thing, float f) {
         stage.start_sequence(
             "x", vole::Steps().wait(f).go({f, 3}, f).tween(&Sprite::opacity, f, f).say("a", f), thing);
       }},
      {"freeze", [](Stage& stage, Entity, float f) { stage.freeze(f); }},
      {"take_press", [](Stage& stage, Entity, float f) { stage.take_press("jump", f); }},
      {"tween",
       [](Stage& stage, Entity thing, float f) {
         stage.tween(thing, &vole::Pose::at).to({f, 4}, 1);
       }},
      {"tween seconds",
       [](Stage& stage, Entity thing, float f) {
         stage.tween(thing, &vole::Pose::at).to({5, 4}, f);
       }},
      {"set_speed", [](Stage& stage, Entity thing, float f) { stage.get<Sprite>(thing).set_speed(f); }},
      {"face",
       [](Stage& stage, Entity thing, float f) {
         stage.get<Sprite>(thing).face({f, 1});
       }},
      {"play_track",
       [](Stage& stage, Entity thing, float f) { stage.get<Sprite>(thing).play_track("squash", f); }},
      {"set_fact",
       [](Stage& stage, Entity thing, float f) { stage.get<Sprite>(thing).set_fact("tired", f); }},
      {"darken", [](Stage& stage, Entity, float f) { stage.level().darken(f); }},
      {"set_look", [](Stage& stage, Entity, float f) { stage.level().set_look("ground", {.opacity = f}); }},
      {"every", [](Stage&, Entity, float f) {
         const vole::Kinds kinds;
         vole::Cues cues(kinds);
         cues.every(f, [](Stage&) {});
       }}};
  return all;
}

struct Small : TestStage {
  TempFolder folder;
  Small() {
    write_small_game(folder);
    const std::string sheet = vole::read_text(folder.path("assets/mouse.sheet.toml"), 1 << 20);
    folder.write("assets/mouse.sheet.toml", sheet + "\n[[rules]]\nclip = \"run\"\nwhen = [\"tired > 5\"]\n");
  }
};

// Every number of the state is one: TOML writes others as "nan" and "inf".
bool all_are_numbers(const std::string& state) {
  for (std::size_t at = 0; (at = state.find_first_of("ni", at)) != std::string::npos; ++at) {
    const bool whole_word = at > 0 && std::string_view(" ,[-+").find(state[at - 1]) != std::string_view::npos;
    if (whole_word && (state.compare(at, 3, "nan") == 0 || state.compare(at, 3, "inf") == 0)) return false;
  }
  return true;
}

}  // namespace

TEST_CASE("each setter refuses what is not a number, brings the rest within range, and the game goes on") {
  for (const Setter& setter : setters()) {
    Small small;
    CueScene::say = [](vole::Cues& cues) { cues.when_told("told", [](vole::Stage&) {}); };
    vole::Stage& stage = small.start(small.folder);
    stage.load_level("patch");
    const vole::Entity mouse = stage.first("mouse");
    small.tick(2);
    CAPTURE(setter.name);
    const vole::StateBytes before = small.state();
    CHECK_THROWS_WITH(setter.set(stage, mouse, none), Catch::Contains("NaN"));
    CHECK(small.state() == before);
    for (const float value : odd) {
      CAPTURE(value);
      // Where code runs before the scene begins, or after a restore, as in any tick.
      REQUIRE_NOTHROW(setter.set(stage, mouse, value));
      REQUIRE_NOTHROW(small.tick(3));
      REQUIRE_NOTHROW(small.drawn());
      REQUIRE(all_are_numbers(small.running->to_toml()));
      REQUIRE(std::isfinite(stage.camera().middle().x));
      REQUIRE(std::isfinite(stage.camera().zoom_now()));
    }
  }
}

TEST_CASE("a number is brought to the nearest in range, part by part") {
  vole::Random chance(5);
  for (int i = 0; i < 1000; ++i) {
    const float least = chance.within(-10, 5), most = least + chance.within(0, 10),
                value = chance.within(-20, 20);
    const float brought = vole::brought_within(value, least, most);
    CHECK((value < least ? brought == least : value > most ? brought == most : brought == value));
    CHECK(vole::brought_within(vole::Vec2{value, least}, least, most) == vole::Vec2{brought, least});
  }
  CHECK(vole::brought_within_seconds(-1) == 0);
  CHECK(vole::brought_within_seconds(endless) == vole::longest_seconds);
  CHECK_THROWS_AS(vole::brought_within(vole::Vec4{0, 0, 0, none}, 0, 1), vole::Error);
}
