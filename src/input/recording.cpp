#include "vole/input/recording.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <limits>
#include <optional>

#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/writing.hpp"

namespace vole {
namespace {

constexpr int format_read = 1;
constexpr std::size_t most_lines = 1'000'000;

// A recording as its file has it.
struct RecordingText {
  int format = format_read;
  std::string game, game_version, vole_version;
  std::int64_t seed = 0;  // the bits of it: a file's whole numbers are signed
  int ticks_per_second = 0;
  std::int64_t ticks = 0;
  Located<std::string> checksum;
  std::vector<Located<std::string>> checkpoints, inputs;
};
template <class V>
void describe(V& v, RecordingText& text) {
  v("format", text.format);
  v("game", text.game, needed());
  v("game_version", text.game_version);
  v("vole_version", text.vole_version);
  v("seed", text.seed);
  v("ticks_per_second", text.ticks_per_second, within(1, 1000));
  v("ticks", text.ticks, needed().within(0, 1e12));
  v("checksum", text.checksum);
  v("checkpoints", text.checkpoints, items(most_lines));
  v("inputs", text.inputs, needed().items(most_lines));
}

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

template <class Number>
std::optional<Number> parse_number(std::string_view text) {
  Number number = 0;
  const auto parsed = std::from_chars(text.data(), text.data() + text.size(), number);
  if (parsed.ec != std::errc{} || parsed.ptr != text.data() + text.size()) return std::nullopt;
  return number;
}

std::string_view take_word(std::string_view& text) {
  const std::size_t end = std::min(text.find(' '), text.size());
  const std::string_view word = text.substr(0, end);
  text.remove_prefix(std::min(end + 1, text.size()));
  return word;
}

// A name as a line has it: in quotes where it could be taken for more than one word.
std::string written_name(const std::string& name) {
  if (!name.empty() && name.find_first_of(" \"\\") == std::string::npos) return name;
  std::string quoted = "\"";
  for (const char c : name) {
    if (c == '"' || c == '\\') quoted += '\\';
    quoted += c;
  }
  return quoted + "\"";
}

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

}  // namespace

std::string checksum_text(std::uint64_t checksum) {
  return fmt::format("{:016x}", checksum);
}

namespace {

bool is_checksum(std::string_view text) {
  return text.size() == 16 && text.find_first_not_of("0123456789abcdef") == std::string_view::npos;
}

Checkpoint read_checkpoint(const Located<std::string>& line, std::int64_t after, Report& report) {
  std::string_view rest = line.value;
  const auto tick = parse_number<std::int64_t>(take_word(rest));
  if (!tick || *tick < 0 || !is_checksum(rest))
    report.error(line.where, fmt::format("\"{}\" is not a checkpoint", line.value),
                 "a checkpoint is like \"300 9f3c20aa17be4d55\"");
  else if (*tick <= after)
    report.error(line.where,
                 fmt::format("the checkpoint of tick {} comes after that of tick {}", *tick, after));
  return {tick.value_or(after), std::string(rest), line.where};
}

}  // namespace

Recording read_recording(const std::string& path) {
  Report report;
  RecordingText text;
  const Node root = read_toml(path);
  // Another format may have other keys: that it is another one is what is worth reporting.
  if (const Node* format = root.find("format"); format && format->type == Node::Type::whole)
    if (format->whole != format_read)
      throw Error(format->where, fmt::format("is a recording in format {}", format->whole),
                  fmt::format("this build reads format {}", format_read));
  read(root, text, report);
  if (text.checksum.where.file && report.problems().empty() && !is_checksum(text.checksum.value))
    report.error(text.checksum.where, fmt::format("\"{}\" is not a checksum", text.checksum.value),
                 "it has 16 hexadecimal digits");
  Recording recording;
  std::int64_t last = -1;
  for (const Located<std::string>& line : text.checkpoints) {
    recording.checkpoints.push_back(read_checkpoint(line, last, report));
    last = recording.checkpoints.back().tick;
  }
  report.throw_if_errors();
  recording.game = std::move(text.game);
  recording.game_version = std::move(text.game_version);
  recording.vole_version = std::move(text.vole_version);
  recording.seed = static_cast<std::uint64_t>(text.seed);
  recording.ticks_per_second = text.ticks_per_second;
  recording.ticks = text.ticks;
  recording.checksum = std::move(text.checksum.value);
  recording.inputs = std::move(text.inputs);
  return recording;
}

Node recording_schema() {
  return schema_of<RecordingText>();
}

void write_recording(const std::string& path, const Recording& recording) {
  RecordingText text;
  text.game = recording.game;
  text.game_version = recording.game_version;
  text.vole_version = recording.vole_version;
  text.seed = static_cast<std::int64_t>(recording.seed);
  text.ticks_per_second = recording.ticks_per_second;
  text.ticks = recording.ticks;
  text.checksum.value = recording.checksum;
  for (const Checkpoint& point : recording.checkpoints)
    text.checkpoints.push_back({fmt::format("{} {}", point.tick, point.checksum), {}});
  text.inputs = recording.inputs;
  write_whole(path, to_toml(text));
}

void InputWriter::add(std::int64_t tick, const TickInput& input, std::vector<Located<std::string>>& lines) {
  for (std::size_t i = 0; i < input.actions.size(); ++i) {
    const std::string text = transitions(last_.actions[i], input.actions[i]);
    if (!text.empty())
      lines.push_back({fmt::format("{} {} {}", tick, written_name(controls_.actions[i].name), text), {}});
  }
  for (std::size_t i = 0; i < input.axes.size(); ++i)
    if (input.axes[i] != last_.axes[i])
      lines.push_back(
          {fmt::format("{} {} {}", tick, written_name(controls_.axes[i].name), int{input.axes[i]}), {}});
  last_.actions = input.actions;
  last_.axes = input.axes;
}

InputReader::InputReader(const Recording& recording, const Controls& controls) : input_(controls) {
  Report report;
  for (const Located<std::string>& text : recording.inputs) parse(text, controls, report);
  report.throw_if_errors();
}

void InputReader::parse(const Located<std::string>& text, const Controls& controls, Report& report) {
  std::string_view rest = text.value;
  const auto tick = parse_number<std::int64_t>(take_word(rest));
  const auto name = take_name(rest);
  if (!tick || *tick < 0)
    return report.error(text.where, fmt::format("\"{}\" does not begin with a tick", text.value),
                        "a line is like \"41 jump +\"");
  if (!name)
    return report.error(text.where, fmt::format("\"{}\" has a quote that is not closed", text.value));
  if (!lines_.empty() && *tick < lines_.back().tick)
    return report.error(text.where, fmt::format("tick {} comes after tick {}", *tick, lines_.back().tick));
  const std::size_t action = index_named(controls.actions, *name);
  const std::size_t axis = index_named(controls.axes, *name);
  const bool is_action = action < controls.actions.size(), is_axis = axis < controls.axes.size();
  // An action and an axis may have one name: only an axis has digits.
  const bool has_digits = rest.find_first_of("0123456789") != std::string_view::npos;
  if (is_action && !(is_axis && has_digits))
    parse_action(text, *tick, action, rest, report);
  else if (is_axis)
    parse_axis(text, *tick, axis, rest, report);
  else {
    std::vector<std::string> known = names_of(controls.actions);
    for (const Axis& a : controls.axes) known.push_back(a.name);
    report.error(text.where, fmt::format("no action or axis \"{}\"", *name), did_you_mean(*name, known));
  }
}

void InputReader::parse_action(const Located<std::string>& text, std::int64_t tick, std::size_t index,
                               std::string_view changes, Report& report) {
  if (changes.empty() || changes.find_first_not_of("+-.") != std::string_view::npos)
    return report.error(text.where, fmt::format("\"{}\" is not a press or release", changes),
                        "they are written '+', '-' and '.'");
  // As many as the counters hold, as when they were counted.
  const auto count = [changes](char change) {
    const auto counted = std::count(changes.begin(), changes.end(), change);
    return static_cast<std::uint8_t>(
        std::min<std::ptrdiff_t>(counted, std::numeric_limits<std::uint8_t>::max()));
  };
  Line line;
  line.tick = tick;
  line.index = index;
  line.state = {changes.back() == '+', count('+'), count('-')};
  lines_.push_back(line);
}

void InputReader::parse_axis(const Located<std::string>& text, std::int64_t tick, std::size_t index,
                             std::string_view pushed, Report& report) {
  const auto value = parse_number<int>(pushed);
  if (!value || *value < -100 || *value > 100)
    return report.error(text.where, fmt::format("\"{}\" is not a whole number from -100 to 100", pushed));
  Line line;
  line.tick = tick;
  line.index = index;
  line.is_axis = true;
  line.value = static_cast<std::int8_t>(*value);
  lines_.push_back(line);
}

const TickInput& InputReader::next() {
  for (TickInput::ActionState& state : input_.actions) state.presses = state.releases = 0;
  for (; at_ < lines_.size() && lines_[at_].tick <= tick_; ++at_) {
    const Line& line = lines_[at_];
    if (line.is_axis)
      input_.axes[line.index] = line.value;
    else
      input_.actions[line.index] = line.state;
  }
  ++tick_;
  return input_;
}

}  // namespace vole
