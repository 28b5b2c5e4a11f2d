// A mind as a diagram: its parts are asked from the top, and the first that applies decides.
#include <fmt/core.h>

#include "diagram.hpp"
#include "preview_kinds.hpp"
#include "vole/world/conditions.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/side_mover.hpp"

namespace {

using namespace paper;
using vole::MindPart;

Question question_of(const MindPart& part, const std::vector<std::string>& when, bool from_the_side) {
  Question question;
  question.asks = when;
  if (part.every > 0)
    question.asks.push_back(part.deed().presses
                                ? fmt::format("every {} s", part.every)
                                : fmt::format("every {} s, for {} s", part.every, part.seconds));
  if (part.deed().about_a_thing)
    question.asks.push_back(
        fmt::format("\"{}\" within {}{}", part.of.value, part.within, part.seen ? ", seen" : ""));
  question.answer = part.deed().word;
  if (!part.path.value.empty()) question.answer += fmt::format(" \"{}\"", part.path.value);
  const auto add = [&](const std::string& text) {
    question.below += (question.below.empty() ? "" : ", ") + text;
  };
  if (!part.name.empty()) add(fmt::format("as \"{}\"", part.name));
  if (part.deed().at_a_distance) add(fmt::format("of {} pixels", part.distance));
  if (part.finds_way) add(from_the_side ? "over ledges" : "around walls");
  if (part.jumps) add("jumping");
  if (part.pace < 1) add(fmt::format("at {} of its speed", part.pace));
  if (part.remembers > 0) add(fmt::format("looking for {} s", part.remembers));
  if (part.hold > 0) add(fmt::format("at least {} s", part.hold));
  return question;
}

}  // namespace

void preview_mind(vole::Catalog& catalog, const std::string& name, const std::string& output) {
  const WrittenThings things(catalog);
  const WrittenThing thing = things.of_kind(name);
  const auto* const mind = thing.kind->find<vole::Mind>();
  if (!mind)
    throw vole::Error(vole::FilePosition::whole_file("kinds.toml"),
                      fmt::format("kind \"{}\" has no mind", name), "it is written as [[" + name + ".mind]]");
  Page page;
  page.text({margin, 16}, fmt::format("the mind of \"{}\": the first part that applies, each tick", name));
  std::vector<Question> questions;
  for (std::size_t i = 0; i < mind->parts.size(); ++i)
    questions.push_back(question_of(mind->parts[i].value, mind->conditions->texts(i),
                                    thing.kind->find<vole::SideMover>() != nullptr));
  draw_diagram(page, questions, "it wants nothing");
  page.save(output);
}
