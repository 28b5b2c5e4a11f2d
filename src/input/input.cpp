#include "vole/input/input.hpp"

#include <algorithm>
#include <cmath>
#include <type_traits>

#include "vole/base/names.hpp"
#include "vole/base/within.hpp"
#include "vole/input/controls.hpp"

namespace vole {

void Input::use(std::shared_ptr<const Controls> controls, int ticks_per_second) {
  ticks_per_second_ = ticks_per_second;
  sort_memory(controls);
  TickInput::use(std::move(controls));
  fit();
}

void Input::fit() {
  memory_.resize(players.size());
  for (std::size_t i = 0; i < players.size(); ++i) {
    memory_[i].actions.resize(players[i].actions.size());
    memory_[i].axes.resize(players[i].axes.size());
  }
}

void Input::sort_memory(const std::shared_ptr<const Controls>& now) {
  if (!controls() || !now || controls() == now) return;
  const auto sort = [](auto& remembered, const auto& names_before, const auto& names_now) {
    std::remove_reference_t<decltype(remembered)> sorted(names_now.size());
    for (std::size_t i = 0; i < names_now.size(); ++i)
      if (const std::size_t at = index_named(names_before, names_now[i].name); at < remembered.size())
        sorted[i] = remembered[at];
    remembered = std::move(sorted);
  };
  for (Memory& memory : memory_) {
    sort(memory.actions, controls()->actions, now->actions);
    sort(memory.axes, controls()->axes, now->axes);
  }
}

void Input::take(const TickInput& now) {
  std::vector<Player>& before = players;
  for (std::size_t i = 0; i < memory_.size(); ++i)
    memory_[i].lost_pad = i < now.players.size() && before[i].pads > 0 && now.players[i].pads == 0;
  sort_memory(now.controls());
  static_cast<TickInput&>(*this) = now;
  fit();
  for (std::size_t i = 0; i < players.size(); ++i) {
    for (std::size_t action = 0; action < players[i].actions.size(); ++action)
      remember(players[i].actions[action], memory_[i].actions[action]);
    for (std::size_t axis = 0; axis < players[i].axes.size(); ++axis) {
      const AxisState& pushed = players[i].axes[axis];
      const float seconds = controls()->axes_of(i)[axis].smooth;
      const float step = seconds > 0 ? 1 / (seconds * static_cast<float>(ticks_per_second_)) : 2;
      const auto follow = [step](float& value, std::int8_t hundredths) {
        const float target = static_cast<float>(hundredths) / 100.0f;
        value = value < target ? std::min(value + step, target) : std::max(value - step, target);
      };
      follow(memory_[i].axes[axis].x, pushed.x);
      follow(memory_[i].axes[axis].y, pushed.y);
    }
  }
}

// What was forgotten while it was held is let go, whatever the hand does, until it is pressed again.
void Input::remember(ActionState& now, Pressed& its) {
  if (now.presses == 0 && !its.held) now = {};
  its.since_press = std::min(its.since_press, most - 1) + 1;
  if (now.presses > 0) {
    // Twice in one tick is as quick as it can be.
    its.since_other = now.presses > 1 ? 0 : its.since_press;
    its.since_press = 0;
    its.taken = false;
  }
  its.held_ticks = now.held && now.presses == 0 ? its.held_ticks + 1 : 0;
  its.held = now.held;
}

const Input::Pressed& Input::pressed_of(std::string_view action, int player) const {
  const std::size_t index = action_index(action);
  return memory_[player_index(player)].actions[index];
}

int Input::in_ticks(float seconds) const {
  const float ticks = seconds * static_cast<float>(ticks_per_second_);
  return ticks > 0 ? static_cast<int>(std::min(ticks + 0.5f, static_cast<float>(most) / 2)) : 0;
}

float Input::held_for(std::string_view action, int player) const {
  return static_cast<float>(pressed_of(action, player).held_ticks) / static_cast<float>(ticks_per_second_);
}

bool Input::pressed_twice(std::string_view action, float within, int player) const {
  const Pressed& its = pressed_of(action, player);
  return its.since_press == 0 && its.since_other <= in_ticks(within);
}

bool Input::pressed_lately(std::string_view action, float within, int player) const {
  const Pressed& its = pressed_of(action, player);
  return !its.taken && its.since_press <= in_ticks(within);
}

bool Input::take_press(std::string_view action, float within, int player) {
  if (!pressed_lately(action, brought_within_seconds(within), player)) return false;
  const std::size_t index = action_index(action), of = player_index(player);
  memory_[of].actions[index].taken = true;
  players[of].actions[index].presses = 0;
  return true;
}

Vec2 Input::smooth(std::string_view axis, int player) const {
  const std::size_t index = axis_index(axis);
  const Vec2 pushed = memory_[player_index(player)].axes[index];
  return at_most_one_long(pushed);
}

bool Input::lost_pad(int player) const {
  return memory_[player_index(player)].lost_pad;
}

void Input::forget() {
  for (Player& player : players) {
    std::fill(player.actions.begin(), player.actions.end(), ActionState{});
    std::fill(player.axes.begin(), player.axes.end(), AxisState{});
  }
  for (Memory& memory : memory_) {
    std::fill(memory.actions.begin(), memory.actions.end(), Pressed{});
    std::fill(memory.axes.begin(), memory.axes.end(), Vec2{0, 0});
  }
}

}  // namespace vole
