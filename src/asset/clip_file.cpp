#include "clip_file.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <limits>
#include <numeric>

#include "vole/base/names.hpp"

namespace vole {
namespace {

constexpr std::size_t most_clip_frames = 1'000'000;
// A day: so times many passes and many ticks a second stay whole numbers of 64 bits.
constexpr std::int64_t longest_clip = std::int64_t{24} * 3600 * 1'000'000;

// From the first to the last, either of which may be the larger.
std::vector<int> counted(int first, int last) {
  std::vector<int> numbers;
  for (int number = first;; number += first <= last ? 1 : -1) {
    numbers.push_back(number);
    if (number == last) return numbers;
  }
}

std::vector<std::size_t> shown_positions(std::size_t count, ClipOrder order) {
  std::vector<std::size_t> shown(count);
  std::iota(shown.begin(), shown.end(), std::size_t{0});
  if (order == ClipOrder::reverse) std::reverse(shown.begin(), shown.end());
  // The frames at both ends are shown once; a clip of one or two frames needs nothing on the way back.
  if (order == ClipOrder::back_and_forth)
    for (std::size_t i = count; i-- > 2;) shown.push_back(i - 1);
  return shown;
}

}  // namespace

FrameFinder::FrameFinder(const Sheet& sheet, Report& report) : sheet_(sheet), report_(report) {
  for (std::size_t i = 0; i < sheet.frame_names.size(); ++i)
    by_name_.emplace(sheet.frame_names[i], static_cast<int>(i));
}

int FrameFinder::find(const FrameText& written, std::string_view sort, std::string_view whose) const {
  const int count = static_cast<int>(sheet_.frames.size());
  if (!written.name.empty()) {
    if (const auto found = by_name_.find(written.name); found != by_name_.end()) return found->second;
    report_.error(
        written.where, fmt::format("no frame \"{}\" in \"{}\"", written.name, sheet_.name),
        by_name_.empty() ? "its frames go by number" : did_you_mean(written.name, sheet_.frame_names));
    return -1;
  }
  if (written.number >= 0 && written.number < count) return written.number;
  report_.error(written.where,
                fmt::format("{} \"{}\" names frame {}, but \"{}\" has {} frames", sort, whose, written.number,
                            sheet_.name, count),
                fmt::format("the last is {}", count - 1));
  return -1;
}

Clip ClipMaker::make(const NamedItem<ClipText>& item) {
  const ClipText& text = item.value;
  Clip clip;
  clip.name = item.name;
  clip.millifps = static_cast<int>(text.fps * 1000 + 0.5);
  clip.loop = text.loop && !text.times;
  clip.times = text.times ? text.times->value : 1;
  clip.pivot = text.pivot;
  const std::vector<int> written = written_frames(item);
  total_ += written.size();
  if (total_ > most_clip_frames) {
    report_.error(item.where,
                  fmt::format("up to clip \"{}\" the sheet's clips show {} frames; the most is {}", item.name,
                              total_, most_clip_frames));
    return clip;
  }
  if (written.empty()) {
    report_.error(item.where, fmt::format("clip \"{}\" has no frames", item.name));
    return clip;
  }
  if (text.times && text.loop != ClipText{}.loop)
    report_.error(text.times->where, "a clip has \"loop\" or \"times\", not both");
  const std::vector<std::size_t> shown = shown_positions(written.size(), text.order);
  for (const std::size_t position : shown) clip.frames.push_back(written[position]);
  if (text.seconds) add_ends(item, written.size(), shown, clip);
  add_events(item, written.size(), shown, clip);
  for (const Located<std::string>& name : text.tracks) {
    try {
      clip.tracks.push_back(
          static_cast<std::size_t>(&sheet_.track(name.value, name.where) - sheet_.tracks.data()));
    } catch (const Error& error) {
      report_.add(error);
    }
  }
  return clip;
}

std::vector<int> ClipMaker::written_frames(const NamedItem<ClipText>& item) const {
  const ClipText& text = item.value;
  if (text.frames && (text.range || text.row))
    report_.error(item.where, "a clip has \"frames\", or else \"row\", \"range\" or both");
  if (text.row && text.range) return part_of(item, row_of(item, *text.row), *text.range);
  if (text.row) return row_of(item, *text.row);
  if (text.range) return range_of(item, *text.range);
  std::vector<int> frames;
  if (!text.frames) return frames;
  for (const FrameText& frame : *text.frames) frames.push_back(finder_.find(frame, "clip", item.name));
  return frames;
}

std::vector<int> ClipMaker::range_of(const NamedItem<ClipText>& item, const Located<IVec2>& range) const {
  const int first = finder_.find({range.where, {}, range.value.x}, "clip", item.name);
  const int last = finder_.find({range.where, {}, range.value.y}, "clip", item.name);
  if (first < 0 || last < 0) return {-1};
  return counted(first, last);
}

std::vector<int> ClipMaker::part_of(const NamedItem<ClipText>& item, const std::vector<int>& row,
                                    const Located<IVec2>& range) const {
  const auto count = static_cast<int>(row.size());
  if (row == std::vector<int>{-1}) return row;
  if (std::max(range.value.x, range.value.y) >= count) {
    report_.error(range.where,
                  fmt::format("clip \"{}\" goes from frame {} to {} of its row, which has {}", item.name,
                              range.value.x, range.value.y, count),
                  "with \"row\", frames are counted from 0 within the row");
    return {-1};
  }
  std::vector<int> part = counted(range.value.x, range.value.y);
  for (int& frame : part) frame = row[static_cast<std::size_t>(frame)];
  return part;
}

std::vector<int> ClipMaker::row_of(const NamedItem<ClipText>& item, const Located<int>& row) const {
  const auto count = static_cast<int>(sheet_.frames.size());
  if (sheet_.columns < 1) {
    report_.error(row.where, fmt::format("the frames of \"{}\" lie in no rows", sheet_.name));
    return {-1};
  }
  const std::int64_t first = std::int64_t{row.value} * sheet_.columns;
  if (first >= count) {
    report_.error(row.where,
                  fmt::format("clip \"{}\" is row {}, but \"{}\" has {} rows", item.name, row.value,
                              sheet_.name, (count + sheet_.columns - 1) / sheet_.columns),
                  "they are counted from 0");
    return {-1};
  }
  return counted(static_cast<int>(first), std::min(count, static_cast<int>(first) + sheet_.columns) - 1);
}

void ClipMaker::add_ends(const NamedItem<ClipText>& item, std::size_t written,
                         const std::vector<std::size_t>& shown, Clip& clip) const {
  const auto& seconds = *item.value.seconds;
  if (seconds.value.size() != written)
    return report_.error(seconds.where, fmt::format("clip \"{}\" has {} frames and {} times for them",
                                                    item.name, written, seconds.value.size()));
  std::int64_t end = 0;
  for (const std::size_t position : shown)
    clip.ends.push_back(end += static_cast<std::int64_t>(seconds.value[position] * 1e6 + 0.5));
  if (end > longest_clip)
    report_.error(seconds.where,
                  fmt::format("clip \"{}\" takes {} seconds; the most is a day", item.name, end / 1'000'000));
}

void ClipMaker::add_events(const NamedItem<ClipText>& item, std::size_t written,
                           const std::vector<std::size_t>& shown, Clip& clip) const {
  // A written frame is shown at most twice.
  constexpr std::size_t not_shown = std::numeric_limits<std::size_t>::max();
  std::vector<std::array<std::size_t, 2>> moments(written, {not_shown, not_shown});
  for (std::size_t i = 0; i < shown.size(); ++i) {
    auto& [first, second] = moments[shown[i]];
    (first == not_shown ? first : second) = i;
  }
  for (const auto& event : item.value.events) {
    if (event.value.at_end) clip.events.push_back({event.name, ClipEvent::at_end});
    for (const Located<int>& position : event.value.positions) {
      if (position.value < 0 || static_cast<std::size_t>(position.value) >= written) {
        report_.error(position.where,
                      fmt::format("event \"{}\" is on frame {} of clip \"{}\", which has {}", event.name,
                                  position.value, item.name, written),
                      "they are counted from 0 within the clip");
        continue;
      }
      for (const std::size_t moment : moments[static_cast<std::size_t>(position.value)])
        if (moment != not_shown) clip.events.push_back({event.name, static_cast<int>(moment)});
    }
  }
  std::stable_sort(clip.events.begin(), clip.events.end(), [](const ClipEvent& a, const ClipEvent& b) {
    // The end comes last; as an unsigned number it is the largest.
    return static_cast<unsigned>(a.position) < static_cast<unsigned>(b.position);
  });
}

}  // namespace vole
