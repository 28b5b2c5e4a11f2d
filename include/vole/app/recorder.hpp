// A run that is written down while it is played, and one that is played again.
#pragma once

#include <string>
#include <vector>

#include "vole/app/first_scene.hpp"
#include "vole/app/project.hpp"
#include "vole/input/input_reader.hpp"
#include "vole/input/input_writer.hpp"
#include "vole/input/recording.hpp"

namespace vole {

// Gathers what is done; checksums every now and then help to find where two runs part.
class Recorder {
 public:
  static constexpr std::int64_t ticks_between_checkpoints = 300;

  Recorder(const Project& project, std::uint64_t seed, const Controls& controls,
           const FirstScene& first = {});

  // What comes from outside, before the tick. False: it does not fit any more, and nothing may be added.
  bool add(Arrived arrived);
  // Before the tick.
  void add(std::int64_t ticks, const TickInput& input) { writer_.add(ticks, input, recording_.inputs); }
  // After a tick: whether a checkpoint is due, and the checkpoint.
  bool wants_checkpoint(std::int64_t ticks) const { return ticks % ticks_between_checkpoints == 0; }
  void add_checkpoint(std::int64_t ticks, std::uint64_t checksum);
  // Whether no more may be added, so that what is written can be read.
  bool full() const;
  // Throws Error.
  void write(const std::string& file, std::int64_t ticks, std::uint64_t checksum);

 private:
  Recording recording_;
  InputWriter writer_;
  std::size_t arrived_bytes_ = 0;
};

// Throws Error for a recording of another game, and of another rate of ticks.
void expect_recording_of(const Project& project, const Recording& recording, const std::string& file);

// Gives recorded inputs back and tells where the state differs from the recorded one.
class Replay {
 public:
  // Throws Error for a file that cannot be read, and for one that is of another game or tick rate.
  Replay(const std::string& file, const Project& project, const Controls& controls);

  std::uint64_t seed() const { return static_cast<std::uint64_t>(recording_.seed); }
  std::int64_t length() const { return recording_.ticks; }
  FirstScene first() const { return {recording_.scene.value_or(""), recording_.with.value_or(""), file_}; }
  const TickInput& next() { return reader_.next(); }
  // What came from outside before the next tick, when so many are over; nullptr for nothing, and when it was taken.
  const Arrived* take_arrived(std::int64_t ticks);
  // After a tick: whether check() has something to compare.
  bool wants_check(std::int64_t ticks) const;
  void check(std::int64_t ticks, std::uint64_t checksum);
  const std::vector<Problem>& differences() const { return differences_; }
  // An unchecked recording has nothing to be compared with.
  bool is_unchecked() const { return recording_.checksum.value.empty(); }

 private:
  void check_end(std::uint64_t checksum);

  std::string file_;
  std::string here_;  // this game and library, by their versions
  Recording recording_;
  InputReader reader_;
  std::size_t next_checkpoint_ = 0, next_arrived_ = 0;
  std::vector<Problem> differences_;
};

}  // namespace vole
