// Levels: what size costs a frame, what cells take of memory, and how long CSV takes to become a level.
#include <benchmark/benchmark.h>
#include <fmt/core.h>
#include <stdlib.h>

#include <filesystem>

#include "vole/app/session.hpp"
#include "vole/base/random.hpp"
#include "vole/level/level.hpp"
#include "vole/vole.hpp"

namespace {

constexpr int layers = 16;

class Walk : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    stage.load_level(level);
    stage.follow(stage.first("walker"));
    for (int i = 0; i < 60; ++i) stage.spawn("walker", {40.0f + static_cast<float>(i) * 8, 100});
  }
  static inline std::string level;
};
template <class V>
void describe(V&, Walk&) {}

// A game with two levels of 16 layers: 64 x 64 and 4096 x 4096 cells, filled alike; and CSV of 1024 x 1024 cells.
class Maps {
 public:
  Maps() {
    std::string pattern = (std::filesystem::temp_directory_path() / "vole-bench-XXXXXX").string();
    folder_ = mkdtemp(pattern.data());
    write("game.toml", "title = \"b\"\nid = \"b\"\nfirst_scene = \"walk\"\n");
    write("kinds.toml",
          "[walker]\nsprite = { sheet = \"walker\" }\nbody = { size = [8, 8] }\nside_mover = {}\n");
    write("assets/walker.sheet.toml", "colour = \"#7a4a33\"\nsize = [8, 8]\n");
    write("assets/ground.tileset.toml",
          "size = 16\n[tiles]\na = { colour = \"#4a3026\", solid = true }\nb = { colour = \"#6d8a3f\" }\nc = "
          "{ colour = \"#8d93a6\" }\n");
    for (const int side : {64, 4096}) {
      std::string text = "tileset = \"ground\"\n";
      for (int layer = 0; layer < layers; ++layer)
        text += fmt::format("[[layers]]\nname = \"l{}\"\ncsv = \"{}-{}.csv\"\n", layer, side,
                            layer == 0 ? "floor" : "bits");
      write(fmt::format("levels/{}.level.toml", side),
            text + "[[layers]]\nname = \"things\"\n[[places]]\nkind = \"walker\"\nat = [160, 100]\n");
      write(fmt::format("levels/{}-floor.csv", side), cells(side, true));
      write(fmt::format("levels/{}-bits.csv", side), cells(side, false));
    }
    write("levels/csv.level.toml",
          "tileset = \"ground\"\n[[layers]]\nname = \"ground\"\ncsv = \"csv.csv\"\n");
    write("levels/csv.csv", cells(1024, false));
  }
  ~Maps() { std::filesystem::remove_all(folder_); }
  Maps(const Maps&) = delete;
  Maps& operator=(const Maps&) = delete;

  std::string path(const std::string& name) const { return folder_ + "/" + name; }

 private:
  void write(const std::string& name, const std::string& text) const { vole::write_whole(path(name), text); }

  // A floor with air above it again and again, or a few tiles here and there.
  static std::string cells(int side, bool floor) {
    vole::Random chance(3);
    std::string text;
    for (int y = 0; y < side; ++y)
      for (int x = 0; x < side; ++x) {
        if (floor ? y % 12 == 9 : chance.chance(0.1f)) text += floor ? 'a' : chance.chance(0.5f) ? 'b' : 'c';
        text += x + 1 < side ? ',' : '\n';
      }
    return text;
  }
  std::string folder_;
};

const Maps& maps() {
  static const Maps all;
  return all;
}

// A session in one of the levels, loaded once.
struct Running {
  vole::Game game{"game.toml"};
  vole::HeadlessHost host{60};
  vole::Options options;
  std::unique_ptr<vole::Session> session;
  double memory = 0, filled = 0;

  explicit Running(const std::string& level) {
    Walk::level = level;
    game.scene<Walk>("walk");
    options.seed = 1;
    session =
        std::make_unique<vole::Session>(game, vole::read_project(maps().path("game.toml")), options, host);
    for (int i = 0; i < 120; ++i) session->tick();
    for (const vole::LevelLayer& layer : session->stage().level().file().layers) {
      memory += static_cast<double>(layer.tiles.memory());
      layer.tiles.visit([&](vole::IVec2, std::uint16_t) { ++filled; });
    }
  }
};

void frames(benchmark::State& state, Running& running) {
  for ([[maybe_unused]] auto round : state) {
    running.session->tick();
    benchmark::DoNotOptimize(running.session->draw(1));
  }
  state.counters["MB of cells"] = running.memory / 1e6;
  state.counters["bytes a filled cell"] = running.memory / running.filled;
}
void large_level(benchmark::State& state) {
  static Running running("4096");
  frames(state, running);
}
void small_level(benchmark::State& state) {
  static Running running("64");
  frames(state, running);
}
BENCHMARK(large_level)->Name("level of 4096 x 4096 x 16/vole");
BENCHMARK(small_level)->Name("level of 4096 x 4096 x 16/64 x 64 x 16");

void load_csv(benchmark::State& state) {
  for ([[maybe_unused]] auto round : state) {
    vole::Catalog catalog(maps().path(""));
    benchmark::DoNotOptimize(&*catalog.get<vole::Level>("csv"));
  }
}
void read_csv(benchmark::State& state) {
  for ([[maybe_unused]] auto round : state)
    benchmark::DoNotOptimize(vole::read_bytes(maps().path("levels/csv.csv"), 1 << 26).data());
}
BENCHMARK(load_csv)->Name("level of CSV/vole");
BENCHMARK(read_csv)->Name("level of CSV/reading its bytes");

}  // namespace
