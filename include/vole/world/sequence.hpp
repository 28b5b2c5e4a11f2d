// Lists of steps that a thing, or a scene, takes one after the other: what a cut-scene is made of. In kinds.toml:
//
//   [gate.sequences.opening]
//   starts = true                                    # with the thing's life
//   hurried_by = "act"                               # this action ends a step that takes time alone
//   steps = [
//     { does = "wait", seconds = 0.5 },
//     { does = "play", clip = "open" },
//     { does = "together", sequences = ["swing", "shine"] },
//     { does = "tell", told = "gate open" },
//   ]
//
// What a step is about is the thing that has the sequence; `thing` names another, by its place in the level. In C++ they are written in
// the same order: see scene/steps.hpp; to begin one see scene/stage_sequences.hpp. The other steps:
//
//   { does = "wait until", when = ["grounded"] }                    # conditions as in clip rules
//   { does = "wait for", told = "bell" }                            # a name that is told, about the thing or about none
//   { does = "go", to = "well", speed = 40 }                        # a place of the level, or at = [120, 80]; with a mover it walks there
//   { does = "tween", field = "sprite.opacity", number = 0, seconds = 1, ease = "quad out" }   # or pair = [2, 2], colour = "#ffffff"
//   { does = "say", text = "Good morning!" }                        # until it can have been read
//   { does = "repeat", sequences = ["swing"], times = 3 }           # 0: without end
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/describe.hpp"
#include "vole/base/easing.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/vec.hpp"
#include "vole/base/vec4.hpp"

namespace vole {

class Conditions;
class InLevel;
class OfKind;

enum class StepDoes : std::uint8_t {
  wait,
  tell,        // a name, whose cue is called
  wait_until,  // all conditions hold
  wait_for,    // a name is told
  go,          // somewhere
  play,        // a clip to its end, or one round of it
  tween,       // a field becomes another value
  say,         // a text is shown, letter by letter
  together,    // several sequences side by side, to the end of the last
  repeat       // one sequence, so many times
};

// What a step can do, a row for each: its word, the fields that it needs, and those that it may have.
struct StepDeed {
  std::string_view word;
  std::string_view needs;
  std::string_view may;

  bool takes_sequences() const { return needs == "sequences"; }
};
inline constexpr std::array<StepDeed, 10> step_deeds{
    {{"wait", "seconds", ""},
     {"tell", "told", "thing"},
     {"wait until", "when", "thing seconds"},
     {"wait for", "told", "seconds"},
     {"go", "", "to at speed thing seconds"},
     {"play", "clip", "thing"},
     {"tween", "field", "number pair colour seconds ease thing"},
     {"say", "text", "thing seconds"},
     {"together", "sequences", ""},
     {"repeat", "sequences", "times"}}};
constexpr auto enum_names(StepDoes) {
  std::array<std::string_view, step_deeds.size()> words;
  for (std::size_t i = 0; i < words.size(); ++i) words[i] = step_deeds[i].word;
  return words;
}

inline constexpr std::size_t most_sequence_steps = 4096;
inline constexpr std::size_t most_sequences = 256;  // of one thing
inline constexpr std::size_t most_sequences_at_once = 64;

struct SequenceStep {
  StepDoes does = StepDoes::wait;
  const StepDeed& deed() const { return step_deeds[static_cast<std::size_t>(does)]; }
  // What most steps are asked for in each of them, side by side in memory.
  float seconds = 0;  // that it takes, or at most
  int times = 1;
  std::vector<std::uint32_t> lists;  // the sequences, by their places in the list
  Entity entity;                     // that it is about, where code has said so
  Located<std::string> thing;        // the same by its place; empty: the one that has the sequence
  std::string name;                  // by which a game can ask whether it is here
  Located<std::string> told;
  std::vector<Located<std::string>> when;
  Located<std::string> to;
  std::optional<Vec2> at;
  float speed = 0;  // pixels a second; with a mover as fast as that goes
  Located<std::string> clip;
  Located<std::string> field;  // "component.field"
  std::optional<float> number;
  std::optional<Vec2> pair;
  std::optional<Colour> colour;
  Vec4 value{0, 0, 0, 0};  // of the tween, as in FieldRef: what number, pair or colour say
  Ease ease = Ease::linear;
  std::string text;
  std::vector<Located<std::string>> sequences;
};
template <class V>
void describe(V& v, SequenceStep& step) {
  v("does", step.does, needed());
  v("name", step.name);
  v("thing", step.thing);
  v("seconds", step.seconds, within(0, 3600));
  v("told", step.told);
  v("when", step.when, items(32));
  v("to", step.to);
  v("at", step.at, position());
  v("speed", step.speed, within(0, 65536));
  v("clip", step.clip);
  v("field", step.field);
  v("number", step.number, within(-1e9, 1e9));
  v("pair", step.pair, within(-1e9, 1e9));
  v("colour", step.colour);
  v("ease", step.ease);
  v("text", step.text);
  v("sequences", step.sequences, items(most_sequences_at_once));
  v("times", step.times, within(0, 1e9));
  v.state("entity", step.entity);
  v.state("value", step.value);
  v.state("lists", step.lists);
}

struct Sequence {
  bool starts = false;
  Located<std::string> hurried_by;
  bool takes_over = false;  // nothing but its steps steers the thing meanwhile
  std::vector<Located<SequenceStep>> steps;

  // Of each step, in order: made from them, so no state.
  mutable std::shared_ptr<const Conditions> conditions = {};
};
template <class V>
void describe(V& v, Sequence& sequence) {
  v("starts", sequence.starts);
  v("hurried_by", sequence.hurried_by);
  v("takes_over", sequence.takes_over);
  v("steps", sequence.steps, needed().items(most_sequence_steps));
}

// Those of a thing, by name.
struct Sequences {
  Named<Sequence> all;

  // Its place in the list; the list's size when there is none.
  std::size_t find(std::string_view name) const;
};
template <class V>
void describe(V& v, Sequences& sequences) {
  v.rest(sequences.all);
}

// That a thing's sequences which start with its life have done so.
struct SequencesBegun {};
template <class V>
void describe(V&, SequencesBegun&) {}

// Anew where the steps say others. Throws Error for what is no condition.
void read_conditions(const Sequence& sequence);

void need(Sequences& sequences, const OfKind& kind);
void expect(const Sequences& sequences, const InLevel& in);

}  // namespace vole
