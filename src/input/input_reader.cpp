#include "vole/input/input_reader.hpp"

#include <fmt/core.h>

#include <limits>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/input/controls.hpp"
#include "vole/input/recording.hpp"
#include "words.hpp"

namespace vole {
namespace {

// Nothing when a quote is not closed.
std::optional<std::string> take_name(std::string_view& text) {
  if (!text.starts_with('"')) return std::string(take_word(text));
  std::string name;
  for (std::size_t i = 1; i < text.size(); ++i) {
    if (text[i] == '"') {
      text.remove_prefix(std::min(i + 2, text.size()));
      return name;
    }
    if (text[i] == '\\' && i + 1 < text.size()) ++i;
    name += text[i];
  }
  return std::nullopt;
}

// How long what comes before the next ';' or ',' is; one in quotes is part of a name.
std::size_t length_of_tick(std::string_view text) {
  bool quoted = false;
  for (std::size_t i = 0; i < text.size(); ++i) {
    if (quoted && text[i] == '\\')
      ++i;
    else if (text[i] == '"')
      quoted = !quoted;
    else if ((text[i] == ';' || text[i] == ',') && !quoted)
      return i;
  }
  return text.size();
}

}  // namespace

InputReader::InputReader(const Recording& recording, const Controls& controls) : input_(controls) {
  Report report;
  for (const Located<std::string>& text : recording.inputs) {
    report.gather([&] { parse_line(text, controls); });
  }
  report.throw_if_errors();
}

void InputReader::parse_line(const Located<std::string>& line, const Controls& controls) {
  std::string_view rest = line.value;
  FilePosition where = line.where;
  bool same_moves = false;
  do {
    const std::size_t length = length_of_tick(rest);
    const Located<std::string> part{std::string(rest.substr(0, length)), where};
    same_moves ? parse_values(part, controls) : parse(part, controls);
    same_moves = length < rest.size() && rest[length] == ',';
    std::size_t passed = std::min(length + 1, rest.size());
    while (passed < rest.size() && rest[passed] == ' ') ++passed;
    where.column +=
        static_cast<int>(passed) + (where.column == line.where.column ? 1 : 0);  // one for the quote
    rest.remove_prefix(passed);
  } while (!rest.empty());
  if (same_moves) throw Error(where, "nothing comes after the comma");
}

void InputReader::parse(const Located<std::string>& text, const Controls& controls) {
  std::string_view rest = text.value;
  const bool is_later = rest.starts_with('+') && !changes_.empty();
  if (is_later) rest.remove_prefix(1);
  auto tick = parse_number<std::int64_t>(take_word(rest));
  if (!tick || *tick < 0 || *tick > static_cast<std::int64_t>(most_ticks) || rest.empty())
    throw Error(text.where, fmt::format("\"{}\" does not begin with a tick", text.value),
                "a line is like \"41 jump +\", or \"41 jump +; +20 jump -\"");
  if (is_later) *tick += changes_.back().tick;
  if (!changes_.empty() && *tick < changes_.back().tick)
    throw Error(text.where, fmt::format("tick {} comes after tick {}", *tick, changes_.back().tick));
  while (!rest.empty()) parse_change(*tick, rest, text, controls);
}

// Of the axes, and of the pointer, that moved in the tick before.
void InputReader::parse_values(const Located<std::string>& text, const Controls& controls) {
  const std::int64_t before = changes_.back().tick;
  std::size_t first = changes_.size();
  while (first > 0 && changes_[first - 1].tick == before) --first;
  std::string_view rest = text.value;
  for (std::size_t i = first, end = changes_.size(); i < end; ++i) {
    Change change = changes_[i];
    change.tick = before + 1;
    if (change.what == Change::What::axis)
      parse_axis(change.index, controls.axes[change.index].is_flat, change, rest, text);
    else if (change.what == Change::What::pointer && !change.outside)
      parse_other(pointer_word, change, rest, text);
    else
      throw Error(text.where, "a comma comes only after a tick in which axes and the pointer have moved",
                  "other ticks begin like \"; +1\"");
    changes_.push_back(std::move(change));
  }
  if (!rest.empty())
    throw Error(text.where, fmt::format("\"{}\" has more values than have moved", text.value));
}

void InputReader::parse_change(std::int64_t tick, std::string_view& rest, const Located<std::string>& text,
                               const Controls& controls) {
  Change change;
  change.tick = tick;
  const bool is_quoted = rest.starts_with('"');
  auto name = take_name(rest);
  if (!name) throw Error(text.where, fmt::format("\"{}\" has a quote that is not closed", text.value));
  change.player = take_player(*name, is_quoted, rest, text, controls);
  const std::size_t action = index_named(controls.actions, *name);
  const std::size_t axis = index_named(controls.axes, *name);
  const bool is_action = action < controls.actions.size(), is_axis = axis < controls.axes.size();
  // An action and an axis may have one name: only an axis has digits.
  const std::string_view next = rest.substr(0, rest.find(' '));
  const bool has_digits = next.find_first_of("0123456789") != std::string_view::npos;
  if (!is_quoted && name->starts_with('*'))
    parse_other(*name, change, rest, text);
  else if (is_action && !(is_axis && has_digits))
    parse_action(action, change, rest, text);
  else if (is_axis)
    parse_axis(axis, controls.axes[axis].is_flat, change, rest, text);
  else {
    std::vector<std::string> known = names_of(controls.actions);
    for (const Axis& a : controls.axes) known.push_back(a.name);
    throw Error(text.where, fmt::format("no action or axis \"{}\"", *name), did_you_mean(*name, known));
  }
  changes_.push_back(change);
}

// After a name in quotes the player is a word of its own, which begins with the mark.
std::uint8_t InputReader::take_player(std::string& name, bool is_quoted, std::string_view& rest,
                                      const Located<std::string>& text, const Controls& controls) {
  if (is_quoted) {
    if (!rest.starts_with('@')) return 0;
    rest.remove_prefix(1);
    return player_of(take_word(rest), text, controls);
  }
  const std::size_t mark = name.find('@');
  if (mark == std::string::npos) return 0;
  const std::string number = name.substr(mark + 1);
  name.resize(mark);
  return player_of(number, text, controls);
}

std::uint8_t InputReader::player_of(std::string_view number, const Located<std::string>& text,
                                    const Controls& controls) {
  const auto player = parse_number<int>(number);
  if (!player || *player < 1 || *player > controls.players())
    throw Error(text.where, fmt::format("no player \"{}\"", number),
                fmt::format("the controls are for {}", controls.players()));
  return static_cast<std::uint8_t>(*player - 1);
}

void InputReader::parse_action(std::size_t index, Change& change, std::string_view& rest,
                               const Located<std::string>& text) {
  const std::string_view changes = take_word(rest);
  if (changes.empty() || changes.find_first_not_of("+-.") != std::string_view::npos)
    throw Error(text.where, fmt::format("\"{}\" is not a press or release", changes),
                "they are written '+', '-' and '.'");
  // As many as the counters hold, as when they were counted.
  const auto count = [changes](char sign) {
    const auto counted = std::count(changes.begin(), changes.end(), sign);
    return static_cast<std::uint8_t>(
        std::min<std::ptrdiff_t>(counted, std::numeric_limits<std::uint8_t>::max()));
  };
  change.what = Change::What::action;
  change.index = index;
  change.action = {changes.back() == '+', count('+'), count('-')};
}

int InputReader::take_whole(int least, int most, std::string_view& rest, const Located<std::string>& text) {
  const std::string_view word = take_word(rest);
  const auto value = parse_number<int>(word);
  if (!value || *value < least || *value > most)
    throw Error(text.where, fmt::format("\"{}\" is not a whole number from {} to {}", word, least, most));
  return *value;
}

void InputReader::parse_axis(std::size_t index, bool is_flat, Change& change, std::string_view& rest,
                             const Located<std::string>& text) {
  change.what = Change::What::axis;
  change.index = index;
  change.axis.x = static_cast<std::int8_t>(take_whole(-100, 100, rest, text));
  if (is_flat) change.axis.y = static_cast<std::int8_t>(take_whole(-100, 100, rest, text));
}

void InputReader::parse_other(std::string_view name, Change& change, std::string_view& rest,
                              const Located<std::string>& text) {
  constexpr int far = 32767;
  if (name == pads_word) {
    change.what = Change::What::pads;
    change.pads = static_cast<std::uint8_t>(take_whole(0, 255, rest, text));
  } else if (name == wheel_word || name == pointer_word) {
    change.what = name == wheel_word ? Change::What::wheel : Change::What::pointer;
    if (name == pointer_word && rest.substr(0, rest.find(' ')) == outside_word) {
      take_word(rest);
      change.outside = true;
      return;
    }
    change.at.x = take_whole(-far, far, rest, text);
    change.at.y = take_whole(-far, far, rest, text);
  } else if (name == asked_word) {
    change.what = Change::What::asked;
    change.asked = take_name(rest).value_or("");
    if (change.asked.empty())
      throw Error(text.where, fmt::format("\"{}\" does not say what was pressed", text.value));
  } else {
    const std::vector<std::string> known{std::string(pads_word), std::string(pointer_word),
                                         std::string(wheel_word), std::string(asked_word)};
    throw Error(text.where, fmt::format("\"{}\" is nothing that a recording tells", name),
                did_you_mean(name, known));
  }
}

const TickInput& InputReader::next() {
  for (TickInput::Player& player : input_.players)
    for (TickInput::ActionState& state : player.actions) state.presses = state.releases = 0;
  input_.seen_pointer.wheel = {0, 0};
  input_.asked_control.clear();
  for (; at_ < changes_.size() && changes_[at_].tick <= tick_; ++at_) apply(changes_[at_]);
  ++tick_;
  return input_;
}

std::int64_t InputReader::quiet_ticks() const {
  if (at_ == changes_.size()) return std::numeric_limits<std::int64_t>::max();
  return std::max<std::int64_t>(changes_[at_].tick - tick_, 0);
}

void InputReader::apply(const Change& change) {
  TickInput::Player& player = input_.players[change.player];
  Pointer& pointer = input_.seen_pointer;
  switch (change.what) {
    case Change::What::action:
      player.actions[change.index] = change.action;
      break;
    case Change::What::axis:
      player.axes[change.index] = change.axis;
      break;
    case Change::What::pads:
      player.pads = change.pads;
      break;
    case Change::What::pointer:
      pointer.inside = !change.outside;
      if (!change.outside) pointer.at = change.at;
      break;
    case Change::What::wheel:
      pointer.wheel = change.at;
      break;
    case Change::What::asked:
      input_.asked_control = change.asked;
      break;
  }
}

}  // namespace vole
