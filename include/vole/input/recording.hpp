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
// An input line is a tick, and what happened in it: a name with what came of it, and the next. An axis has its new value in
// hundredths, one of two dimensions two of them; an action has a '+' for each press and a '-' for each release, in order, or '.'
// when it was let go without a release (a change of scene). A name with blanks is in quotes. What another player did has its
// number, "jump@2 +". A line may tell of several ticks, each so many after the one before: "41 jump +; +11 jump -; +30 walk 0".
// Where the same axes, and the pointer, move in the tick after too, a comma and their values are enough: "41 walk 20, 40, 75". Besides
// there are "*pads 1" (so many are used), "*pointer 40 25" or "*pointer out", and "*wheel 0 -1".
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
  // Of its file: ten hours with a stick and the pointer moving in every tick, at 60 ticks a second.
  static constexpr std::size_t most_bytes = 40 << 20, most_values = 400'000;

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
  // That all lines take in a file.
  std::size_t bytes() const { return bytes_; }

 private:
  // What happened in a tick.
  struct Told {
    std::string words;          // names and what came of them
    std::string names, values;  // the same apart, where all are axes and the pointer
    bool moves_only = true;

    void add(const std::string& name, const std::string& value, bool moves = false);
  };
  void add_player(std::size_t player, const TickInput::Player& now, Told& told) const;
  void add_pointer(const Pointer& now, Told& told) const;
  void write(std::int64_t tick, const Told& told, std::vector<Located<std::string>>& lines);

  const Controls& controls_;
  TickInput last_;
  std::int64_t tick_ = 0;  // of what was written last
  std::string names_;      // of what moved in it, if nothing else happened
  std::size_t bytes_ = 0;
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
  struct Change {
    enum class What : std::uint8_t { action, axis, pads, pointer, wheel, asked };

    std::int64_t tick = 0;
    What what = What::action;
    std::uint8_t player = 0;  // from 0 on
    std::size_t index = 0;
    TickInput::ActionState action;
    TickInput::AxisState axis;
    std::uint8_t pads = 0;
    IVec2 at{0, 0};  // of pointer and wheel
    bool outside = false;
    std::string asked;  // the name of a control
  };

  // All throw Error.
  void parse_line(const Located<std::string>& line, const Controls& controls);
  void parse(const Located<std::string>& text, const Controls& controls);
  void parse_values(const Located<std::string>& text, const Controls& controls);
  void parse_change(std::int64_t tick, std::string_view& rest, const Located<std::string>& text,
                    const Controls& controls);
  static std::uint8_t take_player(std::string& name, bool is_quoted, std::string_view& rest,
                                  const Located<std::string>& text, const Controls& controls);
  static std::uint8_t player_of(std::string_view number, const Located<std::string>& text,
                                const Controls& controls);
  static int take_whole(int least, int most, std::string_view& rest, const Located<std::string>& text);
  static void parse_action(std::size_t index, Change& change, std::string_view& rest,
                           const Located<std::string>& text);
  static void parse_axis(std::size_t index, bool is_flat, Change& change, std::string_view& rest,
                         const Located<std::string>& text);
  static void parse_other(std::string_view name, Change& change, std::string_view& rest,
                          const Located<std::string>& text);
  void apply(const Change& change);

  std::vector<Change> changes_;
  std::size_t at_ = 0;
  std::int64_t tick_ = 0;
  TickInput input_;
};

}  // namespace vole
