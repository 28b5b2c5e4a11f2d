#include "vole/input/recording.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <limits>
#include <optional>

#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

template <class V>
void describe(V& v, std::pair<Recording*, std::int64_t*> both) {
  Recording& r = *both.first;
  v("game", r.game, needed());
  v("game_version", r.game_version);
  v("vole_version", r.vole_version);
  v("seed", *both.second, needed());
  v("ticks_per_second", r.ticks_per_second, needed().within(1, 1000));
  v("ticks", r.ticks, needed().within(0, 1e12));
  v("checksum", r.checksum, needed());
  v("checkpoints", r.checkpoints);
  v("inputs", r.inputs, needed());
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

template <class Things>
std::size_t position(const Things& things, std::string_view name) {
  const auto found =
      std::find_if(things.begin(), things.end(), [name](const auto& t) { return t.name == name; });
  return static_cast<std::size_t>(found - things.begin());
}

}  // namespace

std::string checksum_text(std::uint64_t checksum) {
  return fmt::format("{:016x}", checksum);
}

Recording read_recording(const std::string& path) {
  Report report;
  Recording recording;
  std::int64_t seed = 0;
  const Node root = read_toml(path);
  Reader reader(root, report);
  describe(reader, std::pair(&recording, &seed));
  reader.finish();
  report.throw_if_errors();
  recording.seed = static_cast<std::uint64_t>(seed);
  return recording;
}

Node recording_schema() {
  Recording recording;
  std::int64_t seed = 0;
  SchemaMaker maker;
  describe(maker, std::pair(&recording, &seed));
  return maker.schema();
}

void write_recording(const std::string& path, const Recording& recording) {
  Recording copy = recording;
  auto seed = static_cast<std::int64_t>(recording.seed);
  Writer writer;
  describe(writer, std::pair(&copy, &seed));
  write_whole(path, writer.text());
}

void InputWriter::add(std::int64_t tick, const TickInput& input, std::vector<Located<std::string>>& lines) {
  for (std::size_t i = 0; i < input.actions.size(); ++i) {
    const std::string text = transitions(last_.actions[i], input.actions[i]);
    if (!text.empty()) lines.push_back({fmt::format("{} {} {}", tick, controls_.actions[i].name, text), {}});
  }
  for (std::size_t i = 0; i < input.axes.size(); ++i)
    if (input.axes[i] != last_.axes[i])
      lines.push_back({fmt::format("{} {} {}", tick, controls_.axes[i].name, int{input.axes[i]}), {}});
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
  const std::string_view name = take_word(rest);
  Line line;
  line.tick = tick.value_or(-1);
  const std::size_t action = position(controls.actions, name);
  const std::size_t axis = position(controls.axes, name);
  if (line.tick < 0) {
    report.error(text.place, fmt::format("\"{}\" does not begin with a tick", text.value),
                 "a line is like \"41 jump +\"");
  } else if (!lines_.empty() && line.tick < lines_.back().tick) {
    report.error(text.place, fmt::format("tick {} comes after tick {}", line.tick, lines_.back().tick));
  } else if (action < controls.actions.size()) {
    line.index = action;
    if (rest.empty() || rest.size() > 255 || rest.find_first_not_of("+-.") != std::string_view::npos) {
      report.error(text.place, fmt::format("\"{}\" is no press or release", rest),
                   "they are written '+', '-' and '.'");
      return;
    }
    line.state.presses = static_cast<std::uint8_t>(std::count(rest.begin(), rest.end(), '+'));
    line.state.releases = static_cast<std::uint8_t>(std::count(rest.begin(), rest.end(), '-'));
    line.state.held = rest.back() == '+';
    lines_.push_back(line);
  } else if (axis < controls.axes.size()) {
    line.index = axis;
    line.is_axis = true;
    const auto value = parse_number<int>(rest);
    if (!value || *value < -100 || *value > 100) {
      report.error(text.place, fmt::format("\"{}\" is no whole number from -100 to 100", rest));
      return;
    }
    line.value = static_cast<std::int8_t>(*value);
    lines_.push_back(line);
  } else {
    std::vector<std::string> known = names_of(controls.actions);
    for (const Axis& a : controls.axes) known.push_back(a.name);
    report.error(text.place, fmt::format("no action or axis \"{}\"", name), did_you_mean(name, known));
  }
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
