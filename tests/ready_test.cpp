// Scenes that are ready to be used: high scores and settings, by keys and by a pad alone.
#include <algorithm>

#include "support.hpp"
#include "test_window.hpp"
#include "vole/vole.hpp"

namespace {

enum class Pace { gentle, usual, brisk };
constexpr auto enum_names(Pace) {
  return std::array<std::string_view, 3>{"gentle", "usual", "brisk"};
}
struct Wishes {
  bool counters = true;
  Pace pace = Pace::usual;
  float loud_music = 0.5f;
  int lives = 3;
};
template <class V>
void describe(V& v, Wishes& wishes) {
  v("counters", wishes.counters);
  v("pace", wishes.pace);
  v("loud_music", wishes.loud_music, vole::within(0, 1));
  v("lives", wishes.lives, vole::within(1, 5));
}

class Meadow : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override { stage.open("over"); }
};
template <class V>
void describe(V&, Meadow&) {}

struct Ready : TestSession {
  explicit Ready(std::int64_t points = 0) {
    game.scene<Meadow>("patch").scene<vole::ControlsScene>("keys");
    game.value<Wishes>("wishes", vole::Lasts::between_runs);
    game.value<vole::HighScores>("high scores", vole::join_high_scores);
    if (points == 0)
      game.scene<vole::SettingsOf<Wishes>>("over", {.keys = "keys"});
    else
      game.scene<vole::HighScoresScene>("over", {.points = points, .unit = "m"});
    options.kept_in = folder.path("kept");
  }
  void begin() {
    start();
    step(2);
    REQUIRE(session->scene_name() == "over");
  }
  void step(int count = 1) {
    for (int i = 0; i < count; ++i) session->step();
  }
  void press(std::initializer_list<const char*> controls) {
    for (const char* const control : controls) {
      host.press(control);
      step();
      host.press(control, false);
      step(2);
    }
  }
  Wishes wishes() { return session->simulation().values().get<Wishes>(); }
  vole::HighScores scores() { return session->simulation().values().get<vole::HighScores>(); }
  std::string first_name() { return scores().best.empty() ? "" : scores().best[0].name; }
};

}  // namespace

TEST_CASE("new points are asked for a name, typed or chosen by a pad alone, and are there in the next run") {
  SECTION("typed") {
    Ready ready(70);
    ready.begin();
    ready.press({"key KeyV", "key KeyO", "key KeyX", "key Backspace", "key KeyL", "key KeyE"});
    CHECK(ready.scores().best.empty());
    ready.press({"key Enter"});
    CHECK(ready.first_name() == "VOLE");
    CHECK(ready.scores().best[0].points == 70);
    ready.press({"key Enter"});
    CHECK(ready.session->scene_name() == "patch");
    CHECK(ready.session->finish() == 0);
    // The same points come after those that were there, under the name that was entered last.
    ready.begin();
    ready.press({"key Enter", "key Escape"});
    CHECK(ready.session->scene_name() == "patch");
    REQUIRE(ready.scores().best.size() == 2);
    CHECK(ready.scores().best[1].name == "VOLE");
    CHECK(ready.scores().best[0].mark != ready.scores().best[1].mark);
  }
  SECTION("by a pad") {
    Ready ready(70);
    ready.begin();
    ready.press({"pad down", "pad right", "pad up", "pad right", "pad left", "pad south"});
    CHECK(ready.first_name() == "B A");
    ready.press({"pad south"});
    CHECK(ready.session->scene_name() == "patch");
  }
  SECTION("with the longest name, and pictures of it") {
    Ready ready(70);
    ready.begin();
    for (int i = 0; i < 12; ++i) ready.press({"key KeyW"});
    const vole::Image asked = ready.session->draw(1);
    ready.press({"key Enter"});
    CHECK(ready.first_name() == "WWWWWWWW");
    CHECK_FALSE(ready.session->draw(1) == asked);
  }
}

TEST_CASE("high scores are the largest ones, whatever comes in which order, and two copies' are joined") {
  vole::Random chance(11);
  for (int i = 0; i < cases(300, 60); ++i) {
    CAPTURE(i);
    vole::HighScores mine, theirs;
    std::vector<std::int64_t> all;
    std::int64_t mark = 0;
    for (vole::HighScores* const scores : {&mine, &theirs})
      for (std::uint32_t n = chance.below(15); n > 0; --n) {
        const auto points = static_cast<std::int64_t>(chance.below(20));
        if (!scores->takes(points)) continue;
        REQUIRE(scores->add({"A", points, ++mark}) < vole::HighScores::most);
        all.push_back(points);
      }
    vole::HighScores joined = mine;
    vole::join_high_scores(joined, theirs);
    std::sort(all.rbegin(), all.rend());
    all.resize(std::min(all.size(), vole::HighScores::most));
    std::vector<std::int64_t> points;
    for (const vole::HighScore& score : joined.best) points.push_back(score.points);
    REQUIRE(points == all);
    vole::HighScores again = joined;
    vole::join_high_scores(again, theirs);
    vole::join_high_scores(again, mine);
    REQUIRE(again.best.size() == joined.best.size());
  }
}

TEST_CASE("settings change at once, stay within their limits, and are there in the next run") {
  Ready ready;
  ready.begin();
  ready.press({"key Enter", "key ArrowDown", "key ArrowRight", "key ArrowRight", "key ArrowDown"});
  CHECK_FALSE(ready.wishes().counters);
  CHECK(ready.wishes().pace == Pace::gentle);  // past the last comes the first
  for (int i = 0; i < 4; ++i) ready.press({"pad left"});
  CHECK(ready.wishes().loud_music == Approx(0.1f));
  for (int i = 0; i < 4; ++i) ready.press({"pad left"});
  CHECK(ready.wishes().loud_music == 0);
  ready.press({"pad down"});
  for (int i = 0; i < 9; ++i) ready.press({"pad right"});
  CHECK(ready.wishes().lives == 5);
  // Then the keys, which open over it, and the way back.
  ready.press({"pad down", "pad south"});
  CHECK(ready.session->scene_name() == "keys");
  ready.press({"key Escape"});
  CHECK(ready.session->scene_name() == "over");
  ready.press({"key ArrowDown", "key ArrowLeft"});
  CHECK(ready.session->scene_name() == "over");
  ready.press({"key Enter"});
  CHECK(ready.session->scene_name() == "patch");
  CHECK(ready.session->finish() == 0);
  ready.begin();
  CHECK_FALSE(ready.wishes().counters);
  CHECK(ready.wishes().lives == 5);
  ready.press({"key ArrowUp", "key ArrowUp", "key Escape"});
  CHECK(ready.session->scene_name() == "patch");
}
