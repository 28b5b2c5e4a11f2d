// A run that can be had again: what was done in each tick, the seed, and checksums of the state. NAME.run is
// TOML:
//
//   format = 1
//   game = "allotment"
//   seed = 7
//   ticks = 1840
//   checksum = "9f3c20aa17be4d55"
//   inputs = ["0 walk 100", "41 jump +", "52 jump -"]
//
// Without a checksum it is a script, as one writes it by hand: it is played, and nothing is compared.
//
// An input line is a tick, a name and what happened: an axis has its new value in hundredths; an action has a
// '+' for each press and a '-' for each release, in order, or '.' when it was let go without a release (a
// change of scene). A name with blanks is in quotes.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/tick_input.hpp"

namespace vole {

// The state at a tick, to find where two runs part: "300 9f3c20aa17be4d55".
struct Checkpoint {
  std::int64_t tick = 0;
  std::string checksum;
  FilePosition where;
};

struct Recording {
  std::string game;  // its id
  std::string game_version;
  std::string vole_version;
  std::uint64_t seed = 0;
  int ticks_per_second = 0;  // 0: a script that goes at the game's
  std::int64_t ticks = 0;
  std::string checksum;  // of the state after the last tick, 16 hexadecimal digits; empty for a script
  std::vector<Checkpoint> checkpoints;
  std::vector<Located<std::string>> inputs;
};

// Both throw Error.
Recording read_recording(const std::string& path);
void write_recording(const std::string& path, const Recording& recording);
Node recording_schema();  // of its file: see schema.hpp

std::string checksum_text(std::uint64_t checksum);

// Turns the inputs of ticks, one after the other, into lines.
class InputWriter {
 public:
  explicit InputWriter(const Controls& controls) : controls_(controls), last_(controls) {}

  void add(std::int64_t tick, const TickInput& input, std::vector<Located<std::string>>& lines);

 private:
  const Controls& controls_;
  TickInput last_;
};

// Gives the inputs of a recording back, tick after tick.
class InputReader {
 public:
  // Throws Error, all at once, for lines that do not parse, are out of order or name what the game does not
  // have. `controls` must outlive this.
  InputReader(const Recording& recording, const Controls& controls);

  // The input of the next tick; after the last line everything stays as it is.
  const TickInput& next();

 private:
  struct Line {
    std::int64_t tick = 0;
    std::size_t index = 0;
    bool is_axis = false;
    std::int8_t value = 0;
    TickInput::ActionState state;
  };

  void parse(const Located<std::string>& text, const Controls& controls, Report& report);
  void parse_action(const Located<std::string>& text, std::int64_t tick, std::size_t index,
                    std::string_view changes, Report& report);
  void parse_axis(const Located<std::string>& text, std::int64_t tick, std::size_t index,
                  std::string_view pushed, Report& report);

  std::vector<Line> lines_;
  std::size_t at_ = 0;
  std::int64_t tick_ = 0;
  TickInput input_;
};

}  // namespace vole
