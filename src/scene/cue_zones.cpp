#include "cue_zones.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <set>
#include <string>

#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/cues.hpp"
#include "vole/world/level_now.hpp"

namespace vole {
namespace {

std::set<std::string> zones_of(const Cues& cues) {
  std::set<std::string> names;
  const auto add = [&names](const ThingSelector& which) {
    if (which.what == ThingSelector::What::zone) names.insert(which.name);
  };
  for (const Cues::MeetingCue& cue : cues.meetings()) {
    add(cue.which);
    add(cue.other);
  }
  return names;
}

bool has_zone(const Level& level, const std::string& name) {
  return std::any_of(level.zones.begin(), level.zones.end(),
                     [&name](const LevelZone& zone) { return zone.name == name; });
}

}  // namespace

void expect_zones(const Cues& cues, const LevelNow& level, Catalog& catalog) {
  std::set<std::string> unknown = zones_of(cues);
  if (level) std::erase_if(unknown, [&](const std::string& name) { return has_zone(level.file(), name); });
  if (unknown.empty()) return;
  std::vector<std::string> known;
  for (const std::string& name : catalog.names<Level>()) {
    try {
      const Asset<Level> other = catalog.get<Level>(name);
      for (const LevelZone& zone : other->zones) known.push_back(zone.name);
    } catch (const Error&) {
      // Whoever loads it is told.
    }
  }
  for (const std::string& name : unknown)
    if (std::find(known.begin(), known.end(), name) == known.end())
      throw Error(FilePosition{}, fmt::format("no level has a zone \"{}\", which a cue is about", name),
                  did_you_mean(name, known));
}

}  // namespace vole
