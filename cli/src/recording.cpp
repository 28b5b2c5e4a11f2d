// What recordings hold, and where two of them part.
#include "vole/input/recording.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <optional>

#include "command.hpp"
#include "commands.hpp"
#include "game_files.hpp"
#include "process.hpp"
#include "vole/app/project.hpp"
#include "vole/base/files.hpp"
#include "vole/input/controls.hpp"
#include "vole/input/input_reader.hpp"

namespace {

using vole::Controls;
using vole::Recording;
using vole::TickInput;

constexpr int usual_ticks_per_second = 60;

std::string time_of(std::int64_t ticks, int ticks_per_second) {
  const std::int64_t seconds = ticks / std::max(ticks_per_second, 1);
  return seconds < 60 ? fmt::format("{} s", seconds) : fmt::format("{} min {} s", seconds / 60, seconds % 60);
}

// Of the game around the file; none where there is no game, or another.
std::optional<Controls> controls_of(const std::string& file, const Recording& recording) {
  const std::string root = game_around(vole::folder_of(std::filesystem::absolute(file).generic_string()));
  const std::string controls = vole::join_path(root, "controls.toml");
  if (root.empty() || !vole::file_exists(controls)) return std::nullopt;
  if (vole::read_project(vole::join_path(root, "game.toml")).id.value != recording.game) return std::nullopt;
  return vole::read_controls(controls);
}

// How often each action was pressed, and how long each axis was pushed, by player.
class Counts {
 public:
  explicit Counts(const Controls& controls) : controls_(controls) {}

  // For so many ticks in which it is the same.
  void add(const TickInput& input, std::int64_t ticks = 1) {
    for (std::size_t player = 0; player < input.players.size(); ++player) {
      const TickInput::Player& its = input.players[player];
      for (std::size_t i = 0; i < its.actions.size(); ++i)
        presses_[{player, controls_.actions_of(player)[i].name}] += its.actions[i].presses;
      for (std::size_t i = 0; i < its.axes.size(); ++i)
        pushed_[{player, controls_.axes_of(player)[i].name}] +=
            its.axes[i].x != 0 || its.axes[i].y != 0 ? ticks : 0;
    }
  }
  void print(int ticks_per_second) const {
    for (const auto& [which, count] : presses_)
      if (count > 0) fmt::print("  {}: pressed {} time{}\n", name_of(which), count, count == 1 ? "" : "s");
    for (const auto& [which, ticks] : pushed_)
      if (ticks > 0) fmt::print("  {}: pushed for {}\n", name_of(which), time_of(ticks, ticks_per_second));
  }

 private:
  using NameOfPlayer = std::pair<std::size_t, std::string>;
  static std::string name_of(const NameOfPlayer& which) {
    return which.first == 0 ? which.second : fmt::format("{} of player {}", which.second, which.first + 1);
  }

  const Controls& controls_;
  std::map<NameOfPlayer, std::int64_t> presses_, pushed_;
};

void print_contents(const std::string& file, const Recording& recording) {
  const int rate = recording.ticks_per_second > 0 ? recording.ticks_per_second : usual_ticks_per_second;
  // It need not say either version.
  fmt::print("{}: {}{}{}\n", file, recording.game,
             recording.game_version.empty() ? "" : " " + recording.game_version,
             recording.vole_version.empty() ? "" : ", recorded with vole " + recording.vole_version);
  fmt::print("  {} ticks ({}), seed {}, {} checkpoints, {}\n", recording.ticks,
             time_of(recording.ticks, rate), static_cast<std::uint64_t>(recording.seed),
             recording.checkpoints.size(),
             recording.checksum.value.empty() ? "unchecked: its end is not compared"
                                              : "ends in state " + recording.checksum.value);
  const std::optional<Controls> controls = controls_of(file, recording);
  if (!controls) {
    fmt::print("  no game \"{}\" is around it, so what was pressed is not counted\n", recording.game);
    return;
  }
  vole::InputReader reader(recording, *controls);
  Counts counts(*controls);
  for (std::int64_t tick = 0; tick < recording.ticks; ++tick) {
    counts.add(reader.next());
    const std::int64_t quiet = std::min(reader.quiet_ticks(), recording.ticks - tick - 1);
    if (quiet <= 0) continue;
    counts.add(reader.next(), quiet);
    reader.skip(quiet - 1);
    tick += quiet;
  }
  counts.print(rate);
}

void print_where_they_part(const std::string& first, const Recording& a, const Recording& b) {
  if (a.seed != b.seed)
    fmt::print("their seeds are {} and {}\n", static_cast<std::uint64_t>(a.seed),
               static_cast<std::uint64_t>(b.seed));
  if (const std::optional<Controls> controls = controls_of(first, a)) {
    vole::InputReader one(a, *controls), other(b, *controls);
    std::int64_t tick = 0;
    const std::int64_t both = std::min(a.ticks, b.ticks);
    while (tick < both && one.next() == other.next()) {
      ++tick;
      const std::int64_t quiet = std::min({one.quiet_ticks(), other.quiet_ticks(), both - tick});
      if (quiet <= 0) continue;
      one.skip(quiet);
      other.skip(quiet);
      tick += quiet;
    }
    if (tick < both)
      fmt::print("what is done differs first in tick {}\n", tick + 1);
    else
      fmt::print("what is done is the same in {} ticks\n", both);
  }
  // Both are in the order of their ticks.
  std::int64_t alike = 0;
  for (auto one = a.checkpoints.begin(), other = b.checkpoints.begin();
       one != a.checkpoints.end() && other != b.checkpoints.end();) {
    if (one->tick == other->tick && one->checksum != other->checksum) {
      fmt::print("their states are the same after tick {}, and differ after tick {}\n", alike, one->tick);
      return;
    }
    if (one->tick == other->tick) alike = one->tick;
    const std::int64_t next = std::min(one->tick, other->tick);
    if (one->tick == next) ++one;
    if (other != b.checkpoints.end() && other->tick == next) ++other;
  }
  fmt::print("their states are the same at all checkpoints\n");
}

struct RecordingOptions {
  std::vector<std::string> files;
  std::string game;  // the program, to play two of them side by side
};

int show_recordings(const RecordingOptions& options) {
  std::vector<Recording> recordings;
  for (const std::string& file : options.files) recordings.push_back(vole::read_recording(file));
  for (std::size_t i = 0; i < recordings.size(); ++i) print_contents(options.files[i], recordings[i]);
  if (recordings.size() != 2) {
    if (!options.game.empty())
      throw vole::Error(vole::FilePosition{}, "a game plays two recordings side by side",
                        "name two, or leave out --game");
    return 0;
  }
  if (recordings[0].game != recordings[1].game)
    throw vole::Error(vole::FilePosition::whole_file(options.files[1]),
                      fmt::format("is of the game \"{}\", and the other of \"{}\"", recordings[1].game,
                                  recordings[0].game));
  print_where_they_part(options.files[0], recordings[0], recordings[1]);
  if (options.game.empty()) {
    fmt::print("with --game PROGRAM both are played, to show the first tick, thing and field that differ\n");
    return 0;
  }
  if (!program_exists(options.game) && !vole::file_exists(options.game))
    throw vole::Error(vole::FilePosition::whole_file(options.game), "no such program",
                      "--game is the game's program: --game build/my-game");
  const ProcessResult result =
      run_process({options.game, "--replay", options.files[0], "--compare", options.files[1]});
  fmt::print("{}", result.output);
  return result.code;
}

}  // namespace

void add_recording(CommandLine& line) {
  const auto options = std::make_shared<RecordingOptions>();
  Command command = line.add("recording", "Say what recordings hold, and of two where they part",
                             "  vole recording recordings/harvest.run\n"
                             "  vole recording before.run after.run --game build/my-game",
                             [options] { return show_recordings(*options); });
  command.word("FILE", options->files, "Recordings, as --record writes them").needed();
  command.word("--game", options->game, "The game's program: it plays two recordings side by side")
      .value_name("PROGRAM");
}
