#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "vole/base/names.hpp"
#include "vole/scene/components.hpp"

namespace vole {
namespace {

// Plays a member of a set. A set by direction goes on from the same frame when it only turns.
void play_member(Sprite& sprite, int set, int member) {
  const bool turns =
      sprite.set_index == set && sprite.sheet->sets[static_cast<std::size_t>(set)].by_direction;
  sprite.set_index = set;
  sprite.member_index = member;
  const Clip& clip = sprite.sheet->clips[sprite.playing_member()->clip];
  const Clip* now = sprite.animator.clip();
  const bool alike = now && now->length() == clip.length() &&
                     now->units_per_second() == clip.units_per_second() && now->loop == clip.loop &&
                     now->times == clip.times;
  if (turns && alike)
    sprite.animator.replace(&clip);
  else
    sprite.animator.play(clip);
}

// The member that shows how the sprite faces, or what it was last told.
int remembered_member(const Sprite& sprite, const ClipSet& set) {
  return set.by_direction ? set.nearest(unit_of(sprite.facing), sprite.facing)
                          : std::max(set.find(sprite.last_key), 0);
}

}  // namespace

FactSource fact_source(std::string_view fact) {
  const auto names = enum_names(FactSource::game);
  const auto found = std::find(names.begin() + 1, names.end(), fact);
  return found == names.end() ? FactSource::game : static_cast<FactSource>(found - names.begin());
}

const ClipSet* Sprite::playing_set() const {
  return set_index < 0 ? nullptr : &sheet->sets[static_cast<std::size_t>(set_index)];
}

const ClipSet::Member* Sprite::playing_member() const {
  return set_index < 0 ? nullptr : &playing_set()->members[static_cast<std::size_t>(member_index)];
}

void Sprite::play(std::string_view clip_or_set) {
  if (sheet->missing) return;
  if (const ClipSet* played = sheet->find_set(clip_or_set))
    return play_member(*this, static_cast<int>(played - sheet->sets.data()),
                       remembered_member(*this, *played));
  sheet->expect_played(clip_or_set);
  set_index = -1;
  animator.play(*sheet->find_clip(clip_or_set));
}

void Sprite::play(std::string_view set_name, std::string_view wanted) {
  if (sheet->missing) return;
  const ClipSet& played = sheet->set(set_name);
  const int found = played.find(wanted);
  if (found < 0) {
    std::vector<std::string> known;
    for (const ClipSet::Member& each : played.members) known.push_back(each.key);
    throw Error(Place{}, fmt::format("set \"{}\" of \"{}\" has no \"{}\"", set_name, sheet->name, wanted),
                did_you_mean(wanted, known));
  }
  if (played.by_direction)
    facing = played.members[static_cast<std::size_t>(found)].direction;
  else if (last_key != wanted)
    last_key = wanted;
  play_member(*this, static_cast<int>(&played - sheet->sets.data()), found);
}

void Sprite::face(Vec2 towards) {
  if (towards == Vec2{0, 0}) return;
  const ClipSet* playing = playing_set();
  if (!playing || !playing->by_direction) {
    static const ClipSet all_ways = [] {
      ClipSet ways;
      for (int i = 0; i < 8; ++i) ways.members.push_back({.key = {}, .direction = static_cast<Direction>(i)});
      return ways;
    }();
    facing = static_cast<Direction>(all_ways.nearest(towards, facing));
    return;
  }
  const int turned_to = playing->nearest(towards, facing);
  facing = playing->members[static_cast<std::size_t>(turned_to)].direction;
  if (turned_to != member_index) play_member(*this, set_index, turned_to);
}

void Sprite::play_track(std::string_view track, float strength) {
  if (!sheet->missing) play_track(sheet->track(track), strength);
}

void Sprite::play_track(const Track& track, float strength) {
  auto place = std::find_if(playing_tracks.begin(), playing_tracks.end(),
                            [&](const PlayingTrack& playing) { return playing.track == &track; });
  if (place == playing_tracks.end())
    place = std::find_if(playing_tracks.begin(), playing_tracks.end(),
                         [](const PlayingTrack& playing) { return playing.track == nullptr; });
  if (place == playing_tracks.end())
    place = std::max_element(playing_tracks.begin(), playing_tracks.end(),
                             [](const PlayingTrack& a, const PlayingTrack& b) { return a.ticks < b.ticks; });
  *place = {&track, 0, strength};
}

void Sprite::stop_track(std::string_view track) {
  for (PlayingTrack& playing : playing_tracks)
    if (playing.track && playing.track->name == track) playing = {};
}

void Sprite::stop_tracks() {
  playing_tracks.fill({});
}

TrackPose Sprite::track_pose(int ticks_per_second) const {
  TrackPose pose;
  for (const PlayingTrack& playing : playing_tracks)
    if (playing.track) pose.add(playing.track->at(playing.ticks, ticks_per_second, playing.strength));
  if (const Clip* clip = animator.clip())
    for (const std::size_t track : clip->tracks)
      if (track < sheet->tracks.size()) pose.add(sheet->tracks[track].at(animator.ticks(), ticks_per_second));
  return pose;
}

void Sprite::set_fact(std::string_view fact, float value) {
  if (sheet->missing) return;
  const int index = sheet->rules.find_fact(fact);
  if (index < 0)
    throw Error(Place{}, fmt::format("no rule of \"{}\" asks for \"{}\"", sheet->name, fact),
                did_you_mean(fact, sheet->rules.facts()));
  facts[static_cast<std::size_t>(index)] = value;
}

void Sprite::expect_sheet(std::string_view name) const {
  if (!sheet || sheet->name == name) return;
  throw Error(Place{}, fmt::format("this sprite shows the sheet \"{}\", not \"{}\"", sheet->name, name),
              "the clip belongs to another sheet");
}

void Sprite::tell_facts(const Body* body, int ticks_per_second) {
  static const Body at_rest = [] {
    Body rest;
    rest.on_ground = true;
    return rest;
  }();
  const Body& of = body ? *body : at_rest;
  for (std::size_t i = 0; i < facts.size(); ++i) {
    switch (fact_sources[i]) {
      case FactSource::game:
        break;
      case FactSource::over:
        facts[i] = animator.over(ticks_per_second) ? 1.0f : 0.0f;
        break;
      case FactSource::grounded:
        facts[i] = of.on_ground ? 1.0f : 0.0f;
        break;
      case FactSource::at_wall:
        facts[i] = of.at_wall ? 1.0f : 0.0f;
        break;
      case FactSource::vx:
        facts[i] = of.velocity.x;
        break;
      case FactSource::vy:
        facts[i] = of.velocity.y;
        break;
      case FactSource::speed:
        facts[i] = std::abs(of.velocity.x);
        break;
    }
  }
}

void Sprite::take_sheet(std::shared_ptr<const Sheet> version) {
  const std::shared_ptr<const Sheet> before = std::exchange(sheet, std::move(version));
  still = std::max(sheet->find_frame(frame_name.value), 0);
  std::vector<float> kept;
  fact_sources.clear();
  for (const std::string& name : sheet->rules.facts()) {
    const int known = before ? before->rules.find_fact(name) : -1;
    kept.push_back(known < 0 ? 0.0f : facts[static_cast<std::size_t>(known)]);
    fact_sources.push_back(fact_source(name));
  }
  facts = std::move(kept);
  rule = -1;
  if (!before) return;
  const std::string set_name =
      set_index < 0 ? std::string() : before->sets[static_cast<std::size_t>(set_index)].name;
  const std::string clip_name = animator.clip() ? animator.clip()->name : std::string();
  const ClipSet* same_set = sheet->find_set(set_name);
  set_index = same_set ? static_cast<int>(same_set - sheet->sets.data()) : -1;
  member_index = same_set ? remembered_member(*this, *same_set) : 0;
  animator.replace(same_set ? &sheet->clips[playing_member()->clip] : sheet->find_clip(clip_name));
  // A track of the old sheet goes on as the new one's of that name; the game's own are not the sheet's to
  // change.
  for (PlayingTrack& playing : playing_tracks) {
    const bool of_sheet = playing.track && !before->tracks.empty() &&
                          playing.track >= &before->tracks.front() && playing.track <= &before->tracks.back();
    if (of_sheet) playing.track = sheet->find_track(playing.track->name);
  }
}

}  // namespace vole
