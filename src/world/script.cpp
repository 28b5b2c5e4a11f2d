#include "vole/world/script.hpp"

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

constexpr std::array<std::string_view, 8> words{"left", "right", "up", "down", "jump", "drop", "dash", "act"};

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

void push(ScriptStep& step, std::string_view word, const Located<std::string>& text) {
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
    throw Error(text.where, fmt::format("nothing in a script is pushed as \"{}\"", word),
                did_you_mean(word, std::vector<std::string>(words.begin(), words.end())));
}

// "1.5", or "12 ticks": how many words that takes.
std::size_t read_length(const std::vector<std::string_view>& found, ScriptStep& step,
                        const Located<std::string>& text) {
  constexpr float longest = 3600;
  const auto refuse = [&] {
    throw Error(text.where, fmt::format("\"{}\" is no step of a script", text.value),
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
const ScriptStep* step_under_way(Script& script, int ticks_per_second) {
  const std::vector<ScriptStep>& steps = script.read->steps;
  // Steps without a length are passed over, but not for ever.
  for (std::size_t passed = 0; passed <= steps.size(); ++passed) {
    if (script.again && script.over()) script.step = 0;
    if (script.over()) return nullptr;
    if (script.ticks < steps[script.step].ticks_at(ticks_per_second)) {
      ++script.ticks;
      return &steps[script.step];
    }
    ++script.step;
    script.ticks = 0;
  }
  return nullptr;
}

bool is_read_from(const ReadScript& read, const std::vector<Located<std::string>>& steps) {
  return std::equal(
      read.texts.begin(), read.texts.end(), steps.begin(), steps.end(),
      [](const std::string& text, const Located<std::string>& now) { return text == now.value; });
}

}  // namespace

int ScriptStep::ticks_at(int ticks_per_second) const {
  return ticks > 0 ? ticks : static_cast<int>(std::llround(static_cast<double>(seconds) * ticks_per_second));
}

ScriptStep read_script_step(const Located<std::string>& text) {
  const std::vector<std::string_view> found = words_of(text.value);
  ScriptStep step;
  for (std::size_t i = read_length(found, step, text); i < found.size(); ++i) push(step, found[i], text);
  return step;
}

void read_steps(Script& script) {
  if (script.read && is_read_from(*script.read, script.steps)) return;
  auto read = std::make_shared<ReadScript>();
  for (const Located<std::string>& text : script.steps) {
    read->steps.push_back(read_script_step(text));
    read->texts.push_back(text.value);
  }
  script.read = std::move(read);
}

void need(Script& script, const OfKind& kind) {
  kind.report().gather([&] { read_steps(script); });
}

Intent next_intent(Script& script, int ticks_per_second) {
  read_steps(script);
  if (!script.runs) return {};
  const ScriptStep* const now = step_under_way(script, ticks_per_second);
  const ScriptStep before = std::exchange(script.pushed, now ? *now : ScriptStep{});
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
