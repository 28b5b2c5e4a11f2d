// What it costs to save a large scene: against writing the same bytes as a save that is there already.
#include <benchmark/benchmark.h>

#include <filesystem>

#include "../src/saves/folder_lock.hpp"
#include "game_run.hpp"
#include "vole/app/player_saves.hpp"
#include "vole/base/files.hpp"

namespace {

// The beds, with 10,000 leaves more.
struct Leaves : AllotmentRun {
  const std::string folder = (std::filesystem::temp_directory_path() / "vole-bench-saves").string();
  vole::PlayerSaves saves{folder, project.id.value, game};
  vole::Image picture{project.canvas};

  Leaves() {
    enter("beds");
    for (int i = 0; i < 10'000; ++i)
      simulation.stage().spawn("leaf", {static_cast<float>(i % 300), static_cast<float>(i / 100)});
    simulation.tick(input);
  }
  ~Leaves() { std::filesystem::remove_all(folder); }

  vole::Outbox outbox() {
    simulation.stage().save("leaves", {.title = "Leaves", .scenes = true});
    return simulation.take_outbox();
  }
  void write(const vole::Outbox& out) {
    saves.take(out, [this]() -> const vole::Image& { return picture; });
  }
};

Leaves& leaves() {
  static Leaves one;
  return one;
}

void save(benchmark::State& state) {
  for ([[maybe_unused]] auto round : state) leaves().write(leaves().outbox());
}
// As any program would: whole, flushed, in the place of the old ones.
void same_bytes(benchmark::State& state) {
  const vole::Outbox out = leaves().outbox();
  const std::string file = leaves().folder + "/same.txt";
  for ([[maybe_unused]] auto round : state) {
    vole::write_whole(file + ".new", out.saves[0].holds);
    vole::flush_file(file + ".new");
    std::filesystem::rename(file + ".new", file);
  }
  state.counters["bytes"] = static_cast<double>(out.saves[0].holds.size());
}
void load(benchmark::State& state) {
  leaves().write(leaves().outbox());
  leaves().saves.take_arrived();
  vole::Outbox out;
  out.saves.push_back({vole::SaveAsked::Does::loads, "leaves"});
  for ([[maybe_unused]] auto round : state) {
    leaves().write(out);
    if (const auto wrong = leaves().simulation.arrive(leaves().saves.take_arrived()); !wrong.empty())
      state.SkipWithError(wrong.front().text.c_str());
  }
}
BENCHMARK(save)->Name("save of 10,000 things/vole")->Unit(benchmark::kMillisecond);
BENCHMARK(same_bytes)->Name("save of 10,000 things/the same bytes written")->Unit(benchmark::kMillisecond);
BENCHMARK(load)->Name("load of 10,000 things/vole")->Unit(benchmark::kMillisecond);
BENCHMARK(same_bytes)->Name("load of 10,000 things/the same bytes written")->Unit(benchmark::kMillisecond);

}  // namespace
