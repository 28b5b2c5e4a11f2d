#include "vole/input/input_writer.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/input/controls.hpp"
#include "words.hpp"

namespace vole {
namespace {

std::string transitions(const TickInput::ActionState& before, const TickInput::ActionState& now) {
  std::string text;
  bool held = before.held;
  int presses = now.presses;
  int releases = now.releases;
  while (presses > 0 || releases > 0) {
    const bool press = held ? releases == 0 : presses > 0;
    text += press ? '+' : '-';
    --(press ? presses : releases);
    held = press;
  }
  if (held != now.held) text += now.held ? '+' : '.';
  return text;
}

// A name as a line has it: in quotes where it could be taken for more than one word.
std::string written_name(const std::string& name) {
  if (!name.empty() && name[0] != '*' && name.find_first_of(" \"\\@;,") == std::string::npos) return name;
  std::string quoted = "\"";
  for (const char c : name) {
    if (c == '"' || c == '\\') quoted += '\\';
    quoted += c;
  }
  return quoted + "\"";
}

// "", or "@2" of the second player.
std::string of_player(std::size_t player) {
  return player == 0 ? std::string() : fmt::format("@{}", player + 1);
}

// jump@2, or "big jump" @2.
std::string named(const std::string& name, const std::string& of) {
  const std::string written = written_name(name);
  return written + (written[0] == '"' && !of.empty() ? " " + of : of);
}

// Some signs are written as two.
std::size_t size_in_file(const std::string& text) {
  return text.size() + static_cast<std::size_t>(std::count_if(text.begin(), text.end(),
                                                              [](char c) { return c == '"' || c == '\\'; }));
}

}  // namespace

void InputWriter::Written::add(const std::string& name, const std::string& value, bool moves) {
  words += fmt::format(" {} {}", name, value);
  names += fmt::format(" {}", name);
  values += fmt::format(" {}", value);
  moves_only = moves_only && moves;
}

void InputWriter::add(std::int64_t tick, const TickInput& input, std::vector<Located<std::string>>& lines) {
  Written written;
  for (std::size_t i = 0; i < input.players.size(); ++i) add_player(i, input.players[i], written);
  add_pointer(input.seen_pointer, written);
  if (!input.asked_control.empty()) written.add(std::string(asked_word), written_name(input.asked_control));
  if (!written.words.empty()) write(tick, written, lines);
  last_.players = input.players;
  last_.seen_pointer = input.seen_pointer;
}

void InputWriter::add_pointer(const Pointer& now, Written& written) const {
  const Pointer& before = last_.seen_pointer;
  const std::string word(pointer_word);
  const bool moved = now.at != before.at;
  if (moved || (now.inside && !before.inside))
    written.add(word, fmt::format("{} {}", now.at.x, now.at.y), now.inside);
  if (!now.inside && (moved || before.inside)) written.add(word, std::string(outside_word));
  if (now.wheel != IVec2{0, 0})
    written.add(std::string(wheel_word), fmt::format("{} {}", now.wheel.x, now.wheel.y));
}

// Several ticks in a line, as many as are read at ease.
void InputWriter::write(std::int64_t tick, const Written& written, std::vector<Located<std::string>>& lines) {
  constexpr std::size_t longest = 120, quotes_and_comma = 6;
  const bool same_moves = tick == tick_ + 1 && written.moves_only && written.names == names_;
  const std::string next =
      same_moves ? "," + written.values : fmt::format("; +{}{}", tick - tick_, written.words);
  const std::size_t before = lines.empty() ? 0 : lines.back().value.size();
  if (lines.empty() || before + next.size() > longest) {
    lines.push_back({fmt::format("{}{}", tick, written.words), {}});
    bytes_ += size_in_file(lines.back().value) + quotes_and_comma;
  } else {
    lines.back().value += next;
    bytes_ += size_in_file(next);
  }
  tick_ = tick;
  names_ = written.moves_only ? written.names : std::string();
}

void InputWriter::add_player(std::size_t player, const TickInput::Player& now, Written& written) const {
  const TickInput::Player& before = last_.players[player];
  const std::string of = of_player(player);
  if (now.pads != before.pads) written.add(std::string(pads_word) + of, std::to_string(now.pads));
  for (std::size_t i = 0; i < now.actions.size(); ++i) {
    const std::string text = transitions(before.actions[i], now.actions[i]);
    if (!text.empty()) written.add(named(controls_.actions[i].name, of), text);
  }
  for (std::size_t i = 0; i < now.axes.size(); ++i) {
    if (now.axes[i] == before.axes[i]) continue;
    std::string value = std::to_string(now.axes[i].x);
    if (controls_.axes[i].is_flat) value += fmt::format(" {}", int{now.axes[i].y});
    written.add(named(controls_.axes[i].name, of), value, true);
  }
}

}  // namespace vole
