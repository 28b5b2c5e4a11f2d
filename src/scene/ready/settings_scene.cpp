#include "vole/scene/ready/settings_scene.hpp"

#include <algorithm>

#include "ready_parts.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/base/vec4.hpp"
#include "vole/base/writing.hpp"
#include "vole/scene/pictures/drawing.hpp"

namespace vole {
namespace {

constexpr float row_step = 14;

std::string text_of(const DescribedField& field, const void* settings) {
  if (field.type == &field_type<bool>()) return *static_cast<const bool*>(field.in(settings)) ? "on" : "off";
  TomlText text(TomlText::Layout::one_line);
  field.type->write(text, field.in(settings));
  std::string shown = text.text();
  std::erase(shown, '"');
  return shown;
}

// The next value of a field, or the one before it: of a switch the other, of choices the next, of a number a tenth of the way
// between its limits, or 1 where it is whole and the way is short.
void turn(const DescribedField& field, void* settings, int by) {
  void* const value = field.in(settings);
  if (field.type == &field_type<bool>()) {
    bool& on = *static_cast<bool*>(value);
    on = !on;
    return;
  }
  const TomlValue schema = field.type->schema(field.rule);
  if (const TomlValue* const choices = schema.find("enum")) {
    const std::string now = text_of(field, settings);
    const auto count = static_cast<int>(choices->items.size());
    for (int i = 0; i < count; ++i) {
      if (choices->items[static_cast<std::size_t>(i)].text != now) continue;
      Report report;
      const TomlValue& next = choices->items[static_cast<std::size_t>((i + by + count) % count)];
      return field.type->read(next, value, field.rule, report, TableOf::file);
    }
    return;
  }
  if (field.type->parts() != 1 || !field.rule.limited()) return;
  const double way = field.rule.most - field.rule.least;
  const TomlValue* const sort = schema.find("type");
  const bool whole = sort && sort->text == "integer";
  const double step = whole && way <= 20 ? 1 : way / 10;
  const double now = static_cast<double>(field.type->parts_of(value).x);
  const auto next = static_cast<float>(std::clamp(now + by * step, field.rule.least, field.rule.most));
  field.type->put_parts(value, {next, 0, 0, 0}, field.rule);
}

std::string name_of(const DescribedField& field) {
  std::string name = field.key;
  std::replace(name.begin(), name.end(), '_', ' ');
  return name;
}

}  // namespace

void SettingsScene::enter(Stage& stage) {
  stage.cover() = {.darkens = 0.75f, .blurs = 2};
  stage.set_background(ready::ground);
  stage.ask_for_control();
}

// The fields, the keys where they have a scene, and the way back.
int SettingsScene::lines(const Stage& stage) const {
  const auto fields = static_cast<int>(type().table(settings(stage)).fields().size());
  return fields + (stage.argument<SettingsFor>().keys.empty() ? 1 : 2);
}

void SettingsScene::tick(Stage& stage) {
  const std::string& control = stage.asked_control();
  const int count = lines(stage);
  if (control.empty()) return;
  if (ready::is_one_of(control, ready::up)) chosen_ = (chosen_ + count - 1) % count;
  if (ready::is_one_of(control, ready::down)) chosen_ = (chosen_ + 1) % count;
  if (ready::is_one_of(control, ready::left)) choose(stage, chosen_, -1);
  if (ready::is_one_of(control, ready::right)) choose(stage, chosen_, 1);
  if (ready::is_one_of(control, ready::yes)) choose(stage, chosen_, 0);
  if (ready::is_one_of(control, ready::back)) choose(stage, count - 1, 0);
}

// `by` 0: by a button that says yes.
void SettingsScene::choose(Stage& stage, int row, int by) {
  const SettingsFor& given = stage.argument<SettingsFor>();
  const std::vector<DescribedField>& fields = type().table(settings(stage)).fields();
  const auto index = static_cast<std::size_t>(row);
  if (index < fields.size()) return turn(fields[index], settings(stage), by == 0 ? 1 : by);
  if (by != 0) return;
  if (index == fields.size() && !given.keys.empty())
    stage.open(given.keys);
  else if (stage.covers())
    stage.close();
  else if (!given.back.empty())
    stage.leave_for(given.back);
}

void SettingsScene::draw(Drawing& drawing) const {
  const Stage& stage = drawing.stage();
  const SettingsFor& given = stage.argument<SettingsFor>();
  const std::vector<DescribedField>& fields = type().table(settings(stage)).fields();
  const Vec2 size(drawing.canvas());
  const int count = lines(stage);
  const int shown = std::max(static_cast<int>((size.y - 50) / row_step), 1);
  const int first = std::clamp(chosen_ - shown / 2, 0, std::max(count - shown, 0));
  drawing.text(given.title, {size.x / 2, 10}, {.anchor = Anchor::top, .colour = ready::ink});
  for (int i = first; i < std::min(first + shown, count); ++i) {
    const auto index = static_cast<std::size_t>(i);
    const float y = 32 + row_step * static_cast<float>(i - first);
    const Colour colour = i == chosen_ ? ready::mark : ready::ink;
    const bool is_field = index < fields.size();
    const std::string name = is_field                                        ? name_of(fields[index])
                             : index == fields.size() && !given.keys.empty() ? "keys"
                                                                             : "back";
    drawing.text(name, {size.x / 2 - 70, y}, {.colour = colour});
    if (is_field)
      drawing.text(text_of(fields[index], settings(stage)), {size.x / 2 + 70, y},
                   {.anchor = Anchor::top_right, .colour = i == chosen_ ? ready::mark : ready::faint});
  }
  drawing.text("Arrows: choose and change   Escape: back", {size.x / 2, size.y - 14},
               {.anchor = Anchor::top, .colour = ready::faint});
}

}  // namespace vole
