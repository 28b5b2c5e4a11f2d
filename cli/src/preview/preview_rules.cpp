// Clip rules as a diagram: asked from the top, and the first that holds plays its clip.
#include <fmt/core.h>

#include <algorithm>

#include "diagram.hpp"
#include "preview_sheet.hpp"

namespace {

using namespace paper;

std::string how_long(const vole::ClipRules::Rule& rule) {
  std::string text;
  if (rule.finish) text = "to its end";
  if (rule.hold_milliseconds > 0)
    text += fmt::format("{}at least {} s", text.empty() ? "" : ", ", rule.hold_milliseconds / 1000.0);
  return text;
}

Question question_of(const vole::Sheet& sheet, const vole::ClipRules::Rule& rule, int scale) {
  Question question;
  for (const vole::ClipRules::Condition& condition : rule.when)
    question.asks.push_back(to_text(condition, sheet.rules));
  question.answer = rule.clip;
  question.below = sheet.find_set(rule.clip) ? "a set; " + how_long(rule) : how_long(rule);
  question.picture_size = sheet.frame_size * scale;
  const auto clips = sheet.played_by(rule.clip);
  if (!clips.empty())
    question.picture = [&sheet, clip = clips[0], scale](Page& page, IVec2 at) {
      draw_frame(page, sheet, clip->frames[0], at, scale, clip);
    };
  return question;
}

}  // namespace

void preview_rules(const vole::Sheet& sheet, const std::string& output) {
  const auto& rules = sheet.rules.rules();
  if (rules.empty())
    throw vole::Error(vole::FilePosition::whole_file(sheet.name), "has no clip rules to show",
                      "they are written as [[rules]]");
  Page page;
  page.text({margin, 16}, fmt::format("{}: the first rule that holds, each tick", sheet.name));
  const int scale = std::clamp(64 / std::max(sheet.frame_size.y, 1), 1, 4);
  std::vector<Question> questions;
  for (const vole::ClipRules::Rule& rule : rules) questions.push_back(question_of(sheet, rule, scale));
  draw_diagram(page, questions, "what plays goes on");
  page.save(output);
}
