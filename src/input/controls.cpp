#include "vole/input/controls.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "vole/base/check_notes.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

using BindingTexts = std::vector<Located<std::string>>;
// Of an action, or of a side of an axis.
constexpr std::size_t most_bindings = 100;

struct AxisText {
  BindingTexts less, more, left, right, up, down, stick;
  float dead = 0.2f;
  float curve = 1;
  float smooth = 0;

  bool is_flat() const { return !left.empty() || !right.empty() || !up.empty() || !down.empty(); }
};
template <class V>
void describe(V& v, AxisText& axis) {
  v("less", axis.less, items(most_bindings));
  v("more", axis.more, items(most_bindings));
  v("left", axis.left, items(most_bindings));
  v("right", axis.right, items(most_bindings));
  v("up", axis.up, items(most_bindings));
  v("down", axis.down, items(most_bindings));
  v("stick", axis.stick, items(most_bindings));
  v("dead", axis.dead, within(0, 0.9));
  v("curve", axis.curve, within(0.1, 10));
  v("smooth", axis.smooth, within(0, 10));
}

struct PlayerText {
  Named<BindingTexts> actions;
  Named<AxisText> axes;
};
template <class V>
void describe(V& v, PlayerText& player) {
  v("actions", player.actions, items(256));
  v("axes", player.axes, items(256));
}

struct AreaText {
  std::array<int, 4> area{};
};
template <class V>
void describe(V& v, AreaText& area) {
  v("area", area.area, needed().within(-4096, 4096));
}

struct ControlsText {
  Named<BindingTexts> actions;
  Named<AxisText> axes;
  Named<PlayerText> players;
  Named<AreaText> touch;
  bool pointer = false;
  CheckNotes check;
};
template <class V>
void describe(V& v, ControlsText& controls) {
  v("actions", controls.actions, items(256));
  v("axes", controls.axes, items(256));
  v("players", controls.players, items(most_players));
  v("touch", controls.touch, items(64));
  v("pointer", controls.pointer);
  v("check", controls.check);
}

bool is_of_pad(const Chord& binding) {
  return std::all_of(binding.all.begin(), binding.all.end(), [](Control control) {
    return control.index < control_names().size() && name_of(control).starts_with("pad ");
  });
}

std::vector<std::string> all_names(const std::vector<TouchArea>& areas) {
  std::vector<std::string> names = control_names();
  for (const TouchArea& area : areas) names.push_back("touch " + area.name);
  return names;
}

// Makes controls of what is written.
class ControlsBuilder {
 public:
  ControlsBuilder(const ControlsText& text, Report& report) : text_(text), report_(report) {}

  Controls build() {
    for (const auto& item : text_.touch) add_area(item.name, item.value, item.where);
    for (const auto& item : text_.actions) controls_.actions.push_back({item.name, bind(item.value)});
    for (const auto& item : text_.axes) controls_.axes.push_back(axis_of(item.name, item.value, item.where));
    controls_.pointer = text_.pointer;
    add_players();
    return std::move(controls_);
  }

 private:
  void add_area(const std::string& name, const AreaText& text, const FilePosition& where) {
    const IRect area{{text.area[0], text.area[1]}, {text.area[2], text.area[3]}};
    if (area.empty()) report_.error(where, fmt::format("the area \"{}\" has no size", name));
    if (find_control("touch " + name))
      report_.error(where, fmt::format("\"touch {}\" is a gesture already", name),
                    "give the area another name");
    controls_.areas.push_back({name, area});
  }

  std::optional<Control> control(std::string_view name, const FilePosition& where) {
    const auto found = find_control(name, controls_.areas);
    if (!found)
      report_.error(where, fmt::format("no control \"{}\"", name),
                    did_you_mean(name, all_names(controls_.areas)));
    return found;
  }

  // "key ShiftLeft + key KeyE"
  std::vector<Chord> bind(const BindingTexts& texts) {
    constexpr std::string_view and_ = " + ";
    std::vector<Chord> bindings;
    if (texts.size() > most_bindings)
      report_.error(texts[most_bindings].where,
                    fmt::format("more than {} controls for one thing", most_bindings));
    for (const Located<std::string>& text : texts) {
      std::vector<Control> chord;
      std::string_view rest = text.value;
      while (true) {
        const std::size_t end = rest.find(and_);
        if (const auto found = control(rest.substr(0, end), text.where)) {
          if (std::find(chord.begin(), chord.end(), *found) != chord.end())
            report_.error(text.where, fmt::format("\"{}\" is in it twice", rest.substr(0, end)),
                          "controls that are pressed together are different ones");
          chord.push_back(*found);
        }
        if (end == std::string_view::npos) break;
        rest.remove_prefix(end + and_.size());
      }
      if (!chord.empty()) bindings.emplace_back(std::move(chord));
    }
    return bindings;
  }

  Axis axis_of(const std::string& name, const AxisText& text, const FilePosition& where) {
    Axis axis;
    axis.name = name;
    axis.is_flat = text.is_flat() || is_whole_stick(text);
    if (axis.is_flat && (!text.less.empty() || !text.more.empty()))
      report_.error(where, fmt::format("axis \"{}\" has one dimension (less, more) and two", name),
                    "of two dimensions it has left, right, up and down");
    axis.less = bind(axis.is_flat ? text.left : text.less);
    axis.more = bind(axis.is_flat ? text.right : text.more);
    axis.up = bind(text.up);
    axis.down = bind(text.down);
    for (const Located<std::string>& stick : text.stick)
      if (const auto found = control(axis.is_flat ? stick.value + " x" : stick.value, stick.where))
        axis.sticks.push_back(*found);
    axis.dead = text.dead;
    axis.curve = text.curve;
    axis.smooth = text.smooth;
    return axis;
  }

  static bool is_whole_stick(const AxisText& text) {
    return !text.stick.empty() && find_control(text.stick[0].value + " x");
  }

  // What a player does not bind itself is bound for it only where a pad has it: each has its own.
  static std::vector<Chord> own_or_of_pad(std::vector<Chord> own, const std::vector<Chord>& of_first) {
    for (const Chord& binding : of_first)
      if (is_of_pad(binding)) own.push_back(binding);
    return own;
  }

  void add_players() {
    for (std::size_t i = 0; i < text_.players.size(); ++i) {
      const auto& item = text_.players[i];
      if (item.name != std::to_string(i + 2)) {
        report_.error(item.where, fmt::format("\"{}\" is not the next player", item.name),
                      fmt::format("players are counted: [players.{}]", i + 2));
        continue;
      }
      Controls::Player player;
      for (const Action& action : controls_.actions)
        player.actions.push_back({action.name, own_or_of_pad({}, action.bindings)});
      for (Axis axis : controls_.axes) {
        for (auto* bindings : {&axis.less, &axis.more, &axis.up, &axis.down})
          *bindings = own_or_of_pad({}, *bindings);
        player.axes.push_back(std::move(axis));
      }
      add_own(item.value, player);
      controls_.others.push_back(std::move(player));
    }
  }

  void add_own(const PlayerText& text, Controls::Player& player) {
    for (const auto& own : text.actions)
      if (Action* const action = named(player.actions, own, "action"))
        action->bindings = own_or_of_pad(bind(own.value), action->bindings);
    for (const auto& own : text.axes)
      if (Axis* const axis = named(player.axes, own, "axis")) {
        Axis mine = axis_of(own.name, own.value, own.where);
        if (mine.is_flat != axis->is_flat && !(mine.less.empty() && mine.more.empty()))
          report_.error(own.where,
                        fmt::format("axis \"{}\" is of another dimension than the first player's", own.name));
        axis->less = own_or_of_pad(std::move(mine.less), axis->less);
        axis->more = own_or_of_pad(std::move(mine.more), axis->more);
        axis->up = own_or_of_pad(std::move(mine.up), axis->up);
        axis->down = own_or_of_pad(std::move(mine.down), axis->down);
      }
  }

  template <class Things, class Item>
  auto named(Things& things, const Item& own, std::string_view sort) -> decltype(things.data()) {
    const std::size_t index = index_named(things, own.name);
    if (index < things.size()) return &things[index];
    report_.error(own.where, fmt::format("no {} \"{}\"", sort, own.name),
                  did_you_mean(own.name, names_of(things)));
    return nullptr;
  }

  const ControlsText& text_;
  Report& report_;
  Controls controls_;
};

}  // namespace

Chord::Chord(Control one) : all{one} {}
Chord::Chord(std::vector<Control> chord) : all(std::move(chord)) {}

Control area_control(std::size_t area) {
  return {static_cast<std::uint16_t>(control_names().size() + area)};
}

std::optional<Control> find_control(std::string_view name, const std::vector<TouchArea>& areas) {
  constexpr std::string_view touch = "touch ";
  if (name.starts_with(touch))
    if (const std::size_t area = index_named(areas, name.substr(touch.size())); area < areas.size())
      return area_control(area);
  return find_control(name);
}

std::string name_of(const Chord& binding, const std::vector<TouchArea>& areas) {
  std::string text;
  for (const Control control : binding.all) {
    if (!text.empty()) text += " + ";
    const std::size_t known = control_names().size();
    text += control.index < known ? std::string(name_of(control))
                                  : "touch " + areas.at(control.index - known).name;
  }
  return text;
}

TomlValue controls_schema() {
  return schema_of<ControlsText>();
}

Controls read_controls(const std::string& path) {
  Report report;
  ControlsText text;
  read(read_toml(path), text, report);
  Controls controls = ControlsBuilder(text, report).build();
  report.throw_if_errors();
  return controls;
}

}  // namespace vole
