// Calling a cue's handler so that what it throws says which cue it was and which things it was about.
#pragma once

#include <exception>
#include <initializer_list>
#include <string>

#include "tick.hpp"

namespace vole {

// "the "robin" (thing 3)" for a message.
std::string described_thing(const Stage& stage, Entity entity);

// Throws Error: what was thrown, with `when` before it where it has no place in a file.
[[noreturn]] void rethrow_with(const std::string& when);

// `when()` makes the words, as "when the "robin" (thing 3) met the "berry" (thing 7)".
template <class When, class Work>
void call_cue(const When& when, const Work& work) {
  try {
    work();
  } catch (const std::exception&) {
    rethrow_with(when());
  }
}

}  // namespace vole
