#include "vole/input/rebinding.hpp"

#include <algorithm>
#include <array>
#include <optional>

#include "vole/base/names.hpp"
#include "vole/input/controls.hpp"

namespace vole {
namespace {

// The sides of an axis, by their names in controls.toml.
struct Side {
  std::string_view name;
  std::vector<Chord> Axis::*bindings;
  bool of_flat;
};
constexpr std::array<Side, 6> control_sides{{{"less", &Axis::less, false},
                                             {"more", &Axis::more, false},
                                             {"left", &Axis::less, true},
                                             {"right", &Axis::more, true},
                                             {"up", &Axis::up, true},
                                             {"down", &Axis::down, true}}};

std::vector<std::string> names_of_chords(const std::vector<Chord>& bindings, const Controls& controls) {
  std::vector<std::string> names;
  for (const Chord& chord : bindings) names.push_back(name_of(chord, controls.areas));
  return names;
}

// "key ControlLeft + key KeyS"; none where a control is not known.
std::optional<Chord> read_chord(std::string_view text, const Controls& controls) {
  std::vector<Control> all;
  constexpr std::string_view joint = " + ";
  while (true) {
    const std::size_t end = std::min(text.find(joint), text.size());
    const std::optional<Control> control = find_control(text.substr(0, end), controls.areas);
    if (!control) return std::nullopt;
    all.push_back(*control);
    if (end == text.size()) return Chord(std::move(all));
    text.remove_prefix(end + joint.size());
  }
}

std::vector<Action>& actions_of(Controls& controls, std::size_t player) {
  return player == 0 ? controls.actions : controls.others[player - 1].actions;
}
std::vector<Axis>& axes_of(Controls& controls, std::size_t player) {
  return player == 0 ? controls.axes : controls.others[player - 1].axes;
}

// What is bound to it; nullptr when there is no such thing.
std::vector<Chord>* bound(Controls& controls, const Rebinding& rebinding) {
  if (rebinding.player < 1 || rebinding.player > controls.players()) return nullptr;
  const auto player = static_cast<std::size_t>(rebinding.player - 1);
  if (rebinding.side.empty()) {
    Action* const action = find_named(actions_of(controls, player), rebinding.name);
    return action ? &action->bindings : nullptr;
  }
  Axis* const axis = find_named(axes_of(controls, player), rebinding.name);
  for (const Side& side : control_sides)
    if (axis && side.name == rebinding.side && side.of_flat == axis->is_flat) return &(axis->*side.bindings);
  return nullptr;
}

}  // namespace

std::vector<Rebinding> bindings_of(const Controls& controls) {
  std::vector<Rebinding> all;
  for (std::size_t player = 0; player < static_cast<std::size_t>(controls.players()); ++player) {
    const int number = static_cast<int>(player) + 1;
    for (const Action& action : controls.actions_of(player))
      all.push_back({number, action.name, {}, names_of_chords(action.bindings, controls)});
    for (const Axis& axis : controls.axes_of(player))
      for (const Side& side : control_sides)
        if (side.of_flat == axis.is_flat)
          all.push_back(
              {number, axis.name, std::string(side.name), names_of_chords(axis.*side.bindings, controls)});
  }
  return all;
}

Controls with_rebindings(Controls controls, std::span<const Rebinding> rebindings) {
  for (const Rebinding& rebinding : rebindings) {
    std::vector<Chord>* const bindings = bound(controls, rebinding);
    if (!bindings) continue;
    bindings->clear();
    for (const std::string& name : rebinding.controls)
      if (const std::optional<Chord> chord = read_chord(name, controls)) bindings->push_back(*chord);
  }
  return controls;
}

std::vector<std::string> also_pressed(const Controls& controls, const Rebinding& by,
                                      std::string_view control) {
  // Each player has pads of their own; all else is there once.
  const bool is_shared = control.substr(0, 4) != "pad ";
  std::vector<std::string> names;
  for (const Rebinding& other : bindings_of(controls)) {
    const bool same_player = other.player == by.player;
    if (same_player ? other.name == by.name && other.side == by.side : !is_shared) continue;
    if (std::find(other.controls.begin(), other.controls.end(), control) == other.controls.end()) continue;
    names.push_back(same_player ? shown_name(other)
                                : shown_name(other) + " of player " + std::to_string(other.player));
  }
  return names;
}

std::string shown_name(const Rebinding& binding) {
  std::string name = binding.name;
  if (!binding.side.empty()) name += " " + binding.side;
  return name;
}

}  // namespace vole
