// Random programs: what code may do to a scene, in any order, against the same with restores in between.
#include "support.hpp"
#include "vole/app/game.hpp"
#include "vole/app/simulation.hpp"
#include "vole/app/state_difference.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/cues.hpp"
#include "vole/vole.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/player.hpp"
#include "vole/world/routine.hpp"
#include "vole/world/switches.hpp"

namespace {

using vole::Entity;
using vole::Stage;
using vole::Vec2;

struct Step {
  std::int64_t tick = 0;
  std::uint32_t what = 0, which = 0, how = 0;
};

// The n-th thing that is there; none: no thing.
Entity thing_of(Stage& stage, std::uint32_t which) {
  std::vector<Entity> all;
  stage.entities().visit<vole::Pose>([&](Entity thing, const vole::Pose&) {
    if (!stage.removed(thing)) all.push_back(thing);
  });
  return all.empty() ? Entity{} : all[which % all.size()];
}

vole::Routine some_routine(std::uint32_t how) {
  const std::vector<std::vector<vole::Located<std::string>>> steps{
      {{"0.1 right", {}}, {"0.2 left jump", {}}},
      {{"5 ticks left", {}}},
      {{"0.05 right jump", {}}, {"3 ticks left", {}}, {"0.1 right", {}}}};
  vole::Routine routine;
  routine.steps = steps[how % steps.size()];
  routine.loop = how % 2 == 0;
  return routine;
}

void apply(const Step& step, Stage& stage) {
  vole::Entities& entities = stage.entities();
  const Entity thing = thing_of(stage, step.which);
  const Vec2 at{static_cast<float>(8 + step.how % 140), static_cast<float>(8 + step.which % 40)};
  constexpr const char* kinds[] = {"mouse", "crumb", "walker", "seeker", "lift"};
  constexpr const char* tiles[] = {"soil", "grass", ""};
  switch (step.what) {
    case 0:
      stage.spawn(kinds[step.how % 5], at);
      break;
    case 1:
      if (thing && entities.count() > 3) stage.remove(thing);
      break;
    case 2:
      if (thing && entities.has<vole::Intent>(thing) && !entities.has<vole::Mind>(thing) &&
          !entities.has<vole::Player>(thing))
        entities.add(thing, some_routine(step.how));
      break;
    case 3:
      if (vole::Routine* const routine = thing ? entities.find<vole::Routine>(thing) : nullptr)
        routine->steps = some_routine(step.how).steps;
      break;
    case 4:
      entities.remove<vole::Routine>(thing);
      break;
    case 5: {
      if (!thing || entities.has<vole::Sprite>(thing)) break;
      vole::Sprite sprite;
      sprite.sheet_name.value = "mouse";
      sprite.first_clip.value = step.how % 2 == 0 ? "run" : "";
      entities.add(thing, sprite);
      break;
    }
    case 6:
      if (vole::Sprite* const sprite = thing ? entities.find<vole::Sprite>(thing) : nullptr)
        if (sprite->sheet()) sprite->play(step.how % 2 == 0 ? "run" : "idle");
      break;
    case 7: {
      if (!thing || !entities.has<vole::Body>(thing)) break;
      vole::Switches switches;
      vole::Switch by_fact;
      by_fact.when = {{step.how % 2 == 0 ? "grounded" : "vx > 3", {}}};
      by_fact.use = vole::BodyUse::sensor;
      switches.list.push_back({by_fact, {}});
      entities.add(thing, switches);
      break;
    }
    case 8:
      if (vole::Mind* const mind = thing ? entities.find<vole::Mind>(thing) : nullptr)
        mind->parts[0].value.when = {{step.how % 2 == 0 ? "grounded" : "speed < 50", {}}};
      break;
    case 9:
      stage.level().put("ground", {static_cast<int>(step.which % 20), static_cast<int>(step.how % 6)},
                        tiles[step.how % 3]);
      break;
    case 10:
      if (thing) stage.tween(thing, &vole::Pose::at).to(at, 0.1f);
      break;
    case 11:
      stage.after(0.05f, "later", thing);
      break;
    case 12:
      if (stage.level().pieces().size() < 3) stage.put_piece("shelf", {static_cast<int>(step.which % 12), 1});
      break;
    case 13:
      if (thing) entities.add(thing, vole::Lamp{});
      break;
    default:
      break;
  }
}
constexpr std::uint32_t kinds_of_steps = 14;

// Does what the program says in each tick.
class Programmed : public vole::Scene {
 public:
  void enter(Stage& stage) override { stage.load_level("patch"); }
  void cues(vole::Cues& cues) override {
    cues.when_told("later", [](Stage& stage, Entity thing) {
      if (thing && !stage.removed(thing)) stage.get<vole::Pose>(thing).mirrored = true;
    });
    cues.when_meet("mouse", "crumb", [this](Stage&, Entity, Entity) { ++met_; });
  }
  void tick(Stage& stage) override {
    for (const Step& step : program)
      if (step.tick == stage.ticks()) apply(step, stage);
  }
  static inline std::vector<Step> program;

  template <class V>
  friend void describe(V& v, Programmed& scene) {
    v.state("met", scene.met_);
  }

 private:
  int met_ = 0;
};

// A room with shelves to jump between, and a piece that is another shelf.
void write_programmed_game(const TempFolder& folder) {
  write_small_game(folder);
  folder.write("kinds.toml",
               vole::read_text(folder.path("kinds.toml"), 1 << 16) +
                   "[walker]\nbody = { size = [6, 6] }\nside_mover = { speed = 60 }\n"
                   "routine = { steps = [\"0.2 right\", \"0.2 left jump\"], loop = true }\n"
                   "[seeker]\nbody = { size = [6, 6] }\nside_mover = { speed = 60 }\n"
                   "mind = [{ does = \"chase\", of = \"crumb\", finds_way = true, when = [\"grounded\"] }, "
                   "{ does = \"patrol\" }]\n"
                   "[lift]\nbody = { size = [12, 4] }\nalong_path = { path = \"up\" }\n");
  const std::string room =
      "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\", \",\" = \"grass\" }\n"
      "[[paths]]\nname = \"up\"\npoints = [[80, 40], [80, 16]]\n"
      "[[layers]]\nname = \"ground\"\nrows = [\n\"....................\",\n\"....................\",\n"
      "\"......###...........\",\n\"....................\",\n\"............###.....\",\n\"###################"
      "#\",\n]\n"
      "[[layers]]\nname = \"things\"\n"
      "[[places]]\nkind = \"seeker\"\ncell = [2, 4]\n[[places]]\nkind = \"crumb\"\ncell = [13, 3]\n"
      "[[places]]\nkind = \"lift\"\ncell = [9, 4]\n";
  folder.write("levels/patch.level.toml", room);
  folder.write("levels/shelf.level.toml",
               "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\" }\n"
               "[[paths]]\nname = \"up\"\npoints = [[4, 12], [20, 12]]\n"
               "[[layers]]\nname = \"ground\"\nrows = [\"####\", \"....\"]\n[[layers]]\nname = \"things\"\n"
               "[[places]]\nkind = \"walker\"\ncell = [1, 1]\n[[places]]\nkind = \"lift\"\ncell = [2, 1]\n");
}

// Where another that is played straight on to the same tick has something else.
std::string difference_from_straight(vole::Simulation& straight, const vole::Simulation& restored) {
  const vole::TickInput still(std::make_shared<const vole::Controls>());
  while (straight.ticks() < restored.ticks()) straight.tick(still);
  std::string text;
  for (const vole::StateDifference& each :
       vole::state_differences(vole::parse_toml(straight.to_toml(), "straight"),
                               vole::parse_toml(restored.to_toml(), "restored")))
    text += to_text(each) + "\n";
  return text;
}

}  // namespace

TEST_CASE("random programs come to the same whether they are restored and wound back in between, or not") {
  TempFolder folder;
  write_programmed_game(folder);
  vole::Game game("game.toml");
  game.scene<Programmed>("patch");
  vole::Catalog catalog(folder.path());
  const vole::Kinds kinds = vole::read_kinds(folder.path(), vole::Categories{});
  const auto controls =
      std::make_shared<const vole::Controls>(vole::read_controls(folder.path("controls.toml")));
  const vole::SimulationSetting setting{catalog, kinds, controls, {64, 32}, 60};
  const std::string sheet = vole::read_text(folder.path("assets/mouse.sheet.toml"), 1 << 16);
  const auto write_sheet = [&](bool other) {
    folder.write("assets/mouse.sheet.toml",
                 other ? sheet + "\n[clips.sit]\nframes = [2, 4]\nfps = 3\n" : sheet);
    vole::Report report;
    catalog.refresh(report);
    REQUIRE_FALSE(report.has_errors());
  };
  vole::Random chance(101);
  const vole::TickInput still(controls);
  constexpr std::int64_t length = 48;
  std::int64_t restores = 0;
  for (int round = 0; round < cases(60, 20); ++round) {
    CAPTURE(round);
    Programmed::program.clear();
    for (std::uint32_t i = 4 + chance.below(30); i > 0; --i)
      Programmed::program.push_back({static_cast<std::int64_t>(chance.below(length)),
                                     chance.below(kinds_of_steps), chance.below(1000), chance.below(1000)});
    const std::uint64_t seed = chance.next_wide();
    const std::int64_t changes_file = chance.chance(0.1f) ? 5 + chance.below(20) : -1;
    const auto begin = [&] {
      auto simulation = std::make_unique<vole::Simulation>(game, setting, seed);
      simulation->ask_for("patch");
      simulation->make_change();
      return simulation;
    };
    std::vector<std::uint64_t> checksums;
    const auto straight = begin();
    for (std::int64_t tick = 0; tick < length; ++tick) {
      if (tick == changes_file) write_sheet(true);
      straight->tick(still);
      checksums.push_back(straight->checksum());
    }
    if (changes_file >= 0) write_sheet(false);
    auto restored = begin();
    std::vector<vole::Snapshot> kept{restored->snapshot()};
    std::int64_t furthest = 0;
    bool changed = false;
    while (restored->ticks() < length) {
      if (restored->ticks() == changes_file && !changed) {
        // What was before the files changed is no more gone back to.
        write_sheet(changed = true);
        kept.assign(1, restored->snapshot());
      }
      restored->tick(still);
      CAPTURE(restored->ticks(), changes_file);
      if (restored->checksum() != checksums[static_cast<std::size_t>(restored->ticks() - 1)]) {
        if (changed) write_sheet(false);
        UNSCOPED_INFO(difference_from_straight(*begin(), *restored));
      }
      REQUIRE(restored->checksum() == checksums[static_cast<std::size_t>(restored->ticks() - 1)]);
      furthest = std::max(furthest, restored->ticks());
      if (chance.chance(0.2f)) kept.push_back(restored->snapshot());
      if (restored->ticks() < furthest || !chance.chance(0.15f)) continue;
      const vole::Snapshot& back = kept[chance.below(static_cast<std::uint32_t>(kept.size()))];
      if (chance.chance(0.5f)) restored = std::make_unique<vole::Simulation>(game, setting, seed);
      if (chance.chance(0.3f)) {
        vole::Simulation written(game, setting, seed);
        written.restore(back);
        restored->restore_toml(vole::parse_toml(written.to_toml(), "state"));
      } else {
        restored->restore(back);
      }
      ++restores;
    }
    if (changes_file >= 0) write_sheet(false);
  }
  CHECK(restores > 50);
}
