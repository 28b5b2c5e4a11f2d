#include "vole/scene/ready/controls_scene.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "ready_parts.hpp"
#include "vole/asset/font.hpp"
#include "vole/input/controls.hpp"
#include "vole/scene/pictures/drawing.hpp"

namespace vole {
namespace {

constexpr float line = 14, margin = 8;

// The device that a control is on: the first word of its name; keys and letters are on one.
std::string device_of(const std::string& control) {
  const std::string word = control.substr(0, control.find(' '));
  return word == "letter" ? "key" : word;
}

const Controls& controls_of(const Stage& stage) {
  static const Controls none;
  return stage.input().controls() ? *stage.input().controls() : none;
}

std::string joined(const std::vector<std::string>& names) {
  std::string text;
  for (const std::string& name : names) text += (text.empty() ? "" : ", ") + name;
  return text;
}

// As many of the names as there is room for, and how many more there are.
std::string fitted(const std::vector<std::string>& names, const Font& font, float width) {
  if (names.empty()) return "nothing";
  for (std::size_t count = names.size();; --count) {
    std::string text = joined({names.begin(), names.begin() + static_cast<std::ptrdiff_t>(count)});
    if (count < names.size()) text += fmt::format("{}+{}", count == 0 ? "" : ", ", names.size() - count);
    if (count == 0 || static_cast<float>(font.measure(text).x) <= width) return text;
  }
}

}  // namespace

void ControlsScene::enter(Stage& stage) {
  stage.cover().hides_below = true;
  back_ = stage.argument<ControlsFor>().back;
  stage.ask_for_control();
}

void ControlsScene::tick(Stage& stage) {
  const std::string control = stage.asked_control();
  const std::vector<Rebinding> all = bindings_of(controls_of(stage));
  if (control.empty()) return;
  if (all.empty() || !waits_) return choose(stage, control, all);
  waits_ = false;
  bound_ = -1;
  if (control != "key Escape") bind(stage, control, all);
}

void ControlsScene::choose(Stage& stage, const std::string& control, const std::vector<Rebinding>& all) {
  const int count = std::max(static_cast<int>(all.size()), 1);
  if (ready::is_one_of(control, ready::up))
    chosen_ = (chosen_ + count - 1) % count;
  else if (ready::is_one_of(control, ready::down))
    chosen_ = (chosen_ + 1) % count;
  else if (control != "pad start" && ready::is_one_of(control, ready::yes))
    waits_ = !all.empty();
  else if (control == "key Backspace" || control == "pad north")
    stage.forget_rebindings();
  else if (control == "pad start" || ready::is_one_of(control, ready::back))
    go_back(stage);
}

void ControlsScene::go_back(Stage& stage) const {
  if (stage.covers())
    stage.close();
  else if (!back_.empty())
    stage.leave_for(back_);
}

// In place of what is on the same device; what is on others stays.
void ControlsScene::bind(Stage& stage, const std::string& control, const std::vector<Rebinding>& all) {
  bound_ = chosen_ % static_cast<int>(all.size());
  bound_control_ = control;
  Rebinding rebinding = all[static_cast<std::size_t>(bound_)];
  std::erase_if(rebinding.controls,
                [&](const std::string& name) { return device_of(name) == device_of(control); });
  rebinding.controls.insert(rebinding.controls.begin(), control);
  stage.rebind(std::move(rebinding));
}

std::string ControlsScene::told_of(const Controls& controls, const std::vector<Rebinding>& all) const {
  if (bound_ < 0 || bound_ >= static_cast<int>(all.size())) return {};
  const std::vector<std::string> others =
      also_pressed(controls, all[static_cast<std::size_t>(bound_)], bound_control_);
  return others.empty() ? std::string() : fmt::format("{} is {} too", bound_control_, joined(others));
}

void ControlsScene::draw(Drawing& drawing) const {
  const Stage& stage = drawing.stage();
  const Vec2 size(drawing.canvas());
  drawing.list().fill(drawing.layer(), {{0, 0}, size}, ready::ground);
  const std::vector<Rebinding> all = bindings_of(controls_of(stage));
  // As close as it takes to show all, down to lines that nearly touch; what does not fit is scrolled to.
  const float room = size.y - 3 * line;
  const float line_step =
      std::clamp(room / static_cast<float>(std::max<std::size_t>(all.size(), 1)), 10.0f, line);
  const int shown = std::max(static_cast<int>(room / line_step), 1);
  const int first = std::clamp(chosen_ - shown / 2, 0, std::max(static_cast<int>(all.size()) - shown, 0));
  const bool many = controls_of(stage).players() > 1;
  for (int i = first; i < std::min(first + shown, static_cast<int>(all.size())); ++i) {
    const Rebinding& binding = all[static_cast<std::size_t>(i)];
    const float y = margin + line_step * static_cast<float>(i - first);
    const bool is_chosen = i == chosen_;
    const std::string name =
        many ? fmt::format("{} {}", binding.player, shown_name(binding)) : shown_name(binding);
    drawing.text(name, {margin, y}, {.colour = is_chosen ? ready::mark : ready::ink});
    const float at = size.x * 0.3f;
    drawing.text(is_chosen && waits_ ? "press what is to do this"
                                     : fitted(binding.controls, stage.font("plain"), size.x - at - margin),
                 {at, y}, {.colour = is_chosen ? ready::mark : ready::faint});
  }
  drawing.text(told_of(controls_of(stage), all), {margin, size.y - 2 * line - 4}, {.colour = ready::mark});
  drawing.text("Enter: another   Backspace: all as before   Escape: back", {margin, size.y - line},
               {.colour = ready::faint});
}

}  // namespace vole
