// The part of a stage that is about sequences: lists of steps that a thing, or the scene, takes (world/sequence.hpp).
//
//   stage.start_sequence("opening", gate);                                       // of its kind
//   stage.start_sequence("arrival", vole::Steps().wait(1).tell("there"), cart);  // see steps.hpp
//   if (stage.sequence_step("arrival", cart) == "on the way") ...
//
// They are state, go on while the things of the scene do, and end with their thing.
#pragma once

#include <cstdint>
#include <string_view>
#include <vector>

#include "vole/base/entity.hpp"
#include "vole/scene/stage_time.hpp"

namespace vole {

class Steps;
struct Binding;
struct RunningSequence;
struct Sequence;

// A text that a step says, as far as it is shown by now.
struct Said {
  Entity by;  // none: the scene
  std::string_view text;
  std::string_view all;  // as it will be
};

class StageSequences : public StageTime {
 public:
  // In place of one of the same name and thing; none for a thing that is removed. Throws Error with the nearest name for a
  // sequence that its kind does not have, and for a name to be told that no cue waits for.
  void start_sequence(std::string_view name, Entity thing);
  // Without a thing it is the scene's.
  void start_sequence(std::string_view name, const Steps& steps, Entity thing = {});
  void cancel_sequence(std::string_view name, Entity thing = {});
  // Ends the steps that take time alone, as its action does: waiting, clips, tweens; a text is first shown as a whole. What is moved without
  // a mover is there at once.
  void hurry_sequence(std::string_view name, Entity thing = {});
  bool has_sequence(std::string_view name, Entity thing = {}) const;
  // The name of the step that it is at; of several side by side the first that has one. Empty: none.
  std::string_view sequence_step(std::string_view name, Entity thing = {}) const;
  // What is said now. The library draws it in a plain way, unless it is told that the scene does (show_said).
  std::vector<Said> said() const;
  void show_said(bool shows);

 protected:
  StageSequences(World& world, const Binding& binding, int ticks_per_second)
      : StageTime(world, ticks_per_second), binding_(binding) {}
  ~StageSequences() = default;

 private:
  void start(RunningSequence running);
  // What its steps tell has cues, and its action is there.
  void expect_told(const Sequence& sequence) const;

  const Binding& binding_;
};

}  // namespace vole
