// Scenes over scenes: random programs of opening, closing, leaving and going to levels against a plain model of lists; who is told what, who has ticks and
// input, what is handed back, what is saved, and what is drawn.
#include <deque>
#include <map>

#include "support.hpp"
#include "vole/app/game.hpp"
#include "vole/app/pile_picture.hpp"
#include "vole/app/project.hpp"
#include "vole/app/simulation.hpp"
#include "vole/app/state_difference.hpp"
#include "vole/draw/blur.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/kinds.hpp"
#include "vole/vole.hpp"
#include "vole/world/world.hpp"

namespace {

using vole::Stage;

struct Paper {
  int number = 0;
};
template <class V>
void describe(V& v, Paper& paper) {
  v("number", paper.number);
}
struct Stamp {
  int value = 0;
};
template <class V>
void describe(V& v, Stamp& stamp) {
  v("value", stamp.value);
}

// What each scene was told, in order, as "covered 3".
std::vector<std::string> told;

// What scenes of a number do at a tick of theirs.
struct Wish {
  enum class What { open, go, leave, close, close_with };
  What what = What::open;
  int other = 0;  // number of the scene that comes, or of the stamp
  std::string level;
  bool kept = false;  // the level that is left
  vole::Transition transition;
  bool stays_seen = false;
};

// Each of a number, which it is given.
class Leaf : public vole::Scene {
 public:
  using Argument = Paper;
  using Result = Stamp;

  void enter(Stage& stage) override {
    number = stage.argument<Paper>().number;
    said("entered");
    stage.load_level("near");
    stage.every(7.0f / 60, "chime");
    stage.start_sequence("ringing", vole::Steps().repeat(0, vole::Steps().wait(5.0f / 60).tell("ring")));
    const auto cover = covers.find(number);
    if (cover != covers.end()) stage.cover() = cover->second;
    if (throws_in == "enter") throw vole::Error(vole::FilePosition{}, "no way in");
  }
  void cues(vole::Cues& cues) override {
    cues.when_closed<Leaf>([this](Stage&, const Stamp& stamp) {
      said("got " + std::to_string(stamp.value));
      if (throws_in == "got") throw vole::Error(vole::FilePosition{}, "no stamp");
      stamps += stamp.value;
    });
    cues.when_closed<Leaf>([this](Stage&) { said("heard"); });
    for (const char* level : {"near", "far"})
      cues.when_arrived(level, [this](Stage& stage) {
        said("arrived");
        stage.spawn("crumb", stage.place("gate"));
        if (throws_in == "arrived") throw vole::Error(vole::FilePosition{}, "wrong way");
      });
    cues.when_told("bell", [this](Stage&) { said("bell"); });
    cues.when_told("chime", [this](Stage&) { ++chimes; });
    cues.when_told("ring", [this](Stage&) { ++rings; });
  }
  void tick(Stage& stage) override {
    ++ticks;
    if (stage.input().pressed("jump")) ++presses;
    if (stage.input().released("jump")) ++releases;
    if (stage.input().axis("walk") > 0) ++walked;
    if (act) act(stage, *this);
  }
  void covered(Stage&) override { may_throw("covered"); }
  void uncovered(Stage&) override { may_throw("uncovered"); }
  void leave(Stage&) override { may_throw("leave"); }
  void draw(vole::Drawing& drawing) const override {
    drawing.list().fill(drawing.layer(), {{static_cast<float>(number % 8) * 8, 0}, {8, 8}},
                        {static_cast<std::uint8_t>(number * 16), 200, 0, 255});
  }

  int number = 0, ticks = 0, presses = 0, releases = 0, walked = 0, stamps = 0, chimes = 0, rings = 0;

  static inline std::function<void(Stage&, Leaf&)> act;
  static inline std::map<int, vole::Cover> covers;
  static inline std::string throws_in;

 private:
  void said(const std::string& what) { told.push_back(what + " " + std::to_string(number)); }
  void may_throw(const std::string& what) {
    said(what);
    if (throws_in == what) throw vole::Error(vole::FilePosition{}, "not now");
  }
};
template <class V>
void describe(V& v, Leaf& leaf) {
  v.state("number", leaf.number);
  v.state("ticks", leaf.ticks);
  v.state("presses", leaf.presses);
  v.state("releases", leaf.releases);
  v.state("walked", leaf.walked);
  v.state("stamps", leaf.stamps);
  v.state("chimes", leaf.chimes);
  v.state("rings", leaf.rings);
}

struct Twigs {
  TempFolder folder;
  vole::Game game{"game.toml"};
  std::unique_ptr<vole::Catalog> catalog;
  vole::Kinds kinds;
  std::shared_ptr<const vole::Controls> controls;
  std::unique_ptr<vole::Simulation> simulation;
  vole::TickInput input;

  Twigs() {
    write_small_game(folder);
    for (const char* level : {"near", "far"})
      folder.write(
          std::string("levels/") + level + ".level.toml",
          "tileset = \"soil\"\n[[layers]]\nname = \"ground\"\nrows = [\"....\", \"####\"]\n[letters]\n"
          "\".\" = \"\"\n\"#\" = \"soil\"\n[[places]]\nname = \"gate\"\ncell = [2, 0]\n"
          "[[places]]\nkind = \"crumb\"\ncell = [1, 0]\n");
    folder.write_picture("assets/grain.png", {8, 8}, {0x80, 0x80, 0x80, 0xff});
    game.scene<Leaf>("leaf").transition(
        "half", [](const vole::Image& before, const vole::Image& after, float share, vole::Image& into) {
          into = share < 0.5f ? before : after;
        });
    catalog = std::make_unique<vole::Catalog>(folder.path());
    kinds = vole::read_kinds(folder.path(), vole::Categories{});
    controls = std::make_shared<const vole::Controls>(vole::read_controls(folder.path("controls.toml")));
    begin();
  }
  ~Twigs() {
    Leaf::act = nullptr;
    Leaf::covers.clear();
    Leaf::throws_in.clear();
    told.clear();
  }
  void begin(std::uint64_t seed = 1) {
    input = vole::TickInput(controls);
    simulation = make(seed);
    simulation->ask_for("leaf", vole::SceneArgument(Paper{1}));
    simulation->make_change();
  }
  std::unique_ptr<vole::Simulation> make(std::uint64_t seed = 1) {
    return std::make_unique<vole::Simulation>(
        game, vole::SimulationSetting{*catalog, kinds, controls, {64, 32}, 60}, seed);
  }
  // As who runs a simulation does it. Returns what was thrown.
  std::string tick() {
    return error_of(
        [&] {
          simulation->tick(input);
          if (simulation->change()) simulation->make_change();
        },
        folder);
  }
  // Has the scene of a number do something in its next tick.
  std::string in_tick(int number, const std::function<void(Stage&)>& work) {
    bool done = false;
    Leaf::act = [&](Stage& stage, Leaf& leaf) {
      if (leaf.number == number && !done) done = true, work(stage);
    };
    std::string thrown = tick();
    Leaf::act = nullptr;
    REQUIRE(done);
    return thrown;
  }
  const Leaf& leaf(std::size_t index) const {
    return dynamic_cast<const Leaf&>(simulation->pile().at(index).scene());
  }
  std::vector<int> numbers() const {
    std::vector<int> all;
    for (std::size_t i = 0; i < simulation->pile().size(); ++i) all.push_back(leaf(i).number);
    return all;
  }
  vole::Image picture(float share = 1) {
    vole::PilePicture pictures;
    vole::Image canvas({64, 32});
    pictures.draw(*simulation, game, *catalog, share, {}, canvas);
    return canvas;
  }
};

using Texts = std::vector<std::string>;

vole::Transition some_transition(vole::Random& chance) {
  const float seconds = static_cast<float>(1 + below(chance, 6)) / 60;
  vole::Transition transition;
  switch (below(chance, 8)) {
    case 0:
      transition = vole::fade(seconds);
      break;
    case 1:
      transition = vole::wipe(vole::Direction::left, seconds);
      break;
    case 2:
      transition = vole::iris({8, 8}, seconds);
      break;
    case 3:
      transition = vole::dissolve("grain", seconds);
      break;
    case 4:
      transition = vole::own_transition("half", seconds);
      break;
    default:
      break;
  }
  transition.goes_on = transition.seconds > 0 && chance.chance(0.5f);
  return transition;
}

// The end of a scene counts before another level, and that before a scene over it.
int weight_of(const Wish& wish) {
  return wish.what == Wish::What::open ? 0 : wish.what == Wish::What::go ? 1 : 2;
}

// What a pile should come to, as plain lists.
struct Model {
  struct One {
    int number = 0;
    bool seen = false, leaving = false, coming = false;
    int ticks = 0, stamps = 0;
    std::optional<Wish> wish = {};
    std::string level = "near";
    std::map<std::string, int> crumbs = {{"near", 1}};  // in each level that is there or kept
  };
  std::vector<One> all{{1}};
  std::deque<int> passing;  // a number for each tick of the transition that is left
  bool goes_on = false;
  Texts told;

  bool gone(const One& one) const { return one.seen || one.leaving; }
  std::size_t top() const {
    for (std::size_t i = all.size(); i-- > 0;)
      if (!gone(all[i])) return i;
    return 0;
  }
  bool ticks(std::size_t at) const {
    if (all[at].seen || (!passing.empty() && !goes_on)) return false;
    for (std::size_t i = at + 1; i < all.size(); ++i)
      if (!all[i].seen && all[i].leaving == all[at].leaving && !Leaf::covers[all[i].number].below_goes_on)
        return false;
    return true;
  }
  void tell(const std::string& what, const One& one) {
    told.push_back(what + " " + std::to_string(one.number));
  }
  void end_passing() {
    std::erase_if(all, [](const One& one) { return one.leaving; });
    for (One& one : all) one.coming = false;
    passing.clear();
  }
  void pass_tick() {
    for (std::size_t i = 0; i < all.size(); ++i)
      if (ticks(i)) ++all[i].ticks;
    if (!passing.empty()) {
      passing.pop_back();
      if (passing.empty()) end_passing();
    }
  }
  void come(const Wish& wish) {
    all.push_back({wish.other});
    all.back().coming = true;
    tell("entered", all.back());
  }
  void end_from(std::size_t at, bool stays_seen) {
    for (std::size_t i = all.size(); i-- > at;)
      if (!gone(all[i])) tell("leave", all[i]);
    for (std::size_t i = at; i < all.size(); ++i) all[i].leaving = true;
    if (stays_seen) {
      all[at].leaving = false;
      all[at].seen = true;
    } else {
      for (std::size_t i = at; i-- > 0 && all[i].seen;) all[i].leaving = true;
    }
  }
  // A copy of how it was is seen until the transition is over.
  void go(std::size_t at, const Wish& wish) {
    if (wish.transition.seconds > 0) {
      One before = all[at];
      before.seen = before.leaving = true;
      all[at].coming = true;
      all.insert(all.begin() + static_cast<std::ptrdiff_t>(at++), before);
    }
    One& one = all[at];
    tell("arrived", one);
    if (one.level != wish.level && !wish.kept) one.crumbs.erase(one.level);
    one.level = wish.level;
    one.crumbs.try_emplace(wish.level, 1).first->second += 1;
  }
  void carry_out() {
    if (!passing.empty()) return;
    std::size_t at = 0;
    while (at < all.size() && (gone(all[at]) || !all[at].wish)) ++at;
    if (at == all.size()) return;
    const Wish wish = *all[at].wish;
    for (One& one : all) one.wish.reset();
    if (wish.what == Wish::What::open) {
      tell("covered", all[at]);
      come(wish);
    } else if (wish.what == Wish::What::leave) {
      end_from(at, wish.stays_seen);
      come(wish);
    } else if (wish.what == Wish::What::go) {
      go(at, wish);
    } else {
      std::size_t next = at;
      do --next;
      while (gone(all[next]));
      end_from(at, false);
      tell("uncovered", all[next]);
      if (wish.what == Wish::What::close_with) {
        tell("got " + std::to_string(wish.other), all[next]);
        all[next].stamps += wish.other;
      }
      tell("heard", all[next]);
    }
    const int length = static_cast<int>(wish.transition.seconds * 60 + 0.5f);
    goes_on = wish.transition.goes_on;
    for (int i = 0; i < length; ++i) passing.push_back(i);
    if (passing.empty()) end_passing();
  }
};

}  // namespace

TEST_CASE(
    "random programs of opening, closing, leaving and going to levels come to what a plain list of scenes "
    "comes to") {
  Twigs twigs;
  vole::Random chance(7);
  int deepest = 0, seen = 0, transitions = 0, ways = 0;
  for (int round = 0; round < cases(1000, 150); ++round) {
    CAPTURE(round);
    Leaf::covers.clear();
    told.clear();
    Model model;
    model.told = {"entered 1"};
    twigs.begin(chance.next_wide());
    int next_number = 2;
    std::optional<vole::Snapshot> kept;
    for (int tick = 0; tick < 40; ++tick) {
      // What one or two of those that have a tick ask for.
      std::map<int, Wish> wishes;
      for (std::size_t i = 0; i < model.all.size(); ++i) {
        Model::One& one = model.all[i];
        if (!model.ticks(i) || !chance.chance(0.3f)) continue;
        Wish wish;
        const bool lies_over =
            std::any_of(model.all.begin(), model.all.begin() + static_cast<std::ptrdiff_t>(i),
                        [&](const Model::One& other) { return !model.gone(other); });
        const bool may_open =
            i == model.top() && std::count_if(model.all.begin(), model.all.end(),
                                              [](const auto& other) { return !other.leaving; }) < 16;
        wish.what = static_cast<Wish::What>(below(chance, 5));
        wish.level = chance.chance(0.5f) ? "near" : "far";
        wish.kept = chance.chance(0.5f);
        if (wish.what == Wish::What::open && !may_open) continue;
        if (wish.what == Wish::What::leave && model.all.size() >= 16) continue;
        if (wish.what >= Wish::What::close && (one.leaving || !lies_over)) continue;
        wish.other = wish.what >= Wish::What::close ? 1 + below(chance, 9) : next_number++;
        wish.transition = some_transition(chance);
        wish.stays_seen = wish.what == Wish::What::leave && chance.chance(0.3f);
        if (wish.what == Wish::What::open || wish.what == Wish::What::leave)
          Leaf::covers[wish.other].below_goes_on = chance.chance(0.4f);
        wishes[one.number] = wish;
      }
      Leaf::act = [&](Stage& stage, Leaf& leaf) {
        const auto found = wishes.find(leaf.number);
        if (found == wishes.end()) return;
        const Wish& wish = found->second;
        vole::SceneChange& change =
            wish.what == Wish::What::open ? stage.open<Leaf>(Paper{wish.other})
            : wish.what == Wish::What::go
                ? stage.go_to_level(wish.level, "gate", {},
                                    wish.kept ? vole::LeftBehind::kept : vole::LeftBehind::forgotten)
            : wish.what == Wish::What::leave ? stage.leave_for<Leaf>(Paper{wish.other})
            : wish.what == Wish::What::close ? stage.close()
                                             : stage.close<Leaf>(Stamp{wish.other});
        change.with(wish.transition);
        if (wish.stays_seen) change.over_last_moment();
      };
      for (Model::One& one : model.all)
        if (const auto found = wishes.find(one.number); found != wishes.end())
          if (!one.wish || weight_of(found->second) >= weight_of(*one.wish)) one.wish = found->second;
      model.pass_tick();
      model.carry_out();
      CAPTURE(tick);
      REQUIRE(twigs.tick().empty());
      REQUIRE(told == model.told);
      REQUIRE(twigs.simulation->pile().size() == model.all.size());
      for (std::size_t i = 0; i < model.all.size(); ++i) {
        CHECK(twigs.leaf(i).number == model.all[i].number);
        CHECK(twigs.leaf(i).ticks == model.all[i].ticks);
        CHECK(twigs.leaf(i).stamps == model.all[i].stamps);
        const Stage& stage = twigs.simulation->pile().at(i).stage();
        CHECK(stage.level().name() == model.all[i].level);
        CHECK(stage.count("crumb") == model.all[i].crumbs.at(model.all[i].level));
        CHECK(stage.world().left.size() + 1 == model.all[i].crumbs.size());
        ways += model.all[i].crumbs.size() > 1;
        // Timers and sequences have the ticks of their scene, and no others.
        CHECK(twigs.leaf(i).chimes == model.all[i].ticks / 7);
        CHECK(twigs.leaf(i).rings == std::max(model.all[i].ticks - 1, 0) / 5);
        CHECK(twigs.simulation->pile().is_left(i) == model.gone(model.all[i]));
        seen += model.all[i].seen;
      }
      CHECK((twigs.simulation->pile().transition() != nullptr) == !model.passing.empty());
      transitions += !model.passing.empty();
      deepest = std::max(deepest, static_cast<int>(model.all.size()));
      // It goes on from what was saved, in bytes or as text, as it would have.
      if (!chance.chance(0.1f)) continue;
      const std::uint64_t checksum = twigs.simulation->checksum();
      auto other = twigs.make();
      if (chance.chance(0.3f))
        other->restore_toml(vole::parse_toml(twigs.simulation->to_toml(), "state"));
      else
        other->restore(twigs.simulation->snapshot());
      twigs.simulation = std::move(other);
      REQUIRE(twigs.simulation->checksum() == checksum);
    }
  }
  CHECK(deepest > 5);
  CHECK(seen > 100);
  CHECK(transitions > 1000);
  CHECK(ways > 100);
}

TEST_CASE("the scene on top alone has the input, unless it lets an action or axis through") {
  Twigs twigs;
  const auto press = [&](bool held, std::uint8_t presses, std::uint8_t releases, std::int8_t walk) {
    for (vole::TickInput::Player& player : twigs.input.players) {
      player.actions[0] = {held, presses, releases};
      player.axes[0].x = walk;
    }
  };
  press(true, 1, 0, 100);
  twigs.tick();
  CHECK(twigs.leaf(0).presses == 1);
  CHECK(twigs.leaf(0).walked == 1);
  press(true, 0, 0, 0);
  Leaf::covers[2] = {.below_goes_on = true};
  twigs.in_tick(1, [](Stage& stage) { stage.open<Leaf>(Paper{2}); });
  // What was held is let go below, once, and what is held is no press above.
  twigs.tick();
  twigs.tick();
  CHECK(twigs.leaf(0).releases == 1);
  CHECK(twigs.leaf(1).presses == 0);
  press(true, 1, 0, 100);
  twigs.tick();
  CHECK(twigs.leaf(0).presses == 1);
  CHECK(twigs.leaf(0).walked == 1);
  CHECK(twigs.leaf(1).presses == 1);
  CHECK(twigs.leaf(1).walked == 1);
  twigs.in_tick(2, [](Stage& stage) { stage.cover().lets_through = {"walk"}; });
  twigs.tick();
  CHECK(twigs.leaf(0).walked == 2);
  CHECK(twigs.leaf(0).presses == 1);
  // All between must let it through.
  press(false, 0, 0, 100);
  twigs.in_tick(2, [](Stage& stage) { stage.open<Leaf>(Paper{3}); });
  Leaf::covers[3] = {};
  twigs.in_tick(3, [](Stage& stage) { stage.cover() = {.below_goes_on = true, .lets_through = {"jump"}}; });
  const int walked = twigs.leaf(1).walked;
  twigs.tick();
  CHECK(twigs.leaf(1).walked == walked);
  CHECK(twigs.in_tick(3, [](Stage& stage) { stage.cover().lets_through = {"jmp"}; }).empty());
  CHECK_THAT(twigs.tick(),
             Catch::Contains("no action or axis \"jmp\"") && Catch::Contains("did you mean \"jump\"?"));
}

TEST_CASE("what a scene asks of others that cannot be is an error, and changes nothing") {
  Twigs twigs;
  CHECK_THAT(twigs.in_tick(1, [](Stage& stage) { stage.close(); }), Catch::Contains("it lies over none"));
  CHECK_THAT(twigs.in_tick(1, [](Stage& stage) { stage.open("lef"); }),
             Catch::Contains("did you mean \"leaf\"?"));
  CHECK_THAT(twigs.in_tick(1, [](Stage& stage) { stage.open("leaf", Stamp{1}); }),
             Catch::Contains("expects a Paper, not a Stamp"));
  CHECK_THAT(
      twigs.in_tick(1, [](Stage& stage) { stage.open<Leaf>(Paper{2}).with(vole::own_transition("hlf", 1)); }),
      Catch::Contains("no transition \"hlf\"") && Catch::Contains("\"half\""));
  CHECK_THAT(
      twigs.in_tick(1, [](Stage& stage) { stage.open<Leaf>(Paper{2}).with(vole::dissolve("grian", 1)); }),
      Catch::Contains("grian"));
  CHECK(twigs.numbers() == std::vector<int>{1});
  Leaf::covers[2] = {.below_goes_on = true};
  CHECK(twigs.in_tick(1, [](Stage& stage) { stage.open<Leaf>(Paper{2}); }).empty());
  CHECK_THAT(twigs.in_tick(1, [](Stage& stage) { stage.open<Leaf>(Paper{3}); }),
             Catch::Contains("in the scene \"leaf\" below") && Catch::Contains("another lies over it"));
  CHECK_THAT(twigs.in_tick(2, [](Stage& stage) { stage.close(Paper{3}); }),
             Catch::Contains("hands back a Stamp, not a Paper"));
  // One that opens itself without end.
  Leaf::act = [](Stage& stage, Leaf& leaf) {
    if (!stage.covered()) stage.open<Leaf>(Paper{leaf.number + 1});
  };
  for (int i = 0; i < 30; ++i) static_cast<void>(twigs.tick());
  CHECK(twigs.numbers().size() == 16);
  CHECK_THAT(twigs.tick(), Catch::Contains("16 scenes lie over one another"));
}

TEST_CASE(
    "a scene that throws when it is entered, covered, uncovered, left or handed something is told, and all "
    "is as it was") {
  Twigs twigs;
  const auto state = [&] { return twigs.simulation->to_toml(); };
  for (const char* where : {"enter", "covered"}) {
    CAPTURE(where);
    Leaf::throws_in = where;
    std::string before;
    twigs.simulation->tick(twigs.input);
    Leaf::act = [](Stage& stage, Leaf&) { stage.open<Leaf>(Paper{2}); };
    const vole::Snapshot kept = twigs.simulation->snapshot();
    twigs.simulation->tick(twigs.input);
    Leaf::act = nullptr;
    CHECK_THROWS_AS(twigs.simulation->make_change(), vole::Error);
    CHECK(twigs.simulation->change() == nullptr);
    const std::string after = state();
    twigs.simulation->restore(kept);
    twigs.simulation->tick(twigs.input);
    CHECK(state() == after);
  }
  // Asked again it comes.
  Leaf::throws_in.clear();
  CHECK(twigs.simulation->ask_again());
  REQUIRE(twigs.simulation->change());
  twigs.simulation->make_change();
  CHECK(twigs.numbers() == std::vector<int>{1, 2});
  CHECK_FALSE(twigs.simulation->ask_again());
  for (const char* where : {"leave", "uncovered", "got"}) {
    CAPTURE(where);
    Leaf::throws_in = where;
    CHECK_FALSE(
        twigs.in_tick(2, [](Stage& stage) { stage.close<Leaf>(Stamp{3}).with(vole::fade(1)); }).empty());
    CHECK(twigs.numbers() == std::vector<int>{1, 2});
    CHECK(twigs.leaf(0).stamps == 0);
    CHECK(twigs.simulation->pile().transition() == nullptr);
  }
}

TEST_CASE("a comparison tells of what stayed in a level, and one who throws on arrival has not come") {
  Twigs twigs;
  const auto go = [](Stage& stage) { stage.go_to_level("far", "gate", {}).with(vole::fade(0.1f)); };
  Leaf::throws_in = "arrived";
  CHECK_THAT(twigs.in_tick(1, go), Catch::Contains("wrong way"));
  CHECK(twigs.simulation->stage().level().name() == "near");
  CHECK(twigs.simulation->stage().count("crumb") == 1);
  CHECK(twigs.simulation->pile().transition() == nullptr);
  Leaf::throws_in.clear();
  const vole::Snapshot before = twigs.simulation->snapshot();
  std::array<std::string, 2> states;
  for (std::string& state : states) {
    twigs.simulation->restore(before);
    CHECK(twigs
              .in_tick(1,
                       [&](Stage& stage) {
                         if (&state != states.data()) stage.get<vole::Pose>(stage.first("crumb")).at.x = 20;
                         go(stage);
                       })
              .empty());
    for (int i = 0; i < 10; ++i) twigs.tick();
    state = twigs.simulation->to_toml();
  }
  const std::vector<vole::StateDifference> all =
      vole::state_differences(vole::parse_toml(states[0], "a"), vole::parse_toml(states[1], "b"));
  REQUIRE_FALSE(all.empty());
  const auto is_there = [](const vole::StateDifference& d) {
    return d.level == "near" && d.field == "pose.at";
  };
  const auto found = std::find_if(all.begin(), all.end(), is_there);
  REQUIRE(found != all.end());
  CHECK(to_text(*found).starts_with("in the level \"near\" that was left: crumb "));
}

TEST_CASE("what lies below is drawn as it stands, darker, blurred, or not at all") {
  Twigs twigs;
  const vole::Image alone = twigs.picture();
  Leaf::covers[2] = {};
  twigs.in_tick(1, [](Stage& stage) { stage.open<Leaf>(Paper{2}); });
  const vole::Image over = twigs.picture();
  CHECK(over.at(8, 0) == alone.at(8, 0));
  CHECK(over.at(16, 0) == vole::Colour{32, 200, 0, 255});
  twigs.in_tick(2, [](Stage& stage) { stage.cover() = {.darkens = 0.5f}; });
  CHECK(twigs.picture().at(8, 0) == vole::Colour{8, 100, 0, 255});
  CHECK(twigs.picture().at(16, 0) == vole::Colour{32, 200, 0, 255});
  twigs.in_tick(2, [](Stage& stage) { stage.cover() = {.hides_below = true}; });
  CHECK(twigs.picture().at(8, 0) == vole::Colour{0, 0, 0, 255});
  twigs.in_tick(2, [](Stage& stage) { stage.cover() = {.blurs = 3}; });
  vole::Image blurred = alone, memory;
  vole::blur(blurred, blurred.area(), 3, memory);
  for (int y = 0; y < 32; ++y)
    for (int x = 0; x < 16; ++x) REQUIRE(twigs.picture().at(x, y) == blurred.at(x, y));
  // The last moment of one that was left, below the next.
  twigs.in_tick(2, [](Stage& stage) { stage.leave_for<Leaf>(Paper{4}).over_last_moment(); });
  CHECK(twigs.numbers() == std::vector<int>{1, 2, 4});
  CHECK(twigs.picture().at(16, 0) == vole::Colour{32, 200, 0, 255});
  const int ticks = twigs.leaf(1).ticks;
  twigs.tick();
  CHECK(twigs.leaf(1).ticks == ticks);
  twigs.in_tick(4, [](Stage& stage) { stage.close(); });
  CHECK(twigs.numbers() == std::vector<int>{1});
  CHECK(twigs.picture() == alone);
}

TEST_CASE("a blurred pixel is the mean of the square around it") {
  vole::Random chance(3);
  for (int round = 0; round < 20; ++round) {
    const vole::IVec2 size{1 + below(chance, 20), 1 + below(chance, 20)};
    vole::Image image(size);
    for (int y = 0; y < size.y; ++y)
      for (int x = 0; x < size.x; ++x)
        image.at(x, y) = {static_cast<std::uint8_t>(below(chance, 256)),
                          static_cast<std::uint8_t>(below(chance, 256)), 0, 255};
    const int pixels = below(chance, 6);
    vole::Image memory, blurred = image;
    vole::blur(blurred, image.area(), pixels, memory);
    for (int y = 0; y < size.y; ++y)
      for (int x = 0; x < size.x; ++x) {
        double sum = 0;
        for (int b = -pixels; b <= pixels; ++b)
          for (int a = -pixels; a <= pixels; ++a)
            sum += image.at(std::clamp(x + a, 0, size.x - 1), std::clamp(y + b, 0, size.y - 1)).r;
        const double mean = sum / ((2 * pixels + 1) * (2 * pixels + 1));
        REQUIRE(std::fabs(blurred.at(x, y).r - mean) <= 1);
      }
  }
}

TEST_CASE(
    "a transition begins as the scene before and ends as the one after, and nobody has the input meanwhile") {
  Twigs twigs;
  for (const vole::Transition& transition :
       {vole::fade(0.1f), vole::wipe(vole::Direction::up, 0.1f), vole::iris({3, 4}, 0.1f),
        vole::dissolve("grain", 0.1f), vole::own_transition("half", 0.1f)}) {
    CAPTURE(static_cast<int>(transition.look));
    twigs.begin();
    Leaf::covers[2] = {.hides_below = true};
    const vole::Image before = twigs.picture();
    twigs.in_tick(1, [&](Stage& stage) { stage.open<Leaf>(Paper{2}).with(transition); });
    CHECK(twigs.picture() == before);
    for (vole::TickInput::Player& player : twigs.input.players) player.actions[0] = {true, 1, 0};
    bool between = false;
    for (int i = 0; i < 6; ++i) {
      REQUIRE(twigs.simulation->pile().transition());
      twigs.tick();
      between = between || twigs.picture(0.5f) != before;
    }
    CHECK(between);
    CHECK_FALSE(twigs.simulation->pile().transition());
    CHECK(twigs.leaf(1).presses == 0);
    CHECK(twigs.leaf(1).ticks == 0);
    CHECK(twigs.picture().at(16, 0) == vole::Colour{32, 200, 0, 255});
    CHECK(twigs.picture().at(8, 0) == vole::Colour{0, 0, 0, 255});
  }
}

TEST_CASE("a steady frame of a transition and of a cover allocates nothing") {
  if (!allocations_are_counted()) return;
  Twigs twigs;
  Leaf::covers[2] = {.below_goes_on = true, .darkens = 0.5f, .blurs = 2};
  twigs.in_tick(1, [&](Stage& stage) { stage.open<Leaf>(Paper{2}).with(vole::fade(1)); });
  vole::PilePicture pictures;
  vole::Image canvas({64, 32});
  const auto frame = [&] {
    twigs.simulation->tick(twigs.input);
    pictures.draw(*twigs.simulation, twigs.game, *twigs.catalog, 1, {}, canvas);
  };
  const auto steady = [&] {
    for (int i = 0; i < 15; ++i) frame();
    const std::int64_t before = allocations_so_far();
    for (int i = 0; i < 10; ++i) frame();
    return allocations_so_far() - before;
  };
  CHECK(steady() == 0);
  REQUIRE(twigs.simulation->pile().transition());
  while (twigs.simulation->pile().transition()) frame();
  CHECK(steady() == 0);
}

TEST_CASE("where piles of scenes differ is told with the scene") {
  Twigs twigs;
  twigs.in_tick(1, [](Stage& stage) { stage.open<Leaf>(Paper{2}); });
  const auto differences = [&](const std::string& first, const std::string& second) {
    Texts texts;
    for (const auto& each :
         vole::state_differences(vole::parse_toml(first, "a"), vole::parse_toml(second, "b")))
      texts.push_back(to_text(each));
    return texts;
  };
  const std::string first = twigs.simulation->to_toml();
  CHECK(differences(first, first).empty());
  std::string second = first;
  const std::size_t at = second.rfind("presses = 0");
  REQUIRE(at != std::string::npos);
  const std::size_t own = second.rfind("[scenes.scene_state]");
  second.replace(second.find("presses = 0", own), 11, "presses = 5");
  CHECK(differences(first, second) == Texts{"in \"leaf\": scene_state.presses: 0 and 5"});
  twigs.begin();
  CHECK(differences(first, twigs.simulation->to_toml()).back() == "scenes: \"leaf\", \"leaf\" and \"leaf\"");
}

TEST_CASE(
    "of what a scene asks for in one tick its end counts before a scene over it, and else what was asked "
    "last") {
  Twigs twigs;
  twigs.in_tick(1, [](Stage& stage) {
    stage.open<Leaf>(Paper{2});
    stage.leave_for<Leaf>(Paper{3});
    stage.leave_for<Leaf>(Paper{4});
    stage.open<Leaf>(Paper{5}).with(vole::fade(1));
  });
  CHECK(twigs.numbers() == std::vector<int>{4});
  CHECK_FALSE(twigs.simulation->pile().transition());
  twigs.in_tick(4, [](Stage& stage) {
    stage.open<Leaf>(Paper{5});
    stage.open<Leaf>(Paper{6});
  });
  CHECK(twigs.numbers() == std::vector<int>{4, 6});
}

TEST_CASE(
    "however many scenes come over the last moment of the one before, no more than 16 lie over one another") {
  Twigs twigs;
  for (int number = 1; number < 40; ++number) {
    const bool fades = number % 3 == 0;
    CHECK(twigs
              .in_tick(number,
                       [&](Stage& stage) {
                         stage.leave_for<Leaf>(Paper{number + 1})
                             .over_last_moment()
                             .with(vole::fade(fades ? 0.05f : 0.0f));
                       })
              .empty());
    while (twigs.simulation->pile().transition()) CHECK(twigs.tick().empty());
    CHECK(twigs.numbers().size() == static_cast<std::size_t>(std::min(number + 1, 16)));
  }
  auto other = twigs.make();
  other->restore(twigs.simulation->snapshot());
  CHECK(other->checksum() == twigs.simulation->checksum());
}
