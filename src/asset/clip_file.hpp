// Turns what a sheet's file says of clips, sets and tracks into these.
#pragma once

#include <map>
#include <vector>

#include "sheet_file.hpp"

namespace vole {

// Finds frames by what a clip or point writes; quickly, since there may be many of both.
class FrameFinder {
 public:
  FrameFinder(const Sheet& sheet, Report& report);

  bool has(std::string_view name) const { return by_name_.count(name) != 0; }
  // The frame's index, or -1 after reporting.
  int find(const FrameText& written, std::string_view sort, std::string_view whose) const;

 private:
  const Sheet& sheet_;
  Report& report_;
  std::map<std::string_view, int> by_name_;
};

class ClipMaker {
 public:
  ClipMaker(const Sheet& sheet, const FrameFinder& finder, Report& report)
      : sheet_(sheet), finder_(finder), report_(report) {}

  Clip make(const NamedItem<ClipText>& item);

 private:
  // The frames as the file names them, before they are reversed or doubled.
  std::vector<int> written_frames(const NamedItem<ClipText>& item) const;
  std::vector<int> range_of(const NamedItem<ClipText>& item, const Located<IVec2>& range) const;
  std::vector<int> row_of(const NamedItem<ClipText>& item, const Located<int>& row) const;
  // Frames `range` of those of a row.
  std::vector<int> part_of(const NamedItem<ClipText>& item, const std::vector<int>& row,
                           const Located<IVec2>& range) const;
  void add_ends(const NamedItem<ClipText>& item, std::size_t written, const std::vector<std::size_t>& shown,
                Clip& clip) const;
  void add_events(const NamedItem<ClipText>& item, std::size_t written, const std::vector<std::size_t>& shown,
                  Clip& clip) const;

  const Sheet& sheet_;
  const FrameFinder& finder_;
  Report& report_;
  std::size_t total_ = 0;  // frames of all clips so far
};

Track make_track(const NamedItem<TrackText>& item, Report& report);

// Adds the set, and a clip for each row that it names.
void add_set(const NamedItem<SetText>& item, ClipMaker& maker, Sheet& sheet, Report& report);

}  // namespace vole
