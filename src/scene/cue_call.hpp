// Calling what is the game's own, so that what it throws says which cue it was and which things it was about, and hinders nothing
// else in the tick.
#pragma once

#include <exception>
#include <initializer_list>
#include <string>

#include "tick.hpp"

namespace vole {

// "the "robin" (thing 3)" for a message.
std::string described_thing(const Stage& stage, Entity entity);

// Adds what is being thrown, with `when` before it where it has no place in a file; empty: nothing before it.
void note_thrown(std::vector<Problem>& problems, const std::string& when);

// `when()` makes the words, as "when the "robin" (thing 3) met the "berry" (thing 7)".
template <class When, class Work>
void call_cue(Tick& tick, const When& when, const Work& work) {
  try {
    work();
  } catch (const std::exception&) {
    note_thrown(tick.problems, when());
  }
}

}  // namespace vole
