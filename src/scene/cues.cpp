#include "vole/scene/cues.hpp"

#include <fmt/format.h>

#include "vole/base/names.hpp"

namespace vole {

void Cues::add_overlap(OverlapCue cue) {
  for (const Which* which : {&cue.which, &cue.other})
    which->is_tag ? kinds_->expect_tag(which->name) : static_cast<void>(kinds_->kind(which->name));
  overlaps_.push_back(std::move(cue));
}

void Cues::when_event(std::string_view kind, std::string_view event, OnThing handler) {
  kinds_->kind(kind);
  events_.push_back({std::string(kind), std::string(event), std::move(handler)});
}

void Cues::add_told(std::string_view name, OnThing handler) {
  names_.push_back({std::string(name), std::move(handler)});
}

void Cues::every(float seconds, OnScene handler) {
  intervals_.push_back({seconds, std::move(handler)});
}

void Cues::expect_name(std::string_view name) const {
  if (find_named(names_, name)) return;
  throw Error(
      FilePosition{}, fmt::format("no cue for when \"{}\" is told", name),
      names_.empty() ? "say one in the scene's cues() with when_told" : did_you_mean(name, names_of(names_)));
}

}  // namespace vole
