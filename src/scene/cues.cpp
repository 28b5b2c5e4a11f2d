#include "vole/scene/cues.hpp"

#include <fmt/core.h>

#include "selected_things.hpp"
#include "vole/base/names.hpp"
#include "vole/base/within.hpp"
#include "vole/level/kinds.hpp"

namespace vole {
Cues::Cues(const Kinds& kinds, const Values* values) : kinds_(&kinds), values_(values) {}

void Cues::expect(const ThingSelector& which) const {
  expect_known(*kinds_, which);
}

void Cues::add_meeting(MeetingCue cue) {
  expect(cue.which);
  expect(cue.other);
  meetings_.push_back(std::move(cue));
}

void Cues::add_tiles(TileCue cue) {
  expect(cue.which);
  tile_meetings_.push_back(std::move(cue));
}

void Cues::add_parting(const ThingSelector& which, const ThingSelector& other, OnTwo handler) {
  add_meeting(MeetingCue::When::ends, which, other, std::move(handler));
}

void Cues::add_squeezed(const ThingSelector& which, OnTwo handler) {
  expect(which);
  squeezes_.push_back({which, std::move(handler)});
}

void Cues::add_clicked(const ThingSelector& which, std::string_view action, OnThing handler) {
  expect(which);
  pointers_.push_back({which, std::string(action), false, std::move(handler)});
}

void Cues::drag(const ThingSelector& which, std::string_view action, OnThing when_dropped) {
  expect(which);
  pointers_.push_back({which, std::string(action), true, std::move(when_dropped)});
}

void Cues::add_event(std::string_view kind, std::string_view event, OnThing handler) {
  kinds_->kind(kind);
  events_.push_back({std::string(kind), std::string(event), std::move(handler)});
}

void Cues::add_told(std::string_view name, OnThing handler) {
  names_.push_back({std::string(name), std::move(handler)});
}

void Cues::add_closed(Closed cue) {
  closings_.push_back(std::move(cue));
}
void Cues::add_interval(float seconds, OnScene handler) {
  intervals_.push_back({brought_within_seconds(seconds), std::move(handler)});
}

void Cues::expect_name(std::string_view name) const {
  if (takes_any_name_ || find_named(names_, name)) return;
  throw Error(
      FilePosition{}, fmt::format("no cue for when \"{}\" is told", name),
      names_.empty() ? "say one in the scene's cues() with when_told" : did_you_mean(name, names_of(names_)));
}

}  // namespace vole
