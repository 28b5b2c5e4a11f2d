// What a single step of a sequence does: how it begins, and when it is over.
#pragma once

#include "scene/tick.hpp"
#include "vole/world/running_sequences.hpp"

namespace vole {

class StepWork {
 public:
  StepWork(Tick& tick, const RunningSequence& running, SequenceBranch& branch, const SequenceStep& step)
      : tick_(tick), running_(running), branch_(branch), step_(step) {}

  // Throws Error for what is not there.
  void begin();
  // Goes on in the tick; whether the step is over.
  bool is_over();

 private:
  // The piece of the level in which places are looked up.
  std::uint32_t piece() const;
  Entity meant_thing() const;
  // What the step is about; none: nothing that is there.
  Entity thing() const;
  bool time_is_over() const;
  bool conditions_hold() const;
  void begin_clip();
  bool clip_is_over();
  void begin_tween();
  void hurry_tween();
  bool text_is_over();
  Vec2 way() const;
  bool has_come();
  bool is_moved(Vec2 way);
  bool walks(Vec2 way);

  Tick& tick_;
  const RunningSequence& running_;
  SequenceBranch& branch_;
  const SequenceStep& step_;
};

// How many ticks the step can be left alone for.
std::int64_t ticks_until_due(const SequenceStep& step, const SequenceBranch& branch, int ticks_per_second);

// Of a text that is said: how many letters are shown after so many ticks, and when the last one is.
inline constexpr int letters_a_second = 30;
std::int64_t ticks_of_letters(std::string_view text, int ticks_per_second);
std::string_view shown_letters(std::string_view text, std::int64_t ticks, int ticks_per_second);

}  // namespace vole
