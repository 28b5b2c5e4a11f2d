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
// Without a checksum it is unchecked, as one that is written by hand: it is played, and nothing is compared.
//
// An input line is a tick, and what happened in it: a name with what came of it, and the next. An axis has its new value in
// hundredths, one of two dimensions two of them; an action has a '+' for each press and a '-' for each release, in order, or '.'
// when it was let go without a release (a change of scene). A name with blanks is in quotes. What another player did has its
// number, "jump@2 +". A line may tell of several ticks, each so many after the one before: "41 jump +; +11 jump -; +30 walk 0".
// Where the same axes, and the pointer, move in the tick after too, a comma and their values are enough: "41 walk 20, 40, 75". Besides
// there are "*pads 1" (so many are used), "*pointer 40 25" or "*pointer out", and "*wheel 0 -1".
//
// What came from outside, as saves that were loaded, is in `arrived`: see arrived.hpp.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/arrived.hpp"

namespace vole {

class TomlText;

// The state at a tick, to find where two runs part: "300 9f3c20aa17be4d55".
struct Checkpoint {
  std::int64_t tick = 0;
  std::string checksum;
  FilePosition where;
};
void read_field(const TomlValue& toml, Checkpoint& point, const FieldRule& rule, Report& report);
void write_field(TomlText& out, const Checkpoint& point);
TomlValue schema_field(const Checkpoint&, const FieldRule& rule);

struct Recording {
  // Of its file: ten hours with a stick and the pointer moving in every tick, at 60 ticks a second.
  static constexpr std::size_t most_bytes = 40 << 20, most_values = 400'000;

  std::string game;  // its id
  std::string game_version;
  std::string vole_version;
  std::int64_t seed = 0;     // the bits of it: a file's whole numbers are signed
  int ticks_per_second = 0;  // 0: unchecked, and as fast as the game
  std::int64_t ticks = 0;
  // What it begins with, where that is not the game's first scene: its name, and its argument as TOML.
  std::optional<std::string> scene, with;
  Located<std::string> checksum;  // of the state after the last tick, 16 hexadecimal digits; empty: unchecked
  std::vector<Checkpoint> checkpoints;
  std::vector<Located<std::string>> inputs;
  std::vector<Arrived> arrived;  // in the order of ticks
  int format = 1;                // of its file
};
template <class V>
void describe(V& v, Recording& recording) {
  v("format", recording.format);
  v("game", recording.game, needed());
  v("game_version", recording.game_version);
  v("vole_version", recording.vole_version);
  v("seed", recording.seed);
  v("ticks_per_second", recording.ticks_per_second, within(1, 1000));
  v("ticks", recording.ticks, needed().within(0, 1e12));
  v("scene", recording.scene);
  v("with", recording.with);
  v("checksum", recording.checksum);
  v("checkpoints", recording.checkpoints, items(Recording::most_values));
  v("inputs", recording.inputs, needed().items(Recording::most_values));
  v("arrived", recording.arrived, items(Recording::most_values));
}

// Both throw Error.
Recording read_recording(const std::string& path);
void write_recording(const std::string& path, const Recording& recording);
TomlValue recording_schema();  // of its file: see schema.hpp

std::string checksum_text(std::uint64_t checksum);

}  // namespace vole
