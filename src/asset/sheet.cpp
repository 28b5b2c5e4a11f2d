#include "vole/asset/sheet.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/names.hpp"

namespace vole {

IVec2 SheetPoint::at(int frame) const {
  const auto found = std::lower_bound(by_frame.begin(), by_frame.end(), frame,
                                      [](const auto& item, int wanted) { return item.first < wanted; });
  return found != by_frame.end() && found->first == frame ? found->second : spot;
}

Sheet::Sheet() = default;
Sheet::Sheet(const Sheet&) = default;
Sheet::Sheet(Sheet&&) noexcept = default;
Sheet& Sheet::operator=(Sheet&&) noexcept = default;
Sheet::~Sheet() = default;

const Clip* Sheet::find_clip(std::string_view clip_name) const {
  return find_named(clips, clip_name);
}

const ClipSet* Sheet::find_set(std::string_view set_name) const {
  return find_named(sets, set_name);
}

const SheetPoint* Sheet::find_point(std::string_view point_name) const {
  return find_named(points, point_name);
}

const Track* Sheet::find_track(std::string_view track_name) const {
  return find_named(tracks, track_name);
}

int Sheet::find_frame(std::string_view frame_name) const {
  const auto found = std::find(frame_names.begin(), frame_names.end(), frame_name);
  return found == frame_names.end() ? -1 : static_cast<int>(found - frame_names.begin());
}

const Clip& Sheet::clip(std::string_view clip_name, const FilePosition& asked) const {
  if (const Clip* found = find_clip(clip_name)) return *found;
  throw Error(asked, fmt::format("no clip \"{}\" in \"{}\"", clip_name, name),
              did_you_mean(clip_name, names_of(clips)));
}

const ClipSet& Sheet::set(std::string_view set_name, const FilePosition& asked) const {
  if (const ClipSet* found = find_set(set_name)) return *found;
  throw Error(asked, fmt::format("no set \"{}\" in \"{}\"", set_name, name),
              did_you_mean(set_name, names_of(sets)));
}

const SheetPoint& Sheet::point(std::string_view point_name, const FilePosition& asked) const {
  if (const SheetPoint* found = find_point(point_name)) return *found;
  throw Error(asked, fmt::format("no point \"{}\" in \"{}\"", point_name, name),
              did_you_mean(point_name, names_of(points)));
}

const Track& Sheet::track(std::string_view track_name, const FilePosition& asked) const {
  if (const Track* found = find_track(track_name)) return *found;
  throw Error(asked, fmt::format("no track \"{}\" in \"{}\"", track_name, name),
              did_you_mean(track_name, names_of(tracks)));
}

int Sheet::frame(std::string_view frame_name, const FilePosition& asked) const {
  if (const int found = find_frame(frame_name); found >= 0) return found;
  throw Error(asked, fmt::format("no frame \"{}\" in \"{}\"", frame_name, name),
              did_you_mean(frame_name, frame_names));
}

void Sheet::expect_played(std::string_view clip_or_set, const FilePosition& asked) const {
  if (find_clip(clip_or_set) || find_set(clip_or_set)) return;
  std::vector<std::string> known = names_of(clips);
  for (const ClipSet& set : sets) known.push_back(set.name);
  throw Error(asked,
              fmt::format("no clip{} \"{}\" in \"{}\"", sets.empty() ? "" : " or set", clip_or_set, name),
              did_you_mean(clip_or_set, known));
}

std::vector<const Clip*> Sheet::played_by(std::string_view clip_or_set) const {
  std::vector<const Clip*> found;
  if (const Clip* one = find_clip(clip_or_set)) return {one};
  if (const ClipSet* set = find_set(clip_or_set))
    for (const ClipSet::Member& member : set->members) found.push_back(&clips[member.clip]);
  return found;
}

Frame Sheet::posed(int index, const Clip* clip) const {
  Frame frame = frames.at(static_cast<std::size_t>(index));
  if (clip && clip->pivot) frame.pivot = clip->pivot->in(frame.size);
  return frame;
}

const OutlineParts& Sheet::outline(int frame, float error) const {
  const std::pair key(frame, error);
  const auto known = outlines_.find(key);
  if (known != outlines_.end()) return known->second;
  return outlines_[key] = cut_outline(frames.at(static_cast<std::size_t>(frame)), error);
}

}  // namespace vole
