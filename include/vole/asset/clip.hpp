// A named run of frames, and how long each is shown. In NAME.sheet.toml:
//
//   [clips.run]
//   frames = [4, 5, 6, 7]                   # or names; or range = [4, 7]; or row = 1, or both: a part of it
//   fps = 12                                # or seconds = [0.1, 0.1, 0.3, 0.1], for each frame
//   order = "forward"                       # or "reverse", "back and forth"
//   loop = true                             # or times = 3; loop = false: once
//   tracks = ["bob"]                        # of the sheet, beside it: see track.hpp
//   events = { step = [1, 3], done = "end" }
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "vole/asset/pivot.hpp"

namespace vole {

// Something that happens when a frame of a clip begins, or when the clip ends.
struct ClipEvent {
  std::string name;
  int position = 0;  // among the clip's frames; at_end: when a pass is over
  static constexpr int at_end = -1;
};

struct Clip {
  std::string name;
  std::vector<int> frames;
  int millifps = 10'000;  // thousandths of a frame a second: whole, so that timing stays exact
  bool loop = true;
  std::optional<Pivot> pivot = {};       // in place of the sheet's
  int times = 1;                         // passes, when it does not loop
  std::vector<std::int64_t> ends = {};   // where frames last differently: when each is over, in microseconds
  std::vector<std::size_t> tracks = {};  // of the sheet: play along with it
  std::vector<ClipEvent> events = {};    // in the order in which they happen in one pass

  // Time is counted in whole units, so many to a second, that frames begin and end on.
  std::int64_t units_per_second() const { return ends.empty() ? millifps : 1'000'000; }
  // Of one pass.
  std::int64_t length() const {
    return ends.empty() ? static_cast<std::int64_t>(frames.size()) * 1000 : ends.back();
  }
  // When the frame at a position begins, in units from the start of a pass; at_end: when the pass is over.
  std::int64_t start_of(int position) const;
  // The position among the frames that is shown after so many units, in whichever pass.
  int position_at(std::int64_t units) const;
  bool over_after(std::int64_t units) const { return !loop && units >= length() * times; }

  // The frame of the sheet shown this long after the start: a plain function of time, for code that keeps no
  // state. A clip that does not loop stays on its last frame.
  int frame_at(std::int64_t ticks, int ticks_per_second) const;
  int frame_at_seconds(double seconds) const;
  // Whether a clip that does not loop has shown its last frame for its whole time.
  bool over_at(std::int64_t ticks, int ticks_per_second) const;
};

}  // namespace vole
