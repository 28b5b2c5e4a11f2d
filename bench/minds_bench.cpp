// What minds cost: ten thousand of them in a tick against a thousand, and ways over a maze against a plain search of the same.
#include <benchmark/benchmark.h>
#include <fmt/core.h>
#include <stdlib.h>

#include <deque>
#include <filesystem>
#include <memory>

#include "game_run.hpp"
#include "vole/base/files.hpp"
#include "vole/level/way_field.hpp"
#include "vole/world/mind.hpp"

namespace {

// Things with minds on a meadow with walls in it: so many on so much room that each has the same around it.
class Herd : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    stage.load_level(fmt::format("{}", count));
    vole::Random chance(4);
    const vole::IVec2 size = stage.level().size();
    for (int i = 0; i < count; ++i) {
      const vole::Vec2 at{chance.within(20, static_cast<float>(size.x) - 20),
                          chance.within(20, static_cast<float>(size.y) - 20)};
      stage.spawn(i % 20 == 0 ? "fox" : "goose", at);
    }
  }
  static inline int count = 0;
};
template <class V>
void describe(V&, Herd&) {}

// Two hundred that chase one thing over ledges.
class Terraces : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    stage.load_level("terraces");
    stage.spawn("hare", {1500, 40});
    for (int i = 0; i < 200; ++i) stage.spawn(chaser, {40 + static_cast<float>(i) * 7, 368});
  }
  static inline std::string chaser;
};
template <class V>
void describe(V&, Terraces&) {}

class Meadows {
 public:
  Meadows() {
    std::string pattern = (std::filesystem::temp_directory_path() / "vole-bench-XXXXXX").string();
    folder = mkdtemp(pattern.data());
    write("game.toml",
          "title = \"b\"\nid = \"b\"\nfirst_scene = \"herd\"\n[categories]\nbirds = { blocks = [\"ground\"] "
          "}\n");
    write("controls.toml", "");
    write("kinds.toml",
          "[goose]\nbody = { size = [8, 8], category = \"birds\" }\ntop_mover = { speed = 40 }\n"
          "mind = [{ does = \"flee\", of = \"fox\", within = 48, seen = true }, { does = \"wander\" }]\n"
          "[fox]\nbody = { size = [8, 8], category = \"birds\" }\ntop_mover = { speed = 50 }\n"
          "mind = [{ does = \"chase\", of = \"goose\", within = 96, seen = true }, { does = \"patrol\" }]\n"
          "[hare]\nbody = { size = [8, 8], category = \"birds\" }\n"
          "[stoat]\nbody = { size = [10, 12], category = \"birds\" }\nside_mover = {}\n"
          "mind = [{ does = \"chase\", of = \"hare\", within = 9000, finds_way = true }]\n"
          "[weasel]\nfrom = \"stoat\"\n"
          "mind = [{ does = \"chase\", of = \"hare\", within = 9000 }]\n");
    write("assets/meadow.tileset.toml",
          "size = 16\n[tiles]\nwall = { colour = \"#4a3026\", solid = true }\n");
    meadow(1000, 96);
    meadow(10000, 304);
    terraces();
  }
  ~Meadows() { std::filesystem::remove_all(folder); }
  Meadows(const Meadows&) = delete;
  Meadows& operator=(const Meadows&) = delete;

  std::string folder;

 private:
  void write(const std::string& name, const std::string& text) const {
    vole::write_whole(folder + "/" + name, text);
  }
  // Of 96 x 24 cells: shelves of four cells, each two higher or lower than the last.
  void terraces() const {
    std::string text =
        "tileset = \"meadow\"\nletters = { \".\" = \"\", \"#\" = \"wall\" }\n[[layers]]\nname = "
        "\"ground\"\nrows = [\n";
    for (int y = 0; y < 24; ++y) {
      text += '"';
      for (int x = 0; x < 96; ++x)
        text += y == 23 || (x % 6 < 4 && y % 8 == (x / 6 % 4) * 2 && y > 4) ? '#' : '.';
      text += "\",\n";
    }
    write("levels/terraces.level.toml", text + "]\n");
  }
  void meadow(int count, int side) const {
    std::string text =
        "tileset = \"meadow\"\nletters = { \".\" = \"\", \"#\" = \"wall\" }\n[[layers]]\nname = "
        "\"ground\"\nrows = [\n";
    for (int y = 0; y < side; ++y) {
      text += '"';
      for (int x = 0; x < side; ++x) {
        const bool edge = x == 0 || y == 0 || x + 1 == side || y + 1 == side;
        text += edge || (x % 12 == 5 && y % 12 < 7) ? '#' : '.';
      }
      text += "\",\n";
    }
    write(fmt::format("levels/{}.level.toml", count), text + "]\n");
  }
};

struct HerdRun : GameRun {
  explicit HerdRun(const std::string& folder, int count) : GameRun(make(), folder) {
    Herd::count = count;
    enter("herd");
    for (int i = 0; i < 60; ++i) simulation.tick(input);
  }
  static vole::Game make() {
    vole::Game game("game.toml");
    game.scene<Herd>("herd");
    return game;
  }
};

struct TerraceRun : GameRun {
  TerraceRun(const std::string& folder, const char* chaser) : GameRun(make(), folder) {
    Terraces::chaser = chaser;
    enter("terraces");
    // Until all know their way.
    for (int i = 0; i < 600; ++i) simulation.tick(input);
  }
  static vole::Game make() {
    vole::Game game("game.toml");
    game.scene<Herd>("herd").scene<Terraces>("terraces");
    return game;
  }
};

const Meadows& meadows() {
  static const Meadows all;
  return all;
}

// A tick for ten thousand: in one herd; in ten herds, each with its own things; or ten times for one herd of a thousand, which the
// processor has at hand from the second time on, as no game has.
void ten_thousand(benchmark::State& state) {
  static HerdRun herd(meadows().folder, 10000);
  for ([[maybe_unused]] auto round : state) herd.simulation.tick(herd.input);
}
void ten_herds(benchmark::State& state) {
  static std::deque<HerdRun> herds;
  while (herds.size() < 10) herds.emplace_back(meadows().folder, 1000);
  for ([[maybe_unused]] auto round : state)
    for (HerdRun& herd : herds) herd.simulation.tick(herd.input);
}
void one_herd_ten_times(benchmark::State& state) {
  static HerdRun herd(meadows().folder, 1000);
  for ([[maybe_unused]] auto round : state)
    for (int i = 0; i < 10; ++i) herd.simulation.tick(herd.input);
}
BENCHMARK(ten_thousand)->Name("10,000 minds/vole")->Unit(benchmark::kMillisecond);
BENCHMARK(ten_herds)->Name("10,000 minds/ten herds of 1,000")->Unit(benchmark::kMillisecond);
BENCHMARK(one_herd_ten_times)->Name("10,000 minds/one of 1,000, ten times")->Unit(benchmark::kMillisecond);

void over_ledges(benchmark::State& state) {
  static TerraceRun run(meadows().folder, "stoat");
  for ([[maybe_unused]] auto round : state) run.simulation.tick(run.input);
}
void straight_on(benchmark::State& state) {
  static TerraceRun run(meadows().folder, "weasel");
  for ([[maybe_unused]] auto round : state) run.simulation.tick(run.input);
}
BENCHMARK(over_ledges)->Name("200 minds over ledges/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(straight_on)->Name("200 minds over ledges/straight on")->Unit(benchmark::kMicrosecond);

// A maze of 512 x 512 cells: walls around rooms of one cell, with doors by chance.
struct Maze {
  static constexpr int side = 512;
  std::vector<std::uint8_t> open = std::vector<std::uint8_t>(side * side, 0);

  Maze() {
    vole::Random chance(9);
    for (int y = 1; y < side - 1; y += 2)
      for (int x = 1; x < side - 1; x += 2) {
        at(x, y) = 1;
        // A door to the right or down, and sometimes both.
        if (chance.chance(0.6f) && x + 2 < side - 1) at(x + 1, y) = 1;
        if (chance.chance(0.6f) && y + 2 < side - 1) at(x, y + 1) = 1;
      }
  }
  std::uint8_t& at(int x, int y) { return open[static_cast<std::size_t>(y * side + x)]; }
};
const Maze& maze() {
  static const Maze one;
  return one;
}

// From the middle to all that can be reached.
void ways_over_maze(benchmark::State& state) {
  for ([[maybe_unused]] auto round : state) {
    vole::WayField ways({{0, 0}, {Maze::side, Maze::side}}, {255, 255}, vole::WaySteps::four,
                        [](vole::IVec2 cell) {
                          return maze().open[static_cast<std::size_t>(cell.y * Maze::side + cell.x)] != 0;
                        });
    // A wall is never reached, so all is looked at.
    benchmark::DoNotOptimize(ways.length({0, 0}));
    state.counters["cells"] = static_cast<double>(ways.looked_at());
  }
}
void plain_search(benchmark::State& state) {
  for ([[maybe_unused]] auto round : state) {
    std::vector<int> lengths(Maze::side * Maze::side, -1);
    std::deque<vole::IVec2> waiting{{255, 255}};
    lengths[255 * Maze::side + 255] = 0;
    while (!waiting.empty()) {
      const vole::IVec2 cell = waiting.front();
      waiting.pop_front();
      for (const vole::IVec2 way : {vole::IVec2{1, 0}, {0, 1}, {-1, 0}, {0, -1}}) {
        const vole::IVec2 to = cell + way;
        if (to.x < 0 || to.y < 0 || to.x >= Maze::side || to.y >= Maze::side) continue;
        const auto index = static_cast<std::size_t>(to.y * Maze::side + to.x);
        if (maze().open[index] == 0 || lengths[index] >= 0) continue;
        lengths[index] = lengths[static_cast<std::size_t>(cell.y * Maze::side + cell.x)] + 1;
        waiting.push_back(to);
      }
    }
    benchmark::DoNotOptimize(lengths.data());
  }
}
BENCHMARK(ways_over_maze)->Name("ways over 512 x 512/vole")->Unit(benchmark::kMillisecond);
BENCHMARK(plain_search)->Name("ways over 512 x 512/plain search")->Unit(benchmark::kMillisecond);

}  // namespace
