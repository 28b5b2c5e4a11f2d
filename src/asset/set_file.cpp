// Sets of clips, as a sheet's file has them.
#include <fmt/core.h>

#include <algorithm>

#include "clip_file.hpp"
#include "vole/base/names.hpp"

namespace vole {
namespace {

using Members = std::vector<ClipSet::Member>;

std::vector<Direction> all_of(SetDirections which) {
  std::vector<Direction> directions;
  const int step = which == SetDirections::two ? 4 : which == SetDirections::four ? 2 : 1;
  for (int i = 0; i < 8; i += step) directions.push_back(static_cast<Direction>(i));
  return directions;
}

std::vector<std::string> direction_names(const std::vector<Direction>& directions) {
  std::vector<std::string> names;
  for (const Direction direction : directions)
    names.emplace_back(enum_names(direction)[static_cast<std::size_t>(direction)]);
  return names;
}

// Gives each member its direction by its key; false when one has none.
bool read_directions(const std::vector<NamedItem<FilePosition>>& keys,
                     const std::vector<Direction>& directions, Members& members, Report& report) {
  const std::vector<std::string> names = direction_names(directions);
  bool all = true;
  for (std::size_t i = 0; i < members.size(); ++i) {
    const auto found = std::find(names.begin(), names.end(), members[i].key);
    if (found != names.end()) {
      members[i].direction = directions[static_cast<std::size_t>(found - names.begin())];
      continue;
    }
    all = false;
    report.error(
        keys[i].where,
        fmt::format("\"{}\" is none of the {} directions of this set", members[i].key, directions.size()),
        did_you_mean(members[i].key, names));
  }
  return all;
}

const ClipSet::Member* find_direction(const Members& members, Direction direction) {
  const auto found = std::find_if(members.begin(), members.end(),
                                  [direction](const auto& member) { return member.direction == direction; });
  return found == members.end() ? nullptr : &*found;
}

// How far one must turn from one direction to the other, in eighths; at most 4 either way.
int eighths_between(Direction from, Direction to) {
  const int clockwise = (static_cast<int>(to) - static_cast<int>(from) + 8) % 8;
  return clockwise > 4 ? clockwise - 8 : clockwise;
}

// A member for a direction that has no clip of its own, made of those that have; nullopt when that cannot be.
std::optional<ClipSet::Member> made_up(const Members& members, Direction direction,
                                       MissingDirections missing) {
  if (missing == MissingDirections::error) return std::nullopt;
  if (missing == MissingDirections::mirrored) {
    const ClipSet::Member* other = find_direction(members, mirrored(direction));
    if (!other) return std::nullopt;
    ClipSet::Member member = *other;
    member.mirrored = true;
    return member;
  }
  const auto nearest =
      std::min_element(members.begin(), members.end(), [direction](const auto& a, const auto& b) {
        return std::abs(eighths_between(a.direction, direction)) <
               std::abs(eighths_between(b.direction, direction));
      });
  ClipSet::Member member = *nearest;
  member.rotation = 45.0f * static_cast<float>(eighths_between(nearest->direction, direction));
  return member;
}

void fill_directions(const NamedItem<SetText>& item, const std::vector<Direction>& directions,
                     Members& members, Report& report) {
  const Members own = members;
  std::vector<std::string> lacking;
  for (const Direction direction : directions) {
    if (find_direction(own, direction)) continue;
    std::optional<ClipSet::Member> member = made_up(own, direction, item.value.missing);
    const std::string name(enum_names(direction)[static_cast<std::size_t>(direction)]);
    if (!member) {
      lacking.push_back(name);
      continue;
    }
    member->key = name;
    member->direction = direction;
    members.push_back(*std::move(member));
  }
  std::sort(members.begin(), members.end(),
            [](const auto& a, const auto& b) { return a.direction < b.direction; });
  if (lacking.empty()) return;
  std::string list;
  for (const std::string& name : lacking) list += fmt::format("{}\"{}\"", list.empty() ? "" : ", ", name);
  report.error(item.where, fmt::format("set \"{}\" has no clip for {}", item.name, list),
               item.value.missing == MissingDirections::turned
                   ? ""
                   : "missing = \"turned\" would rotate one that is there");
}

void report_taken(const Sheet& sheet, const std::string& name, const FilePosition& where, Report& report) {
  if (sheet.find_clip(name) || sheet.find_set(name))
    report.error(where,
                 fmt::format("there is a {} \"{}\" already", sheet.find_clip(name) ? "clip" : "set", name),
                 "clips and sets are played by their names alike");
}

// The first one after reporting that there is none of this name.
std::size_t clip_index(const Sheet& sheet, const Located<std::string>& name, Report& report) {
  try {
    return static_cast<std::size_t>(&sheet.clip(name.value, name.where) - sheet.clips.data());
  } catch (const Error& error) {
    report.add(error);
    return 0;
  }
}

}  // namespace

void add_set(const NamedItem<SetText>& item, ClipMaker& maker, Sheet& sheet, Report& report) {
  const SetText& text = item.value;
  ClipSet set{.name = item.name, .members = {}};
  std::vector<NamedItem<FilePosition>> keys;
  report_taken(sheet, item.name, item.where, report);
  if (sheet.clips.size() + text.rows.size() > most_clips)
    return report.error(
        item.where,
        fmt::format("with the rows of set \"{}\" the sheet has more than {} clips", item.name, most_clips));
  for (const auto& key : text.clips) {
    set.members.push_back({.key = key.name, .clip = clip_index(sheet, key.value, report)});
    keys.push_back({key.name, key.where, {}});
  }
  for (const auto& key : text.rows) {
    NamedItem<ClipText> row{item.name + " " + key.name, key.where, text.playing};
    row.value.row = key.value;
    report_taken(sheet, row.name, key.where, report);
    if (set.find(key.name) >= 0)
      report.error(key.where,
                   fmt::format("set \"{}\" has \"{}\" twice: as a clip and as a row", item.name, key.name));
    sheet.clips.push_back(maker.make(row));
    set.members.push_back({.key = key.name, .clip = sheet.clips.size() - 1});
    keys.push_back({key.name, key.where, {}});
  }
  if (set.members.empty())
    return report.error(item.where, fmt::format("set \"{}\" is empty", item.name),
                        "it has \"rows\" or \"clips\"");
  if (text.directions) {
    const std::vector<Direction> directions = all_of(*text.directions);
    set.by_direction = true;
    if (read_directions(keys, directions, set.members, report))
      fill_directions(item, directions, set.members, report);
  }
  sheet.sets.push_back(std::move(set));
}

}  // namespace vole
