// What a mind says is looked at, and read.

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/sheet.hpp"
#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/level/kinds.hpp"
#include "vole/world/component_hooks.hpp"
#include "vole/world/conditions.hpp"
#include "vole/world/mind.hpp"

namespace vole {
namespace {

std::vector<std::string> facts_of_mind(const Mind& mind, const OfKind& kind) {
  std::vector<std::string> facts = kind.facts();
  for (const Located<MindPart>& part : mind.parts)
    if (!part.value.name.empty()) facts.push_back(part.value.name);
  return facts;
}

void check_when(const Mind& mind, const OfKind& kind, Report& report) {
  if (!mind.conditions || (kind.sheet() && kind.sheet()->missing)) return;
  const std::vector<std::string> facts = facts_of_mind(mind, kind);
  for (std::size_t i = 0; i < mind.parts.size(); ++i) {
    const std::vector<ClipRules::Condition>& when = mind.conditions->when(i);
    for (std::size_t k = 0; k < when.size(); ++k)
      if (const std::string& fact = mind.conditions->facts()[when[k].fact];
          std::find(facts.begin(), facts.end(), fact) == facts.end())
        report.error(
            mind.parts[i].value.when[k].where,
            fmt::format(
                "no fact \"{}\" of \"{}\": neither its probes, its mind nor its sheet's rules have it", fact,
                kind.name()),
            did_you_mean(fact, facts));
  }
}

void check_part(const Located<MindPart>& item, const Kinds& kinds, Report& report) {
  const MindPart& part = item.value;
  const MindDeed& deed = part.deed();
  const std::string_view does = deed.word;
  const auto& [of, of_where] = part.of;
  if (deed.about_a_thing && of.empty())
    report.error(item.where,
                 fmt::format("a part that does \"{}\" says what it is about: of = \"...\"", does));
  else if (!deed.about_a_thing && !of.empty())
    report.error(of_where, fmt::format("a part that does \"{}\" is about nothing: leave \"of\" out", does));
  else if (!of.empty())
    report.gather([&, &text = of, &where = of_where] { kinds.expect_meant(meant_things(text), where); });
  if (deed.on_a_path == part.path.value.empty())
    report.error(deed.on_a_path ? item.where : part.path.where,
                 deed.on_a_path
                     ? std::string("a part that follows a path names it: path = \"...\"")
                     : fmt::format("a part that does \"{}\" follows no path: leave \"path\" out", does));
  if (part.finds_way && !deed.finds_ways)
    report.error(item.where,
                 fmt::format("a part that does \"{}\" finds no way: leave \"finds_way\" out", does));
  if (deed.presses && part.every <= 0) report.error(item.where, "a part that acts says how often: every = 2");
}

// Whether nothing but its conditions keeps it from deciding.
bool always_applies(const MindPart& part) {
  return !part.deed().about_a_thing && part.every <= 0 && part.when.empty();
}

}  // namespace

void need(Mind& mind, const OfKind& kind) {
  Report& report = kind.report();
  report.gather([&] { read_conditions(mind); });
  if (mind.parts.empty())
    report.error(kind.where(), fmt::format("the mind of \"{}\" has no parts", kind.name()),
                 "leave it out, or say what it does: mind = [{ does = \"patrol\" }]");
  for (const Located<MindPart>& part : mind.parts) check_part(part, kind.kinds(), report);
  check_when(mind, kind, report);
  for (std::size_t i = 0; i + 1 < mind.parts.size(); ++i)
    if (always_applies(mind.parts[i].value)) {
      report.error(mind.parts[i + 1].where,
                   "no part from here on ever decides: the one before always applies",
                   "put that one last, or give it a \"when\"");
      break;
    }
}

void expect(const Mind& mind, const InLevel& in) {
  for (const Located<MindPart>& part : mind.parts) in.expect_path(part.value.path);
}

void read_conditions(Mind& mind) {
  if (!mind.conditions || !mind.conditions->are_of(mind.parts))
    mind.conditions = std::make_shared<Conditions>(mind.parts);
}

}  // namespace vole
