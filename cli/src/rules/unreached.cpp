// unreached-thing and unreached-ledge: what nobody gets to who is steered from the side.
#include <algorithm>
#include <cmath>
#include <optional>

#include "game_under_check.hpp"
#include "preview/staged_level.hpp"
#include "vole/scene/bodies/solid_things.hpp"
#include "vole/scene/minds/reach.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/player.hpp"
#include "vole/world/pushable.hpp"
#include "vole/world/switches.hpp"

namespace {

using vole::Entity;
using vole::Level;

// About two seconds of work for a level; what is not tried to the end is not reported.
constexpr vole::ReachLimits limits{2'000'000, 150'000};

class Unreached {
 public:
  explicit Unreached(GameUnderCheck& game) : game_(game) {}

  void look_at(const std::string& name) {
    const auto level = game_.catalog.get<Level>(name);
    // What comes in pieces is not all there; without tiles there is nothing to stand on.
    if (level->endless || level->cells.x == 0) return;
    if (!staged_game_) staged_game_.emplace(game_.catalog);
    StagedLevel staged(*staged_game_, name, {320, 180});
    vole::Stage& stage = staged.stage();
    const Entity walker = walker_of(stage);
    if (!walker) return;
    const std::string kind(stage.kind_of(walker));
    take_out_what_gives_way(stage, walker);
    const vole::Reach reach(stage, walker, limits);
    if (!reach.complete() || reach.spots().empty()) return;
    tell_things(stage, reach, *level, kind, walker);
    tell_ledges(reach, *level, kind);
  }

 private:
  static Entity walker_of(const vole::Stage& stage) {
    Entity walker;
    std::as_const(stage.entities())
        .visit<vole::Player, vole::SideMover>([&](Entity thing, const vole::Player&, const vole::SideMover&) {
          if (!walker) walker = thing;
        });
    return walker;
  }

  // Doors that open, lifts, crates and walkers are not where they are for ever.
  static void take_out_what_gives_way(vole::Stage& stage, Entity walker) {
    stage.entities().visit<vole::Body>([&](Entity thing, vole::Body& body) {
      const vole::Entities& entities = stage.entities();
      const bool gives_way = entities.has<vole::Switches>(thing) || entities.has<vole::AlongPath>(thing) ||
                             entities.has<vole::Motion>(thing) || entities.has<vole::Pushable>(thing);
      if (gives_way && thing != walker) body.use = vole::BodyUse::off;
    });
  }

  void tell_things(const vole::Stage& stage, const vole::Reach& reach, const Level& level,
                   const std::string& kind, Entity walker) {
    const auto& touched = reach.touched();
    const vole::CategoryMask blocks = stage.solids().rules(walker, stage.categories()).blocked_by;
    stage.update_bodies();
    std::as_const(stage.entities())
        .visit<vole::Body, vole::FromPlace>([&](Entity thing, const vole::Body& body,
                                                const vole::FromPlace& from) {
          const vole::LevelPlace* const place = stage.level().place(from);
          // What blocks is part of the way, and not its end.
          const std::uint8_t category = stage.solids().body(thing).category;
          const bool holds = body.use == vole::BodyUse::solid && (blocks >> category & 1u) != 0;
          if (!place || thing == walker || holds || body.use == vole::BodyUse::off) return;
          if (std::find(touched.begin(), touched.end(), thing) != touched.end()) return;
          game_.add(
              "unreached-thing", file_of(level),
              fmt::format("\"{}\" does not get to this \"{}\" by anything that was tried", kind, place->kind),
              "see: vole preview " + file_of(level) + " --show reach --kind " + kind, place->where);
        });
  }

  void tell_ledges(const vole::Reach& reach, const Level& level, const std::string& kind) {
    for (const vole::Ledge& ledge : reach.ledges()) {
      const vole::Vec2 first = ledge.spots.front(), last = ledge.spots.back();
      // The top of the level's border, and steps on the way, are none that were meant.
      constexpr float narrow = 16, border = 24;
      if (ledge.reached || last.x - first.x < narrow || first.y < border) continue;
      game_.add(
          "unreached-ledge", file_of(level),
          fmt::format("\"{}\" does not get to the ledge from [{}, {}] to [{}, {}] by anything that was tried",
                      kind, first.x, first.y, last.x, last.y),
          "see: vole preview " + file_of(level) + " --show reach --kind " + kind);
    }
  }

  static std::string file_of(const Level& level) { return "levels/" + level.name + ".level.toml"; }

  GameUnderCheck& game_;
  std::optional<StagedGame> staged_game_;
};

}  // namespace

void find_unreached(GameUnderCheck& game) {
  Unreached unreached(game);
  for (const std::string& name : game.catalog.names<Level>()) {
    try {
      unreached.look_at(name);
    } catch (const vole::Error&) {
      // Reported where it is read.
    }
  }
}
