#include "diagram.hpp"

#include <fmt/core.h>

#include <algorithm>

namespace {

using namespace paper;

constexpr int column_width = 600;
constexpr int question_width = 300;
constexpr int answer_at = 390;
constexpr int gap = 26;  // between two questions
constexpr int line_height = 20;
constexpr int top = 56;

// A line with a head at its end; straight to the right or straight down.
void arrow(Page& page, IVec2 from, IVec2 to, Colour colour) {
  const bool down = from.x == to.x;
  page.fill({from, down ? IVec2{2, to.y - from.y} : IVec2{to.x - from.x, 2}}, colour);
  for (int step = 0; step < 6; ++step) {
    const IVec2 corner = down ? IVec2{to.x - step, to.y - step} : IVec2{to.x - step, to.y - step};
    page.fill({corner, down ? IVec2{2 * step + 2, 1} : IVec2{1, 2 * step + 2}}, colour);
  }
}

int lines_of(const Question& question) {
  return static_cast<int>(std::max<std::size_t>(question.asks.size(), 1)) * line_height;
}
int height_of(const Question& question) {
  return std::max(lines_of(question) + 14, question.picture_size.y + 8);
}

void draw_question(Page& page, const Question& question, IVec2 at) {
  const int height = height_of(question);
  page.fill({at, {question_width, height}}, dark_square);
  page.outline({at, {question_width, height}}, faint);
  int y = at.y + (height - lines_of(question)) / 2 + 2;
  if (question.asks.empty()) page.text({at.x + 12, y}, "always", faint);
  for (std::size_t i = 0; i < question.asks.size(); ++i, y += line_height)
    page.text({at.x + 12, y}, (i > 0 ? "and " : "") + question.asks[i]);
  const int middle = at.y + height / 2;
  arrow(page, {at.x + question_width, middle - 1}, {at.x + answer_at - 10, middle - 1}, mark);
  if (!question.asks.empty()) page.text({at.x + question_width + 20, middle - 20}, "yes", mark);
  const IVec2 answer{at.x + answer_at, middle - question.picture_size.y / 2};
  if (question.picture) question.picture(page, answer);
  const IVec2 name{answer.x + question.picture_size.x + (question.picture ? 10 : 0), middle - 16};
  page.text(name, question.answer);
  page.text(name + IVec2{0, 20}, question.below, {.colour = faint});
}

}  // namespace

void draw_diagram(Page& page, const std::vector<Question>& questions, const std::string& otherwise) {
  IVec2 at{margin, top};
  for (std::size_t i = 0; i < questions.size(); ++i) {
    const int height = height_of(questions[i]);
    if (at.y + height > page_size.y - margin) at = {at.x + column_width + margin, top};
    if (at.x + column_width > page_size.x) {
      page.text({margin, page_size.y - 24}, fmt::format("and {} more", questions.size() - i), mark);
      break;
    }
    draw_question(page, questions[i], at);
    at.y += height + gap;
    if (questions[i].asks.empty()) continue;
    arrow(page, {at.x + 40, at.y - gap}, {at.x + 40, at.y - 1}, faint);
    page.text({at.x + 54, at.y - gap + 6}, "no", faint);
    if (i + 1 == questions.size()) page.text({at.x + 12, at.y + 6}, otherwise, faint);
  }
}
