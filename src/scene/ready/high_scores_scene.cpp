#include "vole/scene/ready/high_scores_scene.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "ready_parts.hpp"
#include "vole/asset/font.hpp"
#include "vole/scene/pictures/drawing.hpp"
#include "vole/scene/ready/high_scores.hpp"

namespace vole {
namespace {

// What a letter may be, in the order of up and down.
constexpr std::string_view spelled = "ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-. ";

char turned(char letter, int by) {
  const std::size_t at = spelled.find(letter);
  const auto count = static_cast<int>(spelled.size());
  const int from = at == std::string_view::npos ? 0 : static_cast<int>(at);
  return spelled[static_cast<std::size_t>((from + by + count) % count)];
}

// The letter that a control types: "letter Q", "key KeyQ", "key Digit4".
char typed(const std::string& control) {
  for (const std::string_view begin : {"letter ", "key Key", "key Digit"})
    if (control.starts_with(begin) && control.size() == begin.size() + 1) return control.back();
  return 0;
}

bool has_letters(const std::string& name) {
  return name.find_first_not_of(' ') != std::string::npos;
}

}  // namespace

void HighScoresScene::enter(Stage& stage) {
  const HighScoresFor& given = stage.argument<HighScoresFor>();
  const HighScores& scores = stage.value<HighScores>();
  stage.cover() = {.darkens = 0.75f, .blurs = 2};
  stage.set_background(ready::ground);
  stage.ask_for_control();
  asks_ = scores.takes(given.points);
  name_ = scores.last_name.empty() ? "A" : scores.last_name;
  letter_ = 0;
}

void HighScoresScene::tick(Stage& stage) {
  ++ticks_;
  const std::string control = stage.asked_control();
  if (control.empty()) return;
  if (asks_) return spell(stage, control);
  if (!ready::is_one_of(control, ready::yes) && !ready::is_one_of(control, ready::back)) return;
  if (stage.covers())
    stage.close();
  else if (const std::string& back = stage.argument<HighScoresFor>().back; !back.empty())
    stage.leave_for(back);
}

void HighScoresScene::spell(Stage& stage, const std::string& control) {
  const auto longest = static_cast<int>(HighScores::longest_name);
  auto at = static_cast<std::size_t>(letter_);
  if (const char letter = typed(control)) {
    // What is typed first takes the place of the whole name.
    if (letter_ == 0) name_.clear();
    name_.resize(std::max(name_.size(), at), ' ');
    name_.resize(at);
    name_ += letter;
    letter_ = std::min(letter_ + 1, longest - 1);
  } else if (ready::is_one_of(control, ready::up) || ready::is_one_of(control, ready::down)) {
    name_.resize(std::max(name_.size(), at + 1), 'Z');
    name_[at] = turned(name_[at], ready::is_one_of(control, ready::up) ? -1 : 1);
  } else if (ready::is_one_of(control, ready::right)) {
    letter_ = std::min(letter_ + 1, longest - 1);
    at = static_cast<std::size_t>(letter_);
    if (name_.size() <= at) name_.resize(at + 1, 'A');
  } else if (ready::is_one_of(control, ready::left) || control == "key Backspace" || control == "pad west") {
    if (!ready::is_one_of(control, ready::left) && name_.size() > 1)
      name_.resize(std::max<std::size_t>(at, 1));
    letter_ = std::max(letter_ - 1, 0);
  } else if (ready::is_one_of(control, ready::yes) && has_letters(name_)) {
    end_name(stage);
  }
}

void HighScoresScene::end_name(Stage& stage) {
  HighScores& scores = stage.value<HighScores>();
  while (!name_.empty() && name_.back() == ' ') name_.pop_back();
  scores.last_name = name_;
  place_ = static_cast<int>(scores.add({name_, stage.argument<HighScoresFor>().points,
                                        static_cast<std::int64_t>(stage.random().next_wide() >> 1)}));
  asks_ = false;
}

void HighScoresScene::draw(Drawing& drawing) const {
  const Stage& stage = drawing.stage();
  const HighScoresFor& given = stage.argument<HighScoresFor>();
  HighScores scores = stage.value<HighScores>();
  // While a name is asked for it stands where it will be.
  const int place = asks_ ? static_cast<int>(scores.add({name_, given.points, 0})) : place_;
  const Vec2 size(drawing.canvas());
  const float step = std::clamp((size.y - 46) / static_cast<float>(HighScores::most), 8.0f, 13.0f);
  const float left_edge = size.x / 2 - 80, right_edge = size.x / 2 + 80;
  drawing.text(given.title, {size.x / 2, 8}, {.anchor = Anchor::top, .colour = ready::ink});
  if (scores.best.empty())
    drawing.text("none yet", {size.x / 2, size.y / 2}, {.anchor = Anchor::centre, .colour = ready::faint});
  for (std::size_t i = 0; i < scores.best.size(); ++i) {
    const HighScore& score = scores.best[i];
    const bool is_new = static_cast<int>(i) == place;
    const float y = 24 + step * static_cast<float>(i);
    const Colour colour = is_new ? ready::mark : ready::ink;
    drawing.text(fmt::format("{}.", i + 1), {left_edge + 14, y},
                 {.anchor = Anchor::top_right, .colour = ready::faint});
    drawing.text(score.name, {left_edge + 22, y}, {.colour = colour});
    drawing.text(fmt::format("{}{}{}", score.points, given.unit.empty() ? "" : " ", given.unit),
                 {right_edge, y}, {.anchor = Anchor::top_right, .colour = colour});
    if (is_new && asks_ && ticks_ / 20 % 2 == 0) {
      const auto before = static_cast<float>(
          stage.font("plain").measure(score.name.substr(0, static_cast<std::size_t>(letter_))).x);
      drawing.list().fill(drawing.layer(), {{left_edge + 22 + before, y + 9}, {6, 1}}, ready::mark);
    }
  }
  drawing.text(asks_ ? "Type your name, or choose it with the arrows. Enter: done" : "Enter: on",
               {size.x / 2, size.y - 14}, {.anchor = Anchor::top, .colour = ready::faint});
}

}  // namespace vole
