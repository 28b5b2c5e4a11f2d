#include "vole/world/sprite.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/sheet.hpp"
#include "vole/base/names.hpp"
#include "vole/base/within.hpp"

namespace vole {
namespace {

const Sheet& sheet_of(const Sprite& sprite) {
  if (!sprite.links.sheet)
    throw Error(FilePosition{},
                fmt::format("the sprite of sheet \"{}\" plays nothing yet", sprite.sheet_name.value),
                "one that code adds plays from the next tick on, and its `clip` by itself");
  return *sprite.links.sheet;
}

void play_clip(Sprite& sprite, const Clip& clip) {
  sprite.playing.playhead.play(clip);
  if (sprite.playing.clip != clip.name) sprite.playing.clip = clip.name;
}

// Plays a member of a set. A set by direction goes on from the same frame when it only turns.
void play_member(Sprite& sprite, int set, int member) {
  const Sheet& sheet = *sprite.links.sheet;
  const ClipSet& of = sheet.sets[static_cast<std::size_t>(set)];
  const bool turns = sprite.links.set == set && of.by_direction;
  sprite.links.set = set;
  sprite.links.member = member;
  if (sprite.playing.set != of.name) sprite.playing.set = of.name;
  const Clip& clip = sheet.clips[sprite.playing_member()->clip];
  const Clip* now = sprite.playhead().clip();
  const bool alike = now && now->length() == clip.length() &&
                     now->units_per_second() == clip.units_per_second() && now->loop == clip.loop &&
                     now->times == clip.times;
  if (turns && alike) sprite.playing.playhead.replace(&clip);
  play_clip(sprite, clip);
}

// The member that shows how the sprite faces, or what was last asked of a set.
int remembered_member(const Playing& playing, const ClipSet& set) {
  return set.by_direction ? set.nearest(unit_of(playing.facing), playing.facing)
                          : std::max(set.find(playing.key), 0);
}

const ClipSet& all_directions() {
  static const ClipSet set = [] {
    ClipSet ways;
    for (int i = 0; i < 8; ++i) ways.members.push_back({.key = {}, .direction = static_cast<Direction>(i)});
    return ways;
  }();
  return set;
}

}  // namespace

FactSource fact_source(std::string_view fact) {
  const auto names = enum_names(FactSource::game);
  const auto found = std::find(names.begin() + 1, names.end(), fact);
  return found == names.end() ? FactSource::game : static_cast<FactSource>(found - names.begin());
}

const ClipSet* Sprite::playing_set() const {
  return links.set < 0 ? nullptr : &links.sheet->sets[static_cast<std::size_t>(links.set)];
}

const ClipSet::Member* Sprite::playing_member() const {
  return links.set < 0 ? nullptr : &playing_set()->members[static_cast<std::size_t>(links.member)];
}

int Sprite::frame(int ticks_per_second) const {
  if (!links.sheet) return -1;
  const int shown = playhead().clip() ? playhead().frame(ticks_per_second) : links.still;
  return shown < static_cast<int>(links.sheet->frames.size()) ? shown : -1;
}

void Sprite::play(std::string_view clip_or_set) {
  const Sheet& sheet = sheet_of(*this);
  if (sheet.missing) return;
  if (const ClipSet* played = sheet.find_set(clip_or_set))
    return play_member(*this, static_cast<int>(played - sheet.sets.data()),
                       remembered_member(playing, *played));
  sheet.expect_played(clip_or_set);
  links.set = -1;
  playing.set.clear();
  play_clip(*this, *sheet.find_clip(clip_or_set));
}

void Sprite::play(std::string_view set_name, std::string_view wanted) {
  const Sheet& sheet = sheet_of(*this);
  if (sheet.missing) return;
  const ClipSet& played = sheet.set(set_name);
  const int found = played.find(wanted);
  if (found < 0) {
    std::vector<std::string> known;
    for (const ClipSet::Member& each : played.members) known.push_back(each.key);
    throw Error(FilePosition{},
                fmt::format("set \"{}\" of \"{}\" has no \"{}\"", set_name, sheet.name, wanted),
                did_you_mean(wanted, known));
  }
  if (played.by_direction)
    playing.facing = played.members[static_cast<std::size_t>(found)].direction;
  else if (playing.key != wanted)
    playing.key = wanted;
  play_member(*this, static_cast<int>(&played - sheet.sets.data()), found);
}

void Sprite::restart(std::string_view clip_or_set) {
  play(clip_or_set);
  if (const Clip* clip = playhead().clip()) playing.playhead.restart(*clip);
}

void Sprite::stop() {
  playing.playhead.stop();
  playing.clip.clear();
  playing.set.clear();
  links.set = -1;
}

void Sprite::face(Vec2 wanted) {
  const Vec2 towards = brought_within_reach(wanted);
  if (towards == Vec2{0, 0}) return;
  const ClipSet* set = playing_set();
  if (!set || !set->by_direction) {
    playing.facing = static_cast<Direction>(all_directions().nearest(towards, playing.facing));
    return;
  }
  const int turned_to = set->nearest(towards, playing.facing);
  playing.facing = set->members[static_cast<std::size_t>(turned_to)].direction;
  if (turned_to != links.member) play_member(*this, links.set, turned_to);
}

void Sprite::play_track(std::string_view track, float strength) {
  const Sheet& sheet = sheet_of(*this);
  const Track* found = sheet.find_track(track);
  if (!found && links.own_tracks)
    for (const Track* const own : *links.own_tracks)
      if (own->name == track) found = own;
  if (!found) found = tracks::find(track);
  if (found || !sheet.missing) play_track(found ? *found : sheet.track(track), strength);
}

void Sprite::play_track(const Track& track, float strength) {
  const auto& own = links.own_tracks;
  const bool known = (links.sheet && links.sheet->find_track(track.name) == &track) ||
                     tracks::find(track.name) == &track ||
                     (own && std::find(own->begin(), own->end(), &track) != own->end());
  if (!known)
    throw Error(FilePosition{}, fmt::format("the game does not know the track \"{}\"", track.name),
                "add it to the Game with knows(track), so that a saved state can name it");
  auto& playing_tracks = playing.tracks;
  auto place = std::find_if(playing_tracks.begin(), playing_tracks.end(),
                            [&](const PlayingTrack& each) { return each.track == &track; });
  if (place == playing_tracks.end())
    place = std::find_if(playing_tracks.begin(), playing_tracks.end(),
                         [](const PlayingTrack& each) { return each.track == nullptr; });
  if (place == playing_tracks.end())
    place = std::max_element(playing_tracks.begin(), playing_tracks.end(),
                             [](const PlayingTrack& a, const PlayingTrack& b) { return a.ticks < b.ticks; });
  constexpr float most_strength = 1000;
  *place = {track.name, 0, brought_within(strength, -most_strength, most_strength), &track};
}

void Sprite::stop_track(std::string_view track) {
  for (PlayingTrack& each : playing.tracks)
    if (each.track && each.name == track) each = {};
}

void Sprite::stop_tracks() {
  playing.tracks.fill({});
}

TrackPose Sprite::track_pose(int ticks_per_second) const {
  TrackPose pose;
  for (const PlayingTrack& each : playing.tracks)
    if (each.track) pose.add(each.track->at(each.ticks, ticks_per_second, each.strength));
  if (const Clip* clip = playhead().clip())
    for (const std::size_t track : clip->tracks)
      if (track < links.sheet->tracks.size())
        pose.add(links.sheet->tracks[track].at(playhead().ticks(), ticks_per_second));
  return pose;
}

void Sprite::set_fact(std::string_view fact, float value) {
  const Sheet& sheet = sheet_of(*this);
  if (sheet.missing) return;
  const int index = sheet.rules.find_fact(fact);
  if (index < 0)
    throw Error(FilePosition{}, fmt::format("no rule of \"{}\" asks for \"{}\"", sheet.name, fact),
                did_you_mean(fact, sheet.rules.facts()));
  constexpr float most = 1e9f;
  playing.facts[static_cast<std::size_t>(index)] = brought_within(value, -most, most);
}

void Sprite::expect_sheet(std::string_view name) const {
  if (!links.sheet || links.sheet->name == name) return;
  throw Error(FilePosition{},
              fmt::format("this sprite shows the sheet \"{}\", not \"{}\"", links.sheet->name, name),
              "the clip belongs to another sheet");
}

}  // namespace vole
