#include "vole/scene/cues.hpp"

#include <fmt/core.h>

#include "vole/base/names.hpp"
#include "vole/base/within.hpp"
#include "vole/level/kinds.hpp"

namespace vole {
namespace {

ThingSelector named(ThingSelector::What what, std::string_view name) {
  ThingSelector which("");
  which.name = name;
  which.what = what;
  return which;
}

}  // namespace

ThingSelector::ThingSelector(const char* text) : ThingSelector(std::string_view(text)) {}
ThingSelector::ThingSelector(const std::string& text) : ThingSelector(std::string_view(text)) {}
ThingSelector::ThingSelector(KindName kind) : ThingSelector(kind.text) {}
ThingSelector::ThingSelector(std::string_view text) {
  const MeantThings meant = meant_things(text);
  name = meant.name;
  if (meant.by_tag) what = What::tag;
}

ThingSelector tagged(std::string_view tag) {
  return named(ThingSelector::What::tag, tag);
}

ThingSelector of_category(std::string_view category) {
  return named(ThingSelector::What::category, category);
}

ThingSelector with_shape(std::string_view name) {
  return named(ThingSelector::What::shape, name);
}

ThingSelector zone(std::string_view name) {
  return named(ThingSelector::What::zone, name);
}

TileSelector any_tile() {
  return {};
}

TileSelector tile_tagged(std::string_view tag) {
  return {TileSelector::What::tag, std::string(tag)};
}

TileSelector tile_of(std::string_view tile_or_material) {
  return {TileSelector::What::name, std::string(tile_or_material)};
}

Cues::Cues(const Kinds& kinds) : kinds_(&kinds) {}

// Zones and tiles are of the level that is loaded, which may be another when it comes to that: see cue_names.hpp.
void Cues::expect(const ThingSelector& which) const {
  switch (which.what) {
    case ThingSelector::What::kind:
      static_cast<void>(kinds_->kind(which.name));
      break;
    case ThingSelector::What::tag:
      kinds_->expect_tag(which.name);
      break;
    case ThingSelector::What::category:
      kinds_->categories.number(which.name);
      break;
    case ThingSelector::What::shape:
      kinds_->expect_shape(which.name);
      break;
    case ThingSelector::What::zone:
      break;
  }
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
  if (find_named(names_, name)) return;
  throw Error(
      FilePosition{}, fmt::format("no cue for when \"{}\" is told", name),
      names_.empty() ? "say one in the scene's cues() with when_told" : did_you_mean(name, names_of(names_)));
}

}  // namespace vole
