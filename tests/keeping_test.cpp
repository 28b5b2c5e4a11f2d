// What a game keeps for its player: saves, values between runs, and how they come back as recorded input.
#include <map>

#include "support.hpp"
#include "test_window.hpp"
#include "vole/app/comparison.hpp"
#include "vole/app/player_saves.hpp"
#include "vole/app/save_versions.hpp"
#include "vole/base/base64.hpp"
#include "vole/base/reading.hpp"
#include "vole/saves/save_folder.hpp"
#include "vole/scene/known_saves.hpp"
#include "vole/vole.hpp"

namespace {

using vole::SaveAnswer;
using vole::Stage;

struct Purse {
  int coins = 0;
};
template <class V>
void describe(V& v, Purse& purse) {
  v.state("coins", purse.coins);
}
struct Best {
  std::vector<std::string> names;
};
template <class V>
void describe(V& v, Best& best) {
  v.state("names", best.names);
}
void join_best(Best& mine, const Best& theirs) {
  for (const std::string& name : theirs.names)
    if (std::find(mine.names.begin(), mine.names.end(), name) == mine.names.end()) mine.names.push_back(name);
}

std::vector<std::string> told;

// Work is done to it by tests.
class Larder : public vole::Scene {
 public:
  void enter(Stage& stage) override { stage.load_level("patch"); }
  void cues(vole::Cues& cues) override {
    if (!hears) return;
    cues.when_saved([](Stage&, const SaveAnswer& answer) {
      told.push_back(answer.name + (answer.ok() ? "" : ": " + answer.problem));
    });
  }
  void tick(Stage& stage) override {
    if (work) std::exchange(work, nullptr)(stage, *this);
  }
  void draw(vole::Drawing& drawing) const override {
    drawing.list().fill(drawing.layer(), {{0, 0}, {64, 32}}, {200, 40, 40, 255});
    if (!shown.empty()) drawing.saved_picture(shown, {10, 10});
  }

  int jars = 0;
  static inline std::function<void(Stage&, Larder&)> work;
  static inline bool hears = true;
  static inline std::string shown;
};
template <class V>
void describe(V& v, Larder& larder) {
  v.state("jars", larder.jars);
}
class Lid : public vole::Scene {};
template <class V>
void describe(V&, Lid&) {}

vole::Game make_game() {
  vole::Game game("game.toml");
  game.scene<Larder>("patch").scene<Lid>("lid");
  game.value<Purse>("purse").value<Best>("best", join_best);
  return game;
}

struct Keeping : TestSession {
  Keeping() {
    game = make_game();
    options.headless = true;
    options.kept_in = folder.path("kept");
  }
  ~Keeping() {
    Larder::work = nullptr;
    Larder::hears = true;
    Larder::shown.clear();
    told.clear();
  }
  vole::HeadlessHost bare{60};
  vole::Session& begin() { return start(bare); }
  // A tick in which this is done, and the one in which its answer comes.
  void tick(std::function<void(Stage&, Larder&)> work = nullptr) {
    Larder::work = std::move(work);
    session->tick();
  }
  std::vector<std::string> heard() { return std::exchange(told, {}); }
  int coins() { return session->simulation().values().get<Purse>().coins; }
  std::vector<std::string> best() { return session->simulation().values().get<Best>().names; }
  const std::vector<vole::SaveSlot>& slots() { return session->simulation().stage().saves(); }
};

using Names = std::vector<std::string>;

constexpr int deeds_in_program = 60;

// What a random program does in a tick.
struct Deed {
  enum What : std::uint32_t { saves_values, saves_all, loads, loads_too, removes, nothing, count };

  explicit Deed(vole::Random& chance)
      : name(std::string("slot ") + "abc"[chance.below(3)]),
        what(static_cast<What>(chance.below(count))),
        earned(static_cast<int>(chance.below(5))),
        filled(static_cast<int>(chance.below(3))) {}

  void operator()(Stage& stage, Larder& larder) const {
    stage.value<Purse>().coins += earned;
    larder.jars += filled;
    if (what <= saves_all) stage.save(name, {.title = name, .scenes = what == saves_all});
    if (what == loads || what == loads_too) stage.load(name);
    if (what == removes) stage.remove_save(name);
  }

  std::string name;
  What what;
  int earned, filled;
};

// What a player would say is there.
struct SavedModel {
  struct Saved {
    int coins = 0;
    std::optional<int> jars;
  };
  std::map<std::string, Saved> saved;
  int coins = 0, jars = 0;

  // Returns what the game hears of it.
  std::string answer(const Deed& deed) {
    coins += deed.earned;
    jars += deed.filled;
    if (deed.what == Deed::nothing) return {};
    if (deed.what <= Deed::saves_all)
      saved[deed.name] = {coins, deed.what == Deed::saves_all ? std::optional(jars) : std::nullopt};
    if (deed.what == Deed::removes) saved.erase(deed.name);
    if (deed.what != Deed::loads && deed.what != Deed::loads_too) return deed.name;
    const auto found = saved.find(deed.name);
    if (found == saved.end())
      return deed.name + ": \"" + deed.name + "\" is not loaded: there is no such save.";
    coins = found->second.coins;
    jars = found->second.jars.value_or(jars);
    return deed.name;
  }
};

}  // namespace

TEST_CASE(
    "random programs of saving, loading and removing agree with a plain model, and are replayed without "
    "files") {
  Keeping keeping;
  for (int run = 0; run < cases(12, 3); ++run) {
    CAPTURE(run);
    const auto seed = static_cast<std::uint64_t>(run) + 40;
    keeping.options.kept_in = keeping.folder.path("kept" + std::to_string(run));
    keeping.options.record = keeping.folder.path("run" + std::to_string(run) + ".run");
    keeping.options.replay.clear();
    keeping.begin();
    vole::Random chance(seed);
    SavedModel model;
    for (int i = 0; i < deeds_in_program; ++i) {
      const Deed deed(chance);
      CAPTURE(i, deed.name, deed.what);
      keeping.tick(deed);
      const std::string answer = model.answer(deed);
      // What comes of it is there in the next tick.
      int jars = 0;
      keeping.tick([&](Stage&, Larder& larder) { jars = larder.jars; });
      REQUIRE(keeping.heard() == (answer.empty() ? Names{} : Names{answer}));
      REQUIRE(keeping.coins() == model.coins);
      REQUIRE(jars == model.jars);
      REQUIRE(keeping.slots().size() == model.saved.size());
    }
    REQUIRE(keeping.session->finish() == 0);
    const std::uint64_t end = keeping.session->checksum();
    const std::string state = keeping.session->simulation().to_toml();
    // The replay has the same work done to it, and no folder.
    keeping.options.replay = std::exchange(keeping.options.record, "");
    keeping.options.kept_in.clear();
    keeping.begin();
    chance = vole::Random(seed);
    for (int i = 0; i < deeds_in_program; ++i) {
      keeping.tick(Deed(chance));
      keeping.tick();
    }
    REQUIRE(keeping.session->finish() == 0);
    REQUIRE(keeping.session->checksum() == end);
    REQUIRE(keeping.session->simulation().to_toml() == state);
    told.clear();
  }
}

TEST_CASE(
    "a save with scenes brings all of them back as they lay over one another, and values between runs stay") {
  Keeping keeping;
  keeping.begin();
  keeping.tick([](Stage& stage, Larder& larder) {
    larder.jars = 5;
    stage.value<Purse>().coins = 7;
    stage.value<Best>().names = {"Ada"};
  });
  keeping.tick([](Stage& stage, Larder&) { stage.open("lid"); });
  REQUIRE(keeping.session->scene_name() == "lid");
  keeping.session->simulation().stage().save("two", {.title = "Lid", .scenes = true});
  keeping.tick();
  keeping.tick();
  CHECK(keeping.slots().size() == 1);
  keeping.session->simulation().stage().close();
  keeping.tick();
  REQUIRE(keeping.session->scene_name() == "patch");
  keeping.tick([](Stage& stage, Larder& larder) {
    larder.jars = 1;
    stage.value<Purse>().coins = 1;
    stage.value<Best>().names.push_back("Bo");
    stage.load("two");
  });
  keeping.tick();
  CHECK(keeping.session->scene_name() == "lid");
  CHECK(keeping.session->simulation().pile().size() == 2);
  CHECK(keeping.coins() == 7);
  CHECK(keeping.best() == Names{"Ada", "Bo"});
}

TEST_CASE("what was asked for in the tick of saving is forgotten, and states hold what is known of saves") {
  Keeping keeping;
  keeping.begin();
  keeping.tick([](Stage& stage, Larder& larder) {
    larder.jars = 3;
    stage.save("one", {.title = "Larder", .scenes = true});
    stage.leave_for("lid");
  });
  keeping.tick();
  REQUIRE(keeping.session->scene_name() == "lid");
  vole::Simulation& simulation = keeping.session->simulation();
  const vole::Snapshot snapshot = simulation.snapshot();
  const std::string state = simulation.to_toml();
  REQUIRE(keeping.slots().size() == 1);
  CHECK(keeping.slots()[0].title == "Larder");
  simulation.stage().load("one");
  keeping.tick();
  int jars = 0;
  keeping.tick([&](Stage&, Larder& larder) { jars = larder.jars; });
  CHECK(keeping.session->scene_name() == "patch");
  CHECK(jars == 3);
  CHECK(keeping.heard() == Names{"one"});
  simulation.stage().remove_save("one");
  keeping.tick();
  keeping.tick();
  REQUIRE(keeping.slots().empty());
  simulation.restore(snapshot);
  CHECK(simulation.to_toml() == state);
  CHECK(simulation.stage().saves().size() == 1);
  simulation.restore_toml(vole::parse_toml(state, "state"));
  CHECK(simulation.to_toml() == state);
}

TEST_CASE("the picture of a save is small, is shown, and no other is taken for one") {
  Keeping keeping;
  keeping.begin();
  keeping.tick([](Stage& stage, Larder&) { stage.save("one", {.title = "A red wall"}); });
  keeping.tick();
  Larder::shown = "one";
  const vole::Image shown = keeping.session->draw(1);
  CHECK(shown.at(12, 12) == vole::Colour{200, 40, 40, 255});
  const vole::Image picture = vole::small_picture(vole::Image({640, 360}, {10, 20, 30, 255}));
  CHECK(picture.size() == vole::IVec2{91, 51});
  CHECK(picture.at(90, 50) == vole::Colour{10, 20, 30, 255});
  CHECK(vole::small_picture(vole::Image({1, 1})).size() == vole::IVec2{1, 1});

  vole::KnownSaves saves;
  saves.put(
      {{.name = "none"}, {.name = "bad", .picture = "####"}, {.name = "cut", .picture = "iVBORw0KGgo="}});
  for (const char* name : {"none", "bad", "cut", "missing"}) CHECK(saves.picture(name) == nullptr);
  std::vector<vole::SaveSlot> many(200);
  many[0].picture.resize(100'000, 'A');
  saves.put(many);
  CHECK(saves.slots().size() == vole::KnownSaves::most_slots);
  CHECK(saves.slots()[0].picture.empty());
}

TEST_CASE(
    "a value between runs is there in the next, and two copies of a game lose nothing of each other's") {
  Keeping one, other;
  other.options.kept_in = one.options.kept_in;
  one.begin();
  one.tick();
  // As it is made it is nothing to keep.
  CHECK_FALSE(vole::folder_exists(one.options.kept_in));
  one.tick([](Stage& stage, Larder&) {
    stage.value<Best>().names = {"Ada"};
    stage.value<Purse>().coins = 9;
  });
  CHECK(one.session->finish() == 0);
  one.begin();
  CHECK(one.best() == Names{"Ada"});
  CHECK(one.coins() == 0);
  other.begin();
  other.tick([](Stage& stage, Larder&) { stage.value<Best>().names.push_back("Bo"); });
  CHECK(other.session->finish() == 0);
  one.tick([](Stage& stage, Larder&) { stage.value<Best>().names.push_back("Cleo"); });
  // What was joined comes back to the one that plays on.
  one.tick();
  CHECK(one.best() == Names{"Ada", "Cleo", "Bo"});
  // What scenes have changed before it comes is not lost.
  vole::Arrived late;
  late.values = {{"best", 1, "[values.best]\nnames = [\"Dot\"]\n"}};
  CHECK(one.session->simulation().arrive(late).empty());
  CHECK(one.best() == Names{"Ada", "Cleo", "Bo", "Dot"});
  CHECK(one.session->finish() == 0);
  other.begin();
  CHECK(other.best() == Names{"Ada", "Cleo", "Bo"});
}

TEST_CASE("what is damaged, from the future, or has no place is told in one sentence, and the game goes on") {
  Keeping keeping;
  keeping.begin();
  keeping.tick([](Stage& stage, Larder&) {
    stage.value<Best>().names = {"Ada"};
    stage.save("one");
  });
  CHECK(keeping.session->finish() == 0);
  const auto file = [&](const std::string& name) { return "kept/" + name + ".save"; };
  const std::string value = keeping.text(file("value best")), slot = keeping.text(file("slot one"));

  SECTION("a damaged value") {
    keeping.folder.write(file("value best"), value.substr(0, value.size() / 2));
    keeping.begin();
    CHECK(keeping.best().empty());
    keeping.tick();
    // It came before there was a scene that could hear it.
    CHECK(keeping.heard().empty());
    keeping.tick([](Stage& stage, Larder&) { stage.value<Best>().names = {"Bo"}; });
    CHECK(keeping.session->finish() == 0);
    keeping.begin();
    CHECK(keeping.best() == Names{"Bo"});
  }
  SECTION("a damaged slot, which is told in the list and on loading") {
    keeping.folder.write(file("slot one"), "what?");
    keeping.begin();
    REQUIRE(keeping.slots().size() == 1);
    CHECK(keeping.slots()[0].problem == "This save is not a save of a game made with Vole.");
    keeping.tick([](Stage& stage, Larder&) { stage.load("one"); });
    keeping.tick();
    CHECK(keeping.heard() == Names{"one: \"one\" is not loaded: it is not a save of a game made with Vole."});
  }
  SECTION("a newer version of the game") {
    keeping.game.saves_are(2);
    keeping.begin();
    keeping.tick([](Stage& stage, Larder&) {
      stage.value<Best>().names.push_back("Bo");
      stage.save("one");
    });
    CHECK(keeping.session->finish() == 0);
    keeping.game = make_game();
    keeping.begin();
    CHECK(keeping.best().empty());
    keeping.tick([](Stage& stage, Larder&) { stage.load("one"); });
    keeping.tick();
    CHECK(keeping.heard() == Names{"one: The save \"one\" cannot be used: a newer version of the game has "
                                   "written it: 2, and this one "
                                   "reads up to 1."});
    // Nor does this one replace what the newer one has kept.
    keeping.tick([](Stage& stage, Larder&) { stage.value<Best>().names = {"Old"}; });
    CHECK(keeping.session->finish() == 0);
    keeping.game = make_game();
    keeping.game.saves_are(2);
    keeping.begin();
    CHECK(keeping.best() == Names{"Ada", "Bo"});
  }
  SECTION("no such field") {
    vole::SaveHead head;
    head.game = "small";
    keeping.folder.write(file("slot one"), vole::save_text(head, "[values.purse]\ncoin = 3\n"));
    keeping.begin();
    keeping.tick([](Stage& stage, Larder&) { stage.load("one"); });
    keeping.tick();
    CHECK(keeping.heard() == Names{"one: The save \"one\" cannot be used: unknown key \"coin\"."});
  }
  SECTION("a folder that cannot be") {
    keeping.folder.write("a file", "");
    keeping.options.kept_in = keeping.folder.path("a file/kept");
    keeping.begin();
    keeping.tick([](Stage& stage, Larder&) { stage.save("one"); });
    keeping.tick();
    const Names heard = keeping.heard();
    REQUIRE(heard.size() == 1);
    CHECK(heard[0].starts_with("one: \"one\" is not saved: it cannot be made: "));
  }
  SECTION("a folder in which nothing can be written") {
    // Whoever runs this may be allowed to write anywhere: so there is a folder where each file would be.
    for (const char* const taken : {"kept/.lock", "kept/slot two.save"}) {
      CAPTURE(taken);
      std::filesystem::remove_all(keeping.folder.path("kept"));
      std::filesystem::create_directories(keeping.folder.path(taken));
      keeping.begin();
      keeping.tick([](Stage& stage, Larder&) { stage.save("two"); });
      keeping.tick();
      const Names heard = keeping.heard();
      REQUIRE(heard.size() == 1);
      CHECK(heard[0].starts_with("two: \"two\" is not saved: it cannot be written: "));
      // No part of it lies about.
      for (const std::string& left : vole::list_files(keeping.folder.path("kept"))) CHECK(left == "");
    }
  }
  SECTION("a text that could not be read again") {
    keeping.begin();
    keeping.tick([](Stage& stage, Larder&) {
      stage.value<Best>().names = {"\xff"};
      stage.save("one", {.title = "\xc3"});
      stage.save("two", {.title = std::string(199, 'a') + "\xc3\xa9 and more"});
    });
    keeping.tick();
    CHECK(keeping.heard() == Names{"one: \"one\" is not saved: a text in it is not in UTF-8.", "two",
                                   "best: \"best\" is not kept: a text in it is not in UTF-8."});
    CHECK(keeping.slots()[0].title == std::string(199, 'a'));
    keeping.begin();
    CHECK(keeping.best() == Names{"Ada"});
    CHECK(keeping.slots().size() == 2);
  }
  SECTION("nowhere") {
    keeping.options.kept_in.clear();
    keeping.begin();
    keeping.tick([](Stage& stage, Larder&) { stage.save("one"); });
    keeping.tick();
    CHECK(keeping.heard() == Names{"one: \"one\" is not saved: nothing is kept in this run."});
    CHECK(keeping.slots().empty());
  }
  SECTION("where no cue hears it, over the game in a window") {
    Larder::hears = false;
    keeping.options.headless = false;
    keeping.start();
    keeping.tick([](Stage& stage, Larder&) { stage.load("two"); });
    keeping.tick();
    CHECK(keeping.session->trouble().find("\"two\" is not loaded: there is no such save.") !=
          std::string::npos);
  }
  SECTION("a name that is none") {
    Larder::work = [](Stage& stage, Larder&) { stage.save("Slot/1"); };
    CHECK_THROWS_WITH(keeping.session->tick(), Catch::Contains("\"Slot/1\" is no name of a save"));
  }
}

TEST_CASE("saves of every version of a game are read, through its steps") {
  // The first had money in a bag, the second coins in a purse and lives, which the third forgot.
  const std::vector<std::string> kept{"[values.bag]\nmoney = 12\n",
                                      "[values.purse]\ncoins = 12\n[values.lives]\nleft = 3\n",
                                      "[values.purse]\ncoins = 12\n"};
  for (std::size_t i = 0; i < kept.size(); ++i) {
    CAPTURE(i);
    Keeping keeping;
    vole::SaveHead head;
    head.game = "small";
    head.version = static_cast<int>(i) + 1;
    keeping.folder.write("kept/slot old.save", vole::save_text(head, kept[i]));
    keeping.game.saves_are(3);
    keeping.game.save_step(1, [](vole::TomlValue& holds) {
      vole::rename_saved(holds, "values.bag.money", "coins");
      vole::rename_saved(holds, "values.bag", "purse");
    });
    keeping.game.save_step(2, [](vole::TomlValue& holds) { vole::forget_saved(holds, "values.lives"); });
    keeping.begin();
    keeping.tick([](Stage& stage, Larder&) { stage.load("old"); });
    keeping.tick();
    CHECK(keeping.heard() == Names{"old"});
    CHECK(keeping.coins() == 12);
  }
  vole::SaveVersions versions;
  CHECK_THROWS_AS(versions.are(0), std::logic_error);
  CHECK_THROWS_AS(versions.add(1001, nullptr), std::logic_error);
}

TEST_CASE("what arrives out of order in a recording is told with its place") {
  Keeping keeping;
  keeping.folder.write(
      "bad.run",
      "format = 1\ngame = \"small\"\nticks = 9\ninputs = []\narrived = [\n  { tick = 5 },\n  { tick "
      "= 5 },\n]\n");
  CHECK(error_of([&] { vole::read_recording(keeping.folder.path("bad.run")); }, keeping.folder) ==
        "bad.run:7:3: error: what arrived at tick 5 comes after that of tick 5");
  // Of what a changed recording says nothing is believed.
  keeping.begin();
  vole::Arrived arrived;
  arrived.values = {{"best", 1, "[values.best]\nnames = 3\n"}, {"purse", 1, ""}, {"best", 1, "[[["}};
  arrived.saved = vole::ArrivedSave{"one", 1, "[[scenes]]\nscene = \"nowhere\"\n[state]\nformat = 2\n"};
  CHECK(keeping.session->simulation().arrive(arrived).empty());
  keeping.tick();
  CHECK(keeping.heard().size() == 4);
  CHECK(keeping.session->scene_name() == "patch");
}

TEST_CASE("bytes become text in base64 and come back, and other texts are none") {
  CHECK(vole::to_base64({}).empty());
  CHECK(vole::to_base64({'v'}) == "dg==");
  CHECK(vole::to_base64({'v', 'o', 'l'}) == "dm9s");
  vole::Random chance(3);
  for (int i = 0; i < cases(2000, 200); ++i) {
    std::vector<unsigned char> bytes(chance.below(9));
    for (unsigned char& byte : bytes) byte = static_cast<unsigned char>(chance.below(256));
    const std::string text = vole::to_base64(bytes);
    REQUIRE(vole::from_base64(text) == bytes);
    // A letter that is changed gives other bytes, or none.
    std::string changed = text;
    if (changed.empty()) continue;
    char& letter = changed[chance.below(static_cast<std::uint32_t>(changed.size()))];
    letter = "A=z/-"[chance.below(5)];
    if (changed != text) REQUIRE(vole::from_base64(changed) != bytes);
  }
  for (const char* text : {"d", "dg=", "dg=a", "d===", "dh==", "dm9s!", "dm9sdg"})
    CHECK_FALSE(vole::from_base64(text));
}
