// Clip rules as a diagram: asked from the top, and the first that holds plays its clip.
#include <fmt/format.h>

#include <algorithm>

#include "preview_page.hpp"
#include "preview_sheet.hpp"

namespace {

using namespace paper;

constexpr int column_width = 600;
constexpr int question_width = 300;
constexpr int answer_at = 390;
constexpr int gap = 26;  // between two questions
constexpr int line_height = 20;

// A line with a head at its end; straight to the right or straight down.
void arrow(Page& page, IVec2 from, IVec2 to, Colour colour) {
  const bool down = from.x == to.x;
  page.fill({from, down ? IVec2{2, to.y - from.y} : IVec2{to.x - from.x, 2}}, colour);
  for (int step = 0; step < 6; ++step) {
    const IVec2 corner = down ? IVec2{to.x - step, to.y - step} : IVec2{to.x - step, to.y - step};
    page.fill({corner, down ? IVec2{2 * step + 2, 1} : IVec2{1, 2 * step + 2}}, colour);
  }
}

int height_of(const vole::ClipRules::Rule& rule, int picture) {
  return std::max(static_cast<int>(std::max<std::size_t>(rule.when.size(), 1)) * line_height + 14,
                  picture + 8);
}

std::string how_long(const vole::ClipRules::Rule& rule) {
  std::string text;
  if (rule.finish) text = "to its end";
  if (rule.hold_milliseconds > 0)
    text += fmt::format("{}at least {} s", text.empty() ? "" : ", ", rule.hold_milliseconds / 1000.0);
  return text;
}

void draw_rule(Page& page, const vole::Sheet& sheet, const vole::ClipRules::Rule& rule, IVec2 at, int scale) {
  const int picture = sheet.frame_size.y * scale;
  const int height = height_of(rule, picture);
  page.fill({at, {question_width, height}}, dark_square);
  page.outline({at, {question_width, height}}, faint);
  int y =
      at.y + (height - static_cast<int>(std::max<std::size_t>(rule.when.size(), 1)) * line_height) / 2 + 2;
  if (rule.when.empty()) page.text({at.x + 12, y}, "always", faint);
  for (std::size_t i = 0; i < rule.when.size(); ++i, y += line_height)
    page.text({at.x + 12, y}, (i > 0 ? "and " : "") + to_text(rule.when[i], sheet.rules));
  const int middle = at.y + height / 2;
  arrow(page, {at.x + question_width, middle - 1}, {at.x + answer_at - 10, middle - 1}, mark);
  if (!rule.when.empty()) page.text({at.x + question_width + 20, middle - 20}, "yes", mark);
  const IVec2 answer{at.x + answer_at, middle - picture / 2};
  const auto clips = sheet.played_by(rule.clip);
  if (!clips.empty()) draw_frame(page, sheet, clips[0]->frames[0], answer, scale, clips[0]);
  const IVec2 name{answer.x + sheet.frame_size.x * scale + 10, middle - 16};
  page.text(name, rule.clip);
  page.text(name + IVec2{0, 20}, sheet.find_set(rule.clip) ? "a set; " + how_long(rule) : how_long(rule),
            {.colour = faint});
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
  const int picture = sheet.frame_size.y * scale;
  IVec2 at{margin, 56};
  for (std::size_t i = 0; i < rules.size(); ++i) {
    const int height = height_of(rules[i], picture);
    if (at.y + height > page_size.y - margin) at = {at.x + column_width + margin, 56};
    if (at.x + column_width > page_size.x) {
      page.text({margin, page_size.y - 24}, fmt::format("and {} more", rules.size() - i), mark);
      break;
    }
    draw_rule(page, sheet, rules[i], at, scale);
    at.y += height + gap;
    const bool goes_on = !rules[i].when.empty();
    if (!goes_on) continue;
    arrow(page, {at.x + 40, at.y - gap}, {at.x + 40, at.y - 1}, faint);
    page.text({at.x + 54, at.y - gap + 6}, "no", faint);
    if (i + 1 == rules.size()) page.text({at.x + 12, at.y + 6}, "what plays goes on", faint);
  }
  page.save(output);
}
