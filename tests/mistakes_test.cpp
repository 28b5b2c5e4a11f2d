// A game that throws while somebody watches it: nothing else is lost, and it is told once.
#include <algorithm>

#include "test_stage.hpp"
#include "test_window.hpp"
#include "vole/app/trouble.hpp"
#include "vole/base/error.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/cues.hpp"

namespace {

using Catch::Contains;
using Lines = std::vector<std::string>;

// Throws in every tick, and tells what it is asked to.
class Clumsy : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override { stage.load_level("patch"); }
  void tick(vole::Stage& stage) override {
    ++ticks;
    stage.after(0, "later");
    stage.tell("now");
    stage.tell("now");
    if (stage.ticks() == leaves_at) stage.leave_for("other");
    throw std::runtime_error("spilt " + (counts ? std::to_string(ticks) : std::string("milk")));
  }
  void cues(vole::Cues& cues) override {
    cues.when_told("now", [](vole::Stage&) {
      ++told;
      throw std::runtime_error("heard too much");
    });
    cues.when_told("later", [](vole::Stage&) { ++later; });
    cues.every(0, [](vole::Stage&) {
      ++intervals;
      throw std::runtime_error("too often");
    });
    cues.every(0, [](vole::Stage&) { ++intervals_after; });
  }
  static inline int ticks, told, later, intervals, intervals_after;
  static inline std::int64_t leaves_at;
  static inline bool counts;
};
template <class V>
void describe(V&, Clumsy&) {}

class Other : public vole::Scene {};
template <class V>
void describe(V&, Other&) {}

struct Spilt : TestSession {
  Spilt() {
    Clumsy::ticks = Clumsy::told = Clumsy::later = Clumsy::intervals = Clumsy::intervals_after = 0;
    Clumsy::leaves_at = -1;
    Clumsy::counts = false;
    game.scene<Clumsy>("patch").scene<Other>("other");
  }
};

}  // namespace

TEST_CASE("a tick in which the game throws is whole: all else in it is done, and it is counted everywhere") {
  Spilt spilt;
  spilt.start();
  for (int i = 0; i < 41; ++i) spilt.session->step();
  const vole::Stage& stage = spilt.session->stage();
  CHECK(spilt.session->ticks() == stage.ticks());
  CHECK(Clumsy::ticks == stage.ticks());
  // What was told is heard, every time, also after one that throws.
  CHECK(Clumsy::told == 2 * Clumsy::ticks);
  CHECK(Clumsy::later == Clumsy::ticks - 1);
  CHECK(Clumsy::intervals == Clumsy::ticks);
  CHECK(Clumsy::intervals_after == Clumsy::ticks);
  CHECK_THAT(spilt.session->trouble(), Contains("patch\", tick 1: "));
}

TEST_CASE("a scene that throws in the tick in which it leaves is left") {
  Spilt spilt;
  Clumsy::leaves_at = 5;
  spilt.start();
  for (int i = 0; i < 20; ++i) spilt.session->step();
  CHECK(spilt.session->scene_name() == "other");
  CHECK(Clumsy::ticks == 6);
}

TEST_CASE("all that is thrown in a tick is reported together where nobody watches, and ends the run") {
  Spilt spilt;
  vole::HeadlessHost host(60);
  spilt.options.ticks = 10;
  spilt.start(host);
  CHECK_THROWS_WITH(spilt.session->step(), Contains("in what is done every") && Contains("spilt milk") &&
                                               Contains("scene \"patch\", tick 1: "));
}

TEST_CASE("what is thrown in every tick is printed once, and of ever new texts only so many") {
  vole::Trouble trouble("");
  const auto problem = [](const std::string& text) {
    return std::vector<vole::Problem>{{vole::FilePosition{}, vole::Severity::error, text, ""}};
  };
  CHECK(trouble.print(problem("spilt milk"), "tick 1: "));
  for (int tick = 2; tick < 1000; ++tick)
    CHECK_FALSE(trouble.print(problem("spilt milk"), "tick " + std::to_string(tick) + ": "));
  std::size_t printed = 1;
  for (int i = 0; i < 5000; ++i)
    if (trouble.print(problem("spilt " + std::to_string(i)))) ++printed;
  CHECK(printed == vole::Trouble::most_lines + 1);
  trouble.forget();
  CHECK(trouble.print(problem("spilt milk")));
}
