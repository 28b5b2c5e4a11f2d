#include "vole/input/tick_input.hpp"

#include <fmt/core.h>

#include <cmath>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/input/controls.hpp"

namespace vole {
namespace {

const Controls& or_none(const std::shared_ptr<const Controls>& controls) {
  static const Controls none;
  return controls ? *controls : none;
}

template <class Things>
std::size_t index_of(const Things& things, std::string_view name, std::string_view sort,
                     const FilePosition& asked) {
  const std::size_t index = index_named(things, name);
  if (index == things.size())
    throw Error(asked.file ? asked : FilePosition::whole_file("controls.toml"),
                fmt::format("no {} \"{}\"{}", sort, name, asked.file ? " in controls.toml" : ""),
                did_you_mean(name, names_of(things)));
  return index;
}

}  // namespace

bool operator==(const TickInput::Player& a, const TickInput::Player& b) {
  return a.actions == b.actions && a.axes == b.axes && a.pads == b.pads;
}

bool operator==(const TickInput& a, const TickInput& b) {
  return a.players == b.players && a.seen_pointer == b.seen_pointer && a.asked_control == b.asked_control;
}

TickInput::TickInput(const Controls& controls) : TickInput(std::make_shared<const Controls>(controls)) {}
TickInput::TickInput(std::shared_ptr<const Controls> controls) {
  use(std::move(controls));
}

void TickInput::use(std::shared_ptr<const Controls> controls) {
  controls_ = std::move(controls);
  const Controls& its = or_none(controls_);
  players.resize(static_cast<std::size_t>(its.players()));
  for (Player& player : players) {
    player.actions.resize(its.actions.size());
    player.axes.resize(its.axes.size());
  }
}

std::size_t TickInput::player_index(int player) const {
  if (player < 1 || player > player_count())
    throw Error(
        FilePosition::whole_file("controls.toml"),
        fmt::format("no player {}: there {} {}", player, player_count() == 1 ? "is" : "are", player_count()),
        fmt::format("others are written as [players.{}]", player_count() + 1));
  return static_cast<std::size_t>(player - 1);
}

std::size_t TickInput::action_index(std::string_view action, const FilePosition& asked) const {
  return index_of(or_none(controls_).actions, action, "action", asked);
}

std::size_t TickInput::axis_index(std::string_view axis, const FilePosition& asked) const {
  return index_of(or_none(controls_).axes, axis, "axis", asked);
}

const TickInput::ActionState& TickInput::action_state(std::string_view action, int player,
                                                      const FilePosition& asked) const {
  const std::size_t index = action_index(action, asked);
  return players[player_index(player)].actions[index];
}

float TickInput::axis(std::string_view axis, int player, const FilePosition& asked) const {
  const std::size_t index = axis_index(axis, asked);
  return static_cast<float>(players[player_index(player)].axes[index].x) / 100.0f;
}

Vec2 TickInput::direction(std::string_view axis, int player, const FilePosition& asked) const {
  const std::size_t index = axis_index(axis, asked);
  const AxisState& state = players[player_index(player)].axes[index];
  const Vec2 pushed{static_cast<float>(state.x) / 100.0f, static_cast<float>(state.y) / 100.0f};
  return at_most_one_long(pushed);
}

const Pointer& TickInput::pointer() const {
  if (!or_none(controls_).pointer)
    throw Error(FilePosition::whole_file("controls.toml"), "the game asks for the pointer",
                "add at its top: pointer = true");
  return seen_pointer;
}

bool TickInput::has_action(std::string_view action) const {
  return find_named(or_none(controls_).actions, action) != nullptr;
}

bool TickInput::is_flat(std::string_view axis) const {
  const Axis* const its = find_named(or_none(controls_).axes, axis);
  return its && its->is_flat;
}

bool TickInput::has_axis(std::string_view axis) const {
  return find_named(or_none(controls_).axes, axis) != nullptr;
}

}  // namespace vole
