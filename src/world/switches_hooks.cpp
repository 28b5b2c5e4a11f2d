// What switches say is looked at, and read.

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/sheet.hpp"
#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/world/body.hpp"
#include "vole/world/component_hooks.hpp"
#include "vole/world/conditions.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/switches.hpp"

namespace vole {
namespace {

bool contains(const std::vector<std::string>& names, std::string_view name) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

std::vector<std::string> events_of(const Sheet* sheet) {
  std::vector<std::string> events;
  if (sheet)
    for (const Clip& clip : sheet->clips)
      for (const ClipEvent& event : clip.events) events.push_back(event.name);
  return events;
}

void check_switch(const Located<Switch>& item, const OfKind& kind, Report& report) {
  const auto& [shape, when, event, use, holds] = item.value;
  if (when.empty() == event.value.empty())
    report.error(item.where, "a switch has either a \"when\" or an \"event\"");
  const auto* const its = kind.find<Shapes>();
  const std::vector<std::string> shapes = its ? its->names() : std::vector<std::string>();
  if (!shape.empty() && !contains(shapes, shape))
    report.error(item.where, fmt::format("no shape \"{}\" of \"{}\"", shape, kind.name()),
                 did_you_mean(shape, shapes));
  const std::vector<std::string> events = events_of(kind.sheet());
  if (!event.value.empty() && !(kind.sheet() && kind.sheet()->missing) && !contains(events, event.value))
    report.error(event.where, fmt::format("no clip of \"{}\" has an event \"{}\"", kind.name(), event.value),
                 did_you_mean(event.value, events));
}

void check_conditions(const Switches& switches, const OfKind& kind, Report& report) {
  if (!switches.conditions || (kind.sheet() && kind.sheet()->missing)) return;
  const std::vector<std::string> facts = kind.facts();
  for (std::size_t i = 0; i < switches.list.size(); ++i) {
    const std::vector<ClipRules::Condition>& when = switches.conditions->when(i);
    for (std::size_t k = 0; k < when.size(); ++k)
      if (const std::string& fact = switches.conditions->facts()[when[k].fact]; !contains(facts, fact))
        report.error(switches.list[i].value.when[k].where,
                     fmt::format("no fact \"{}\" of \"{}\": neither its sheet's rules nor its probes have it",
                                 fact, kind.name()),
                     did_you_mean(fact, facts));
  }
}

}  // namespace

void need(Switches& switches, const OfKind& kind) {
  Report& report = kind.report();
  report.gather([&] { read_conditions(switches); });
  if (!kind.find<Body>() && !switches.list.empty())
    report.error(switches.list[0].where, fmt::format("kind \"{}\" has no body to switch", kind.name()));
  for (const Located<Switch>& item : switches.list) check_switch(item, kind, report);
  check_conditions(switches, kind, report);
}

void read_conditions(Switches& switches) {
  if (!switches.conditions || !switches.conditions->are_of(switches.list))
    switches.conditions = std::make_shared<Conditions>(switches.list);
}

}  // namespace vole
