// The options that every game answers.
#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "vole/app/first_scene.hpp"
#include "vole/scene/pictures/xray.hpp"

namespace vole {

// A file that is written at a tick: a picture, or a state.
struct Shot {
  std::string file;
  std::optional<std::int64_t> tick;  // after this many ticks; nothing: at the end of the run
};

struct Options {
  bool headless = false;
  std::optional<std::int64_t> ticks;  // end after this many
  std::vector<Shot> shots;            // pictures
  std::vector<Shot> states;           // as TOML
  FirstScene first;
  std::string print;             // values that are printed (printed_values.hpp); empty: none
  std::int64_t print_every = 1;  // ticks
  std::optional<std::uint64_t> seed;
  std::string record;
  std::string replay;
  std::string compare;  // another recording: both are played side by side, and where they part is printed
  XrayParts xray;
  bool force = false;  // replace files that are no outputs of Vole (base/output_files.hpp)
  bool mute = false;
  std::string schemas;  // a folder: nothing is played, only the schemas of the game's files are written there
  std::string
      kept_in;  // a folder, for what is kept for the player; empty: the usual place, and nothing without a window
  int scale = 0;  // 0: as large as fits; for shots 4
};

// Reads a game's command line. Returns an exit code when the program should end at once (0 after --help, 2
// after printing what is wrong with the command line).
std::optional<int> parse_options(int argc, const char* const* argv, const std::string& title,
                                 Options& options);

// What is wrong with a word of a command line that no option takes: `no option "--tick"; did you mean
// "--ticks"?`, or `unexpected word "stray"`.
std::string not_understood(const std::string& word, std::span<const std::string> options);

}  // namespace vole
