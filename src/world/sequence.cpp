// What sequences say is looked at, and read.
#include "vole/world/sequence.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/sheet.hpp"
#include "vole/base/error.hpp"
#include "vole/base/field.hpp"
#include "vole/base/names.hpp"
#include "vole/world/binding.hpp"
#include "vole/world/component_hooks.hpp"
#include "vole/world/component_types.hpp"
#include "vole/world/conditions.hpp"

namespace vole {
namespace {

// A field of a step, and whether it says something.
struct GivenField {
  std::string_view name;
  bool given;
};
std::array<GivenField, 16> fields_of(const SequenceStep& step) {
  return {{{"seconds", step.seconds > 0},
           {"told", !step.told.value.empty()},
           {"when", !step.when.empty()},
           {"thing", !step.thing.value.empty()},
           {"to", !step.to.value.empty()},
           {"at", step.at.has_value()},
           {"speed", step.speed > 0},
           {"clip", !step.clip.value.empty()},
           {"field", !step.field.value.empty()},
           {"number", step.number.has_value()},
           {"pair", step.pair.has_value()},
           {"colour", step.colour.has_value()},
           {"ease", step.ease != Ease::linear},
           {"text", !step.text.empty()},
           {"sequences", !step.sequences.empty()},
           {"times", step.times != 1}}};
}

bool has_word(std::string_view text, std::string_view word) {
  while (!text.empty()) {
    const std::size_t end = std::min(text.find(' '), text.size());
    if (text.substr(0, end) == word) return true;
    text.remove_prefix(std::min(end + 1, text.size()));
  }
  return false;
}

void check_fields(const Located<SequenceStep>& item, Report& report) {
  const StepDeed& deed = item.value.deed();
  for (const GivenField& field : fields_of(item.value)) {
    const bool needed = has_word(deed.needs, field.name);
    if (needed && !field.given)
      report.error(item.where, fmt::format("a step that does \"{}\" says \"{}\"", deed.word, field.name));
    if (!needed && field.given && !has_word(deed.may, field.name))
      report.error(item.where,
                   fmt::format("a step that does \"{}\" has no \"{}\": leave it out", deed.word, field.name));
  }
  if (item.value.does == StepDoes::go && item.value.to.value.empty() != item.value.at.has_value())
    report.error(item.where, "a step that goes says where: either to = \"a place\" or at = [120, 80]");
}

// The value of a tween, as parts.
void read_value(Located<SequenceStep>& item, const OfKind& kind) {
  SequenceStep& step = item.value;
  const std::string& field = step.field.value;
  const std::size_t dot = std::min(field.find('.'), field.size());
  const std::string component = field.substr(0, dot), name = field.substr(std::min(dot + 1, field.size()));
  const ComponentTypes& types = kind.binding().types;
  const ComponentTypes::Type* const type = types.find(component);
  if (!type && kind.binding().unknown == UnknownComponents::skip) return;
  if (!type)
    return kind.report().error(step.field.where, fmt::format("no component \"{}\"", component),
                               did_you_mean(component, names_of(types.all())));
  const BoundField bound = bind_field(types, component, name);
  if (!bound.type)
    return kind.report().error(step.field.where,
                               fmt::format("\"{}\" has no number, pair or colour \"{}\"", component, name),
                               did_you_mean(name, names_of(type->fields())));
  const int parts = step.number ? 1 : step.pair ? 2 : step.colour ? 4 : 0;
  if (parts != bound.parts || step.number.has_value() + step.pair.has_value() + step.colour.has_value() != 1)
    return kind.report().error(item.where,
                               fmt::format("\"{}\" is {}: say {} = ...", field, word_for_parts(bound.parts),
                                           bound.parts == 1   ? "number"
                                           : bound.parts == 2 ? "pair"
                                                              : "colour"));
  step.value = step.number ? parts_of(*step.number)
               : step.pair ? parts_of(*step.pair)
                           : parts_of(*step.colour);
}

void check_clip(const SequenceStep& step, const OfKind& kind) {
  const Sheet* const sheet = kind.sheet();
  if (step.clip.value.empty() || !step.thing.value.empty() || (sheet && sheet->missing)) return;
  std::vector<std::string> names;
  if (sheet) names = names_of(sheet->clips);
  if (sheet)
    for (const ClipSet& set : sheet->sets) names.push_back(set.name);
  if (std::find(names.begin(), names.end(), step.clip.value) == names.end())
    kind.report().error(step.clip.where,
                        fmt::format("no clip \"{}\" of \"{}\"", step.clip.value, kind.name()),
                        did_you_mean(step.clip.value, names));
}

void find_lists(Located<SequenceStep>& item, const Sequences& sequences, Report& report) {
  item.value.lists.clear();
  for (const Located<std::string>& name : item.value.sequences) {
    const std::size_t place = sequences.find(name.value);
    if (place == sequences.all.size())
      report.error(name.where, fmt::format("no sequence \"{}\"", name.value),
                   did_you_mean(name.value, names_of(sequences.all)));
    else
      item.value.lists.push_back(static_cast<std::uint32_t>(place));
  }
  if (item.value.does == StepDoes::repeat && item.value.sequences.size() > 1)
    report.error(item.where, "a step repeats one sequence");
}

void check_facts(const Sequence& sequence, const OfKind& kind) {
  kind.report().gather([&] { read_conditions(sequence); });
  if (!sequence.conditions || (kind.sheet() && kind.sheet()->missing)) return;
  const std::vector<std::string> facts = kind.facts();
  for (std::size_t i = 0; i < sequence.steps.size(); ++i) {
    const SequenceStep& step = sequence.steps[i].value;
    if (!step.thing.value.empty()) continue;  // of another kind
    const std::vector<ClipRules::Condition>& when = sequence.conditions->when(i);
    for (std::size_t k = 0; k < when.size(); ++k)
      if (const std::string& fact = sequence.conditions->facts()[when[k].fact];
          std::find(facts.begin(), facts.end(), fact) == facts.end())
        kind.report().error(step.when[k].where,
                            fmt::format("no fact \"{}\" of \"{}\": neither its probes nor its sheet's rules "
                                        "have it, so the sequence would wait for ever",
                                        fact, kind.name()),
                            did_you_mean(fact, facts));
  }
}

// Whether a sequence comes to itself again by those that it does.
bool goes_in_a_circle(const Sequences& sequences, std::uint32_t list, std::vector<char>& state) {
  constexpr char under_way = 1, known = 2;
  if (state[list] != 0) return state[list] == under_way;
  state[list] = under_way;
  for (const Located<SequenceStep>& step : sequences.all[list].value.steps)
    for (const std::uint32_t other : step.value.lists)
      if (goes_in_a_circle(sequences, other, state)) return true;
  state[list] = known;
  return false;
}

}  // namespace

std::size_t Sequences::find(std::string_view name) const {
  return index_named(all, name);
}

void read_conditions(const Sequence& sequence) {
  if (!sequence.conditions || !sequence.conditions->are_of(sequence.steps))
    sequence.conditions = std::make_shared<Conditions>(sequence.steps);
}

void need(Sequences& sequences, const OfKind& kind) {
  Report& report = kind.report();
  if (sequences.all.size() > most_sequences)
    return report.error(kind.where(), fmt::format("more than {} sequences", most_sequences));
  for (NamedItem<Sequence>& each : sequences.all) {
    for (Located<SequenceStep>& step : each.value.steps) {
      check_fields(step, report);
      if (step.value.does == StepDoes::tween && !step.value.field.value.empty()) read_value(step, kind);
      check_clip(step.value, kind);
      find_lists(step, sequences, report);
    }
    check_facts(each.value, kind);
  }
  for (std::uint32_t i = 0; i < sequences.all.size(); ++i) {
    std::vector<char> state(sequences.all.size());
    if (goes_in_a_circle(sequences, i, state))
      return report.error(
          sequences.all[i].where,
          fmt::format("the sequence \"{}\" does itself again, and again in that", sequences.all[i].name),
          "what comes again and again is done by \"repeat\"");
  }
}

void expect(const Sequences& sequences, const InLevel& in) {
  for (const NamedItem<Sequence>& each : sequences.all)
    for (const Located<SequenceStep>& step : each.value.steps) {
      in.expect_place(step.value.thing);
      in.expect_place(step.value.to);
    }
}

}  // namespace vole
