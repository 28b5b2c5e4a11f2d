#include "preview_sheet.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "preview_page.hpp"
#include "vole/draw/mark_colours.hpp"

namespace {

using namespace paper;

std::string headline(const vole::Sheet& sheet) {
  std::string line = fmt::format("{}: {} frame{} of {} x {}", sheet.name, sheet.frames.size(),
                                 sheet.frames.size() == 1 ? "" : "s", sheet.frame_size.x, sheet.frame_size.y);
  if (sheet.stand_in) line += ", a stand-in";
  return line;
}

// A note in place of what could not be shown.
void note_more(Page& page, std::size_t count) {
  if (count > 0) page.text({margin, page_size.y - 24}, fmt::format("and {} more", count), mark);
}

std::string events_at(const vole::Clip& clip, int position) {
  std::string names;
  for (const vole::ClipEvent& event : clip.events)
    if (event.position == position) names += (names.empty() ? "" : " ") + event.name;
  return names;
}

void draw_clips(Page& page, const vole::Sheet& sheet, int y) {
  if (sheet.clips.empty()) return;
  const int strip = std::max((page_size.y - y) / static_cast<int>(sheet.clips.size()), 22);
  for (const vole::Clip& clip : sheet.clips) {
    page.text({margin, y}, clip_line(clip));
    const int across = (page_size.x - 300 - margin) / static_cast<int>(clip.frames.size()) - 4;
    const int small =
        std::clamp(std::min((strip - 26) / sheet.frame_size.y, across / sheet.frame_size.x), 1, 8);
    Flow row({300, y}, page_size.x * 100, {sheet.frame_size.x * small + 4, 0});
    for (std::size_t i = 0; i < clip.frames.size(); ++i) {
      const IVec2 at = row.next();
      draw_frame(page, sheet, clip.frames[i], at, small, &clip);
      page.text({at.x, at.y + sheet.frame_size.y * small + 2}, events_at(clip, static_cast<int>(i)),
                {.colour = mark});
    }
    // Below each frame there is room for its events.
    y += std::min(strip, sheet.frame_size.y * small + 26);
  }
}

// The same box twice: as small as its borders allow, and large.
void draw_boxes(Page& page, const vole::Sheet& sheet, int y) {
  const vole::Borders& borders = sheet.borders;
  if (borders.left + borders.right + borders.top + borders.bottom == 0) return;
  page.text({margin, y}, "as a box:");
  const IVec2 least{borders.left + borders.right + 1, borders.top + borders.bottom + 1};
  page.box(sheet, {300, y}, least * 2, 4);
  page.box(sheet, {340 + least.x * 8, y}, {150, 60}, 4);
}

// How long the frame at a position is shown.
std::int64_t milliseconds_of(const vole::Clip& clip, int position) {
  const bool last = position + 1 == static_cast<int>(clip.frames.size());
  const std::int64_t end = last ? clip.length() : clip.start_of(position + 1);
  const std::int64_t units = clip.units_per_second();
  return ((end - clip.start_of(position)) * 1000 + units / 2) / units;
}

std::size_t count_frames(const std::vector<const vole::Clip*>& clips) {
  std::size_t count = 0;
  for (const vole::Clip* clip : clips) count += clip->frames.size();
  return count;
}

// The text under a frame in a strip, and above each strip.
constexpr IVec2 strip_extra{20, 66};
constexpr int strip_heading = 30;

// The largest scale at which the strips, each in rows of its own, fit on the page; at least 1.
int strip_scale(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips) {
  const auto height_at = [&](int scale) {
    const int columns =
        std::max((page_size.x - 2 * margin) / (sheet.frame_size.x * scale + strip_extra.x), 1);
    int height = 0;
    for (const vole::Clip* clip : clips) {
      const int rows = (static_cast<int>(clip->frames.size()) + columns - 1) / columns;
      height += rows * (sheet.frame_size.y * scale + strip_extra.y) + strip_heading;
    }
    return height;
  };
  int scale = std::clamp((page_size.x - 2 * margin) / sheet.frame_size.x, 1, 16);
  while (scale > 1 && height_at(scale) > page_size.y - 16) --scale;
  return scale;
}

// Returns how many frames found no room.
std::size_t draw_strip(Page& page, const vole::Sheet& sheet, const vole::Clip& clip, int scale, int& y) {
  page.text({margin, y}, clip_line(clip));
  if (const std::string end = events_at(clip, vole::ClipEvent::at_end); !end.empty())
    page.text({margin + 24 + 2 * vole::plain_font().measure(clip_line(clip)).x, y}, "at the end: " + end,
              mark);
  Flow cells({margin, y + strip_heading}, page_size.x - margin, sheet.frame_size * scale + strip_extra);
  const auto count = static_cast<int>(clip.frames.size());
  for (int position = 0; position < count; ++position) {
    const IVec2 at = cells.next();
    const IVec2 below{at.x, at.y + sheet.frame_size.y * scale + 6};
    if (below.y > page_size.y) return static_cast<std::size_t>(count - position);
    const int frame = clip.frames[static_cast<std::size_t>(position)];
    draw_frame(page, sheet, frame, at, scale, &clip);
    page.text(below, fmt::format("{}", position));
    page.text(below + IVec2{0, 20}, fmt::format("frame {}, {} ms", frame, milliseconds_of(clip, position)),
              {.colour = faint});
    page.text(below + IVec2{0, 32}, events_at(clip, position), {.colour = mark, .scale = scale > 4 ? 2 : 1});
  }
  y = cells.bottom();
  return 0;
}

// The most that a contact sheet shows; more would be too small to see.
constexpr int most_shown = 600;

}  // namespace

void preview_frames(const vole::Sheet& sheet, const std::string& output) {
  const int count = std::min(static_cast<int>(sheet.frames.size()), most_shown);
  Page page;
  page.text({margin, 16}, headline(sheet));
  draw_key(page, sheet, {page_size.x / 2, 16});
  const bool more = !sheet.clips.empty() || sheet.borders.left + sheet.borders.top > 0;
  const int label = sheet.frame_names.empty() ? 0 : 60;
  const IVec2 room{page_size.x - 2 * margin, (more ? page_size.y * 6 / 10 : page_size.y) - 60};
  const int scale = fitting_scale(sheet.frame_size, count, room, {16 + label, 30});
  Flow cells({margin, 52}, page_size.x - margin,
             {sheet.frame_size.x * scale + 16 + label, sheet.frame_size.y * scale + 30});
  for (int i = 0; i < count; ++i) {
    const IVec2 at = cells.next();
    draw_frame(page, sheet, i, at, scale);
    const std::string name = sheet.frame_names.empty()
                                 ? fmt::format("{}", i)
                                 : fmt::format("{} {}", i, sheet.frame_names[static_cast<std::size_t>(i)]);
    page.text({at.x, at.y + sheet.frame_size.y * scale + 6}, name,
              {.colour = faint, .scale = label > 0 ? 1 : 2});
  }
  note_more(page, sheet.frames.size() - static_cast<std::size_t>(count));
  draw_clips(page, sheet, cells.bottom() + 8);
  if (sheet.clips.empty()) draw_boxes(page, sheet, cells.bottom() + 16);
  page.save(output);
}

void preview_strips(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips,
                    const std::string& output) {
  Page page;
  draw_key(page, sheet, {page_size.x / 2, 16});
  const int scale = strip_scale(sheet, clips);
  int y = 16;
  std::size_t left_out = 0;
  for (const vole::Clip* clip : clips) left_out += draw_strip(page, sheet, *clip, scale, y);
  note_more(page, left_out);
  page.save(output);
}

void preview_baseline(const vole::Sheet& sheet, const std::vector<const vole::Clip*>& clips,
                      const std::string& output) {
  Page page;
  page.text({margin, 16}, fmt::format("{}: the frames of {} on their pivots", sheet.name,
                                      clips.size() == 1 ? clips[0]->name : "all clips"));
  const auto count = static_cast<int>(std::min(count_frames(clips), std::size_t{most_shown}));
  // A little room between clips, counted as a frame each.
  const int cells = count + static_cast<int>(clips.size());
  const int scale = std::min(
      fitting_scale(sheet.frame_size, cells, {page_size.x - 2 * margin, page_size.y - 60}, {2, 44}), 10);
  const IVec2 cell = sheet.frame_size * scale + IVec2{2, 44};
  Flow flow({margin, 56}, page_size.x - margin, cell);
  int drawn_row = -1, shown = 0;
  for (const vole::Clip* clip : clips) {
    for (std::size_t i = 0; i < clip->frames.size() && shown < most_shown; ++i, ++shown) {
      const IVec2 at = flow.next();
      const vole::Frame frame = sheet.posed(clip->frames[i], clip);
      // Pivots are where that of the sheet is in a frame of full size.
      const IVec2 pivot = at + sheet.pivot.in(sheet.frame_size) * scale;
      if (at.y != drawn_row) {
        page.fill({{margin, pivot.y}, {page_size.x - 2 * margin, 1}}, vole::mark_colours::position);
        drawn_row = at.y;
      }
      page.posed(frame, pivot, scale, {});
      page.fill({{pivot.x, pivot.y - 3}, {1, 7}}, vole::mark_colours::position);
      if (i == 0) page.text({at.x, at.y + sheet.frame_size.y * scale + 8}, clip->name);
      page.text({at.x, at.y + sheet.frame_size.y * scale + 28}, fmt::format("{}", clip->frames[i]),
                {.colour = faint});
    }
    flow.next(cell.x / 2);
  }
  note_more(page, count_frames(clips) - static_cast<std::size_t>(shown));
  page.save(output);
}
