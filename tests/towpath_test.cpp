// The endless run as a whole: the shipped recording, and two hours of it.
#include "towpath.hpp"

#include <set>

#include "../examples/towpath/art/pilot.hpp"
#include "support.hpp"
#include "vole/app/session.hpp"

namespace {

std::string towpath_folder() {
  return source_folder() + "/examples/towpath";
}

struct Run {
  vole::Game game = towpath();
  vole::Options options;
  PilotedHost host;
  std::unique_ptr<vole::Session> session;

  explicit Run(const std::string& replay, std::uint64_t seed = 7) {
    options.replay = replay;
    if (replay.empty()) options.seed = seed;
    if (replay.empty()) options.first.scene = "run";
    session = std::make_unique<vole::Session>(game, vole::read_project(towpath_folder() + "/game.toml"),
                                              options, host);
    if (replay.empty()) host.watch(*session);
  }
  const vole::LevelNow& level() const { return session->stage().level(); }
};

}  // namespace

TEST_CASE("the shipped run along the towpath goes on to the same end") {
  const std::string file = towpath_folder() + "/recordings/home.run";
  const vole::Recording recording = vole::read_recording(file);
  Run run(file);
  for (std::int64_t i = 0; i < recording.ticks; ++i) run.session->tick();
  CHECK(run.session->finish() == 0);
  CHECK(run.level().offset().x < -4000);
}

TEST_CASE("two hours along the towpath take no more memory than a minute, and no piece comes twice running") {
  const int minutes = allocations_are_counted() ? 120 : 6;  // less where sanitizers make it slow
  Run run({});
  std::vector<std::string> order;
  std::uint32_t last = 0;
  std::size_t first_bytes = 0, most_bytes = 0, things = 0, most_things = 0;
  for (int i = 0; i < minutes * 3600; ++i) {
    run.session->step();
    for (const vole::PutPiece& piece : run.level().pieces())
      if (piece.number > last) {
        order.push_back(piece.level);
        last = piece.number;
      }
    if (i % 3600 != 3599) continue;
    const vole::StateBytes state = run.session->simulation().snapshot().bytes;
    things = 0;
    run.session->stage().entities().visit<vole::Pose>([&](vole::Entity, const vole::Pose&) { ++things; });
    if (i < 3 * 3600) first_bytes = std::max(first_bytes, state.size());
    if (i < 3 * 3600) most_things = std::max(most_things, things);
    most_bytes = std::max(most_bytes, state.size());
    REQUIRE(things <= most_things + 24);
  }
  // It never fell into the water: that would have begun another run.
  CHECK(run.session->stage().ticks() == minutes * 3600);
  CHECK(run.level().offset().x < -static_cast<float>(minutes) * 60 * 80);
  CHECK(most_bytes < first_bytes * 3 / 2);
  CHECK(order.size() > static_cast<std::size_t>(minutes) * 15);
  CHECK(std::adjacent_find(order.begin(), order.end()) == order.end());
  CHECK(std::set<std::string>(order.begin(), order.end()).size() == 8);
}
