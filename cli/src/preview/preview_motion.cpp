// Clips at their real speed. A GIF counts in hundredths of a second: moments are rounded one by one from the
// start, so that it is never more than half a hundredth off, however long it plays.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "gif.hpp"
#include "preview_page.hpp"
#include "preview_sheet.hpp"
#include "vole/draw/mark_colours.hpp"

namespace {

using namespace paper;

using Microseconds = std::int64_t;
constexpr Microseconds second = 1'000'000;
constexpr Microseconds hundredth = second / 100;
constexpr Microseconds longest = 20 * second;
constexpr Microseconds rest_after_end = second / 2;  // before a clip that plays once begins again
constexpr Microseconds step_of_tracks = second / 30;
// Viewers show what is shorter much longer.
constexpr int least_hundredths = 2;

Microseconds microseconds(const vole::Clip& clip, std::int64_t units) {
  return units * second / clip.units_per_second();
}

// Until it begins again.
Microseconds cycle_of(const vole::Clip& clip) {
  const Microseconds pass = microseconds(clip, clip.length());
  return clip.loop ? pass : pass * clip.times + rest_after_end;
}

// The shortest time, of whole cycles of the longest, after which all are at their beginning again; one cycle
// of the longest where that takes too long.
Microseconds period_of(const std::vector<Microseconds>& cycles) {
  const Microseconds whole = std::min(*std::max_element(cycles.begin(), cycles.end()), longest);
  for (Microseconds period = whole; period <= longest; period += whole) {
    const auto fits = [period](Microseconds cycle) {
      const Microseconds over = period % cycle;
      return std::min(over, cycle - over) <= hundredth;
    };
    if (std::all_of(cycles.begin(), cycles.end(), fits)) return period;
  }
  return whole;
}

class Motion {
 public:
  Motion(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips)
      : sheet_(sheet), clips_(clips), room_(sheet.frame_size) {
    std::vector<Microseconds> cycles;
    for (const vole::Clip* clip : clips) {
      cycles.push_back(cycle_of(*clip));
      for (const std::size_t track : clip->tracks)
        if (sheet.tracks[track].loop) cycles.push_back(sheet.tracks[track].length());
      tracked_ |= !clip->tracks.empty();
      make_room(*clip);
    }
    period_ = period_of(cycles);
    lay_out();
  }

  Gif gif() const {
    Gif gif{.size = size_, .hundredths = {}, .draw = {}};
    const std::vector<int> moments = shown_moments();
    for (std::size_t i = 0; i + 1 < moments.size(); ++i)
      gif.hundredths.push_back(moments[i + 1] - moments[i]);
    // In the middle of the time for which a frame is shown nothing is on the edge.
    gif.draw = [this, moments](std::size_t i) { return draw((moments[i] + moments[i + 1]) * hundredth / 2); };
    return gif;
  }

 private:
  static constexpr int caption = 44;

  // Tracks may move a frame away from its place.
  void make_room(const vole::Clip& clip) {
    const auto both_sides = [](float away) {
      constexpr float most = 64;
      return 2 * static_cast<int>(std::ceil(std::min(std::abs(away), most)));
    };
    for (const std::size_t track : clip.tracks)
      for (const auto& key : sheet_.tracks[track].offset) {
        room_.x = std::max(room_.x, sheet_.frame_size.x + both_sides(key.value.x));
        room_.y = std::max(room_.y, sheet_.frame_size.y + both_sides(key.value.y));
      }
  }

  void lay_out() {
    int name_width = 0;
    for (const vole::Clip* clip : clips_)
      name_width = std::max(name_width, 2 * vole::plain_font().measure(clip_line(*clip)).x);
    const auto count = static_cast<int>(clips_.size());
    const auto width_at = [&](int scale) { return std::max(room_.x * scale, name_width) + margin; };
    const auto columns_at = [&](int scale) { return std::max((page_size.x - margin) / width_at(scale), 1); };
    constexpr int one_alone = 300, one_of_many = 128;  // pixels high, about
    scale_ = std::clamp((count == 1 ? one_alone : one_of_many) / room_.y, 1, 16);
    const auto height_at = [&](int scale) {
      const int rows = (count + columns_at(scale) - 1) / columns_at(scale);
      return rows * (room_.y * scale + caption) + 2 * margin;
    };
    while (scale_ > 1 && (height_at(scale_) > page_size.y || width_at(scale_) + margin > page_size.x))
      --scale_;
    columns_ = std::min(columns_at(scale_), count);
    cell_ = {width_at(scale_), room_.y * scale_ + caption};
    size_ = {std::min(columns_ * cell_.x + margin, page_size.x), std::min(height_at(scale_), page_size.y)};
  }

  // In hundredths of a second, from 0 to the end, no two too close together.
  std::vector<int> shown_moments() const {
    std::set<Microseconds> changes;
    for (const vole::Clip* clip : clips_)
      for (Microseconds pass = 0; pass < period_;
           pass += clip->loop ? std::max(cycle_of(*clip), second / 1000) : period_)
        add_changes(*clip, pass, changes);
    if (tracked_)
      for (Microseconds at = 0; at < period_; at += step_of_tracks) changes.insert(at);
    std::vector<int> moments{0};
    const auto end = static_cast<int>((period_ + hundredth / 2) / hundredth);
    for (const Microseconds change : changes) {
      const auto moment = static_cast<int>((change + hundredth / 2) / hundredth);
      if (moment - moments.back() >= least_hundredths && end - moment >= least_hundredths)
        moments.push_back(moment);
    }
    moments.push_back(std::max(end, moments.back() + least_hundredths));
    return moments;
  }

  // When the frames of a clip that begins at `start` change.
  void add_changes(const vole::Clip& clip, Microseconds start, std::set<Microseconds>& changes) const {
    const Microseconds pass = microseconds(clip, clip.length());
    for (int time = 0; time < (clip.loop ? 1 : clip.times); ++time)
      for (std::size_t i = 0; i < clip.frames.size(); ++i) {
        const Microseconds at = start + time * pass + microseconds(clip, clip.start_of(static_cast<int>(i)));
        if (at >= period_) return;
        changes.insert(at);
      }
  }

  Image draw(Microseconds time) const {
    Page page(size_);
    for (std::size_t i = 0; i < clips_.size(); ++i) {
      const vole::Clip& clip = *clips_[i];
      const auto index = static_cast<int>(i);
      const IVec2 at = IVec2{margin, margin} + IVec2{index % columns_, index / columns_} * cell_;
      const Microseconds since = time % cycle_of(clip);
      const int position = clip.position_at(since * clip.units_per_second() / second);
      const IVec2 pivot =
          at + ((room_ - sheet_.frame_size) / 2 + sheet_.pivot.in(sheet_.frame_size)) * scale_;
      page.squares({at, room_ * scale_}, 4 * std::max(scale_ / 2, 1));
      page.fill({{at.x, pivot.y}, {room_.x * scale_, 1}}, vole::mark_colours::position);
      page.posed(sheet_.posed(clip.frames[static_cast<std::size_t>(position)], &clip), pivot, scale_,
                 pose(clip, since, time));
      page.text({at.x, at.y + room_.y * scale_ + 10}, clip_line(clip));
    }
    return page.finish();
  }

  vole::TrackPose pose(const vole::Clip& clip, Microseconds since, Microseconds time) const {
    vole::TrackPose pose;
    for (const std::size_t index : clip.tracks) {
      const vole::Track& track = sheet_.tracks[index];
      pose.add(track.at(track.loop ? time : since, second));
    }
    return pose;
  }

  const vole::Sheet& sheet_;
  const std::vector<const vole::Clip*>& clips_;
  Microseconds period_ = second;
  bool tracked_ = false;
  IVec2 room_;  // of a frame, with all that its tracks do
  int scale_ = 1, columns_ = 1;
  IVec2 cell_{1, 1}, size_{1, 1};
};

}  // namespace

void preview_motion(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips,
                    const std::string& output) {
  constexpr std::size_t most_clips = 60;
  const std::vector<const vole::Clip*> shown(
      clips.begin(), clips.begin() + static_cast<std::ptrdiff_t>(std::min(clips.size(), most_clips)));
  const Motion motion(sheet, shown);
  write_gif(output, motion.gif());
  if (shown.size() < clips.size())
    fmt::print("the first {} of {} clips are shown; name one with --clip\n", shown.size(), clips.size());
}
