// What comes to a game from outside and is no press: values that were kept, the list of saves, what a save holds, and what came of saving.
// It comes before a tick and is recorded with the input, so a replay needs no file of the player's.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"

namespace vole {

// A save as a player sees it in a list.
struct SaveSlot {
  std::string name = {}, title = {};
  std::string time = {};     // of the player's clock: "2026-12-02 10:31"
  std::string problem = {};  // in one sentence: it is damaged; with a title, the one before it is used
  std::string picture = {};  // a small PNG in base64, or nothing
};
template <class V>
void describe(V& v, SaveSlot& slot) {
  v("name", slot.name);
  v("title", slot.title);
  v("time", slot.time);
  v("problem", slot.problem);
  v("picture", slot.picture);
}

// What came of what a game has asked for.
struct SaveAnswer {
  enum class Done : std::uint8_t { saved, loaded, removed, kept };

  Done done = Done::saved;  // what was asked for; kept: by the library itself, a value between runs
  std::string name = {};
  std::string problem = {};  // in one sentence; empty: it was done

  bool ok() const { return problem.empty(); }
};
constexpr auto enum_names(SaveAnswer::Done) {
  return std::array<std::string_view, 4>{"saved", "loaded", "removed", "kept"};
}
template <class V>
void describe(V& v, SaveAnswer& answer) {
  v("done", answer.done);
  v("name", answer.name);
  v("problem", answer.problem);
}

struct ArrivedSave {
  std::string name;
  int version = 1;    // of what the game saves
  std::string holds;  // tables as TOML
};
template <class V>
void describe(V& v, ArrivedSave& save) {
  v("name", save.name);
  v("version", save.version);
  v("holds", save.holds);
}

struct Arrived {
  std::int64_t tick = 0;             // how many are over
  std::vector<ArrivedSave> values;   // that last between runs
  std::optional<ArrivedSave> saved;  // what the game has asked to load
  bool lists = false;                // whether `slots` are all there are now
  std::vector<SaveSlot> slots;
  std::vector<SaveAnswer> answers;

  bool empty() const { return values.empty() && !saved && !lists && answers.empty(); }
};
template <class V>
void describe(V& v, Arrived& arrived) {
  v("tick", arrived.tick, within(0, 1e12));
  v("values", arrived.values);
  v("saved", arrived.saved);
  v("lists", arrived.lists);
  v("slots", arrived.slots);
  v("answers", arrived.answers);
}

}  // namespace vole
