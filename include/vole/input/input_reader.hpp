// Gives the inputs of a recording (recording.hpp) back, tick after tick.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/tick_input.hpp"

namespace vole {

struct Recording;

class InputReader {
 public:
  // Throws Error, all at once, for lines that do not parse, are out of order or name what the game does not
  // have. `controls` must outlive this.
  InputReader(const Recording& recording, const Controls& controls);

  // The input of the next tick; after the last line everything stays as it is.
  const TickInput& next();
  // So many ticks come in which nothing changes; and to go past some of them at once.
  std::int64_t quiet_ticks() const;
  void skip(std::int64_t ticks) { tick_ += ticks; }

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
