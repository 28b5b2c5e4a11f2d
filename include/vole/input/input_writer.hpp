// Turns the inputs of ticks, one after the other, into the lines of a recording (recording.hpp).
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/tick_input.hpp"

namespace vole {

class InputWriter {
 public:
  explicit InputWriter(const Controls& controls) : controls_(controls), last_(controls) {}

  void add(std::int64_t tick, const TickInput& input, std::vector<Located<std::string>>& lines);
  // That all lines take in a file.
  std::size_t bytes() const { return bytes_; }

 private:
  // What happened in a tick.
  struct Written {
    std::string words;          // names and what came of them
    std::string names, values;  // the same apart, where all are axes and the pointer
    bool moves_only = true;

    void add(const std::string& name, const std::string& value, bool moves = false);
  };
  void add_player(std::size_t player, const TickInput::Player& now, Written& written) const;
  void add_pointer(const Pointer& now, Written& written) const;
  void write(std::int64_t tick, const Written& written, std::vector<Located<std::string>>& lines);

  const Controls& controls_;
  TickInput last_;
  std::int64_t tick_ = 0;  // of what was written last
  std::string names_;      // of what moved in it, if nothing else happened
  std::size_t bytes_ = 0;
};

}  // namespace vole
