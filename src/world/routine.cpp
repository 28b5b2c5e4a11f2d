#include "vole/world/routine.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <utility>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/base/number.hpp"
#include "vole/world/component_hooks.hpp"

namespace vole {
namespace {

constexpr std::array<std::string_view, 8> step_words{"left", "right", "up",   "down",
                                                     "jump", "drop",  "dash", "act"};

std::vector<std::string_view> words_of(std::string_view text) {
  std::vector<std::string_view> found;
  while (!text.empty()) {
    const std::size_t begin = text.find_first_not_of(' ');
    if (begin == text.npos) break;
    const std::size_t end = std::min(text.find(' ', begin), text.size());
    found.push_back(text.substr(begin, end - begin));
    text.remove_prefix(end);
  }
  return found;
}

void push(RoutineStep& step, std::string_view word, const Located<std::string>& text) {
  if (word == "left")
    step.direction.x = -1;
  else if (word == "right")
    step.direction.x = 1;
  else if (word == "up")
    step.direction.y = -1;
  else if (word == "down")
    step.direction.y = 1;
  else if (word == "jump")
    step.jump = true;
  else if (word == "drop")
    step.drop = true;
  else if (word == "dash")
    step.dash = true;
  else if (word == "act")
    step.act = true;
  else
    throw Error(text.where, fmt::format("nothing in a routine is pushed as \"{}\"", word),
                did_you_mean(word, std::vector<std::string>(step_words.begin(), step_words.end())));
}

// "1.5", or "12 ticks": how many words that takes.
std::size_t read_length(const std::vector<std::string_view>& found, RoutineStep& step,
                        const Located<std::string>& text) {
  constexpr float longest = 3600;
  const auto refuse = [&] {
    throw Error(text.where, fmt::format("\"{}\" is no step of a routine", text.value),
                "first how long, then what is pushed: \"1.5 right\", \"12 ticks right jump\"");
  };
  const std::optional<float> number = found.empty() ? std::nullopt : parse_float(found[0]);
  if (!number || !(*number >= 0)) refuse();
  if (*number > longest)
    throw Error(text.where, fmt::format("a step takes at most {} seconds or ticks", longest));
  if (found.size() < 2 || (found[1] != "ticks" && found[1] != "tick")) {
    step.seconds = *number;
    return 1;
  }
  if (*number != std::floor(*number)) throw Error(text.where, "ticks are whole");
  step.ticks = static_cast<int>(*number);
  return 2;
}

// It goes on by a tick; nullptr when all is over.
const RoutineStep* step_under_way(Routine& routine, int ticks_per_second) {
  const std::vector<RoutineStep>& steps = routine.read->steps;
  // Steps without a length are passed over, but not for ever.
  for (std::size_t passed = 0; passed <= steps.size(); ++passed) {
    if (routine.loop && routine.over()) routine.step = 0;
    if (routine.over()) return nullptr;
    if (routine.ticks < steps[routine.step].ticks_at(ticks_per_second)) {
      ++routine.ticks;
      return &steps[routine.step];
    }
    ++routine.step;
    routine.ticks = 0;
  }
  return nullptr;
}

bool is_read_from(const ReadRoutine& read, const std::vector<Located<std::string>>& steps) {
  return std::equal(
      read.texts.begin(), read.texts.end(), steps.begin(), steps.end(),
      [](const std::string& text, const Located<std::string>& now) { return text == now.value; });
}

}  // namespace

int RoutineStep::ticks_at(int ticks_per_second) const {
  return ticks > 0 ? ticks : static_cast<int>(std::llround(static_cast<double>(seconds) * ticks_per_second));
}

RoutineStep read_routine_step(const Located<std::string>& text) {
  const std::vector<std::string_view> found = words_of(text.value);
  RoutineStep step;
  for (std::size_t i = read_length(found, step, text); i < found.size(); ++i) push(step, found[i], text);
  return step;
}

void read_steps(Routine& routine) {
  if (routine.read && is_read_from(*routine.read, routine.steps)) return;
  auto read = std::make_shared<ReadRoutine>();
  for (const Located<std::string>& text : routine.steps) {
    read->steps.push_back(read_routine_step(text));
    read->texts.push_back(text.value);
  }
  routine.read = std::move(read);
}

void need(Routine& routine, const OfKind& kind) {
  kind.report().gather([&] { read_steps(routine); });
}

Intent next_intent(Routine& routine, int ticks_per_second) {
  read_steps(routine);
  if (!routine.runs) return {};
  const RoutineStep* const now = step_under_way(routine, ticks_per_second);
  const RoutineStep before = std::exchange(routine.pushed, now ? *now : RoutineStep{});
  if (!now) return {};
  Intent intent;
  intent.direction = now->direction;
  intent.jump_held = now->jump;
  intent.jump_pressed = now->jump && !before.jump;
  intent.drop_pressed = now->drop && !before.drop;
  intent.dash_pressed = now->dash && !before.dash;
  intent.act_held = now->act;
  intent.act_pressed = now->act && !before.act;
  return intent;
}

}  // namespace vole
