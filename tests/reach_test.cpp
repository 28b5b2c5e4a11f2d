// What is said to be reached is reached by playing the steps that are said with it; what clearly cannot be reached is not said to be.
#include "vole/scene/minds/reach.hpp"

#include <cmath>

#include "vole/world/routine.hpp"
#include "yard.hpp"

namespace {

using vole::Entity;
using vole::Vec2;

std::string text_of(const std::vector<std::string>& rows) {
  std::string text;
  for (const std::string& row : rows) text += "\"" + row + "\",\n";
  return text;
}

const std::string tiles =
    "rungs = { colour = \"#c98b4a\", ladder = {} }\nbrook = { colour = \"#3b6ea5\", liquid = {} }\n";
const std::string letters = "\"H\" = \"rungs\"\n\"~\" = \"brook\"\n";

std::string jumper(const std::string& numbers) {
  return "[vole]\nbody = { size = [10, 12], category = \"walkers\" }\nside_mover = { speed = 90, jump = 280, "
         "gravity = 900" +
         numbers + " }\nroutine = { steps = [] }\n";
}

const vole::Ledge* ledge_at(const vole::Reach& reach, Vec2 at) {
  for (const vole::Ledge& ledge : reach.ledges())
    for (const Vec2 spot : ledge.spots)
      if (std::abs(spot.x - at.x) <= 8 && std::abs(spot.y - at.y) <= 4) return &ledge;
  return nullptr;
}

}  // namespace

TEST_CASE("each ledge that is said to be reached is reached by a routine of the steps, to the pixel") {
  vole::Random chance(71);
  const std::vector<std::string> abilities{"",
                                           ", air_jumps = 1",
                                           ", wall_jump = [140, 260], wall_slide = 40",
                                           ", climb = 60",
                                           ", dash = 260",
                                           ", swim = 60",
                                           ", crouch = 6",
                                           ", step_up = 6, slip = 4",
                                           ", glide = 50"};
  int reached = 0, not_reached = 0, played = 0;
  for (int round = 0; round < cases(static_cast<int>(abilities.size())); ++round) {
    std::vector<std::string> rows = rows_of_shelves(chance, 26, "###===HH~~");
    rows[13][3] = rows[14][3] = rows[12][3] = '.';
    const std::string& more = abilities[static_cast<std::size_t>(round) % abilities.size()];
    Yard yard(jumper(more), tiles, text_of(rows), {}, letters);
    const Entity vole = yard.stage->spawn("vole", {56, floor_y});
    yard.tick(30);
    const vole::StateBytes start = yard.state();
    const vole::Reach reach(*yard.stage, vole, {600'000, 60'000});
    CAPTURE(round, more, text_of(rows));
    REQUIRE_FALSE(reach.spots().empty());
    // The search itself moves nothing.
    REQUIRE(yard.state() == start);
    for (const vole::Ledge& ledge : reach.ledges()) {
      ++(ledge.reached ? reached : not_reached);
      if (!ledge.reached) continue;
      vole::StateReader in(start);
      yard.running->read(in);
      yard.running->bind();
      vole::Routine& routine = yard.stage->get<vole::Routine>(vole);
      routine.steps = reach.steps_to(ledge.first);
      const std::vector<Vec2> way = reach.way_to(ledge.first, vole::Reach::Part::all);
      for (const Vec2 at : way) {
        yard.tick();
        REQUIRE(yard.pose(vole).at == at);
      }
      REQUIRE(yard.pose(vole).at == ledge.first.at);
      REQUIRE(yard.touching(vole).ground);
      ++played;
    }
  }
  CHECK(reached > 30);
  CHECK(not_reached > 5);
  CHECK(played == reached);
}

TEST_CASE("a shelf is reached where a jump is high enough, and not where it is too low") {
  // 280 upwards against 900 is 43.6 pixels high.
  for (const int height : {2, 3, 1, 4}) {
    if (height == 4 && cases(4, 3) < 4) continue;
    std::vector<std::string> rows(16, std::string(40, '.'));
    rows[15] = std::string(40, '#');
    for (std::size_t x = 10; x < 16; ++x) rows[static_cast<std::size_t>(15 - height)][x] = '#';
    for (const bool twice : {false, true}) {
      Yard yard(jumper(twice ? ", air_jumps = 1" : ""), {}, text_of(rows));
      const Entity vole = yard.stage->spawn("vole", {56, floor_y});
      const Entity bulb = yard.stage->spawn("bulb", {200, static_cast<float>(240 - height * 16)});
      yard.tick(10);
      const vole::Reach reach(*yard.stage, vole);
      REQUIRE(reach.complete());
      const vole::Ledge* const shelf = ledge_at(reach, {200, static_cast<float>(240 - height * 16)});
      REQUIRE(shelf);
      CAPTURE(height, twice);
      CHECK(shelf->reached == (height <= 2 || twice));
      const std::vector<Entity>& touched = reach.touched();
      CHECK((std::find(touched.begin(), touched.end(), bulb) != touched.end()) == (height <= 2 || twice));
      // The floor, all of it, as one.
      const vole::Ledge* const ground = ledge_at(reach, {500, 240});
      REQUIRE(ground);
      CHECK(ground->reached);
    }
  }
}

TEST_CASE("a search ends at its limits, and says so") {
  Yard yard(jumper(", air_jumps = 3, dash = 300"));
  const Entity vole = yard.stage->spawn("vole", {56, floor_y});
  yard.tick(10);
  const vole::Reach reach(*yard.stage, vole, {2000, 1000});
  CHECK_FALSE(reach.complete());
  CHECK(reach.ticks() < 2200);
  const Entity bulb = yard.stage->spawn("bulb", {100, 100});
  CHECK_THROWS_WITH(vole::Reach(*yard.stage, bulb), Catch::Contains("no side_mover"));
}
