#include "vole/input/recording.hpp"

#include <fmt/core.h>

#include "vole/base/files.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/writing.hpp"
#include "words.hpp"

namespace vole {
namespace {

constexpr int format_read = 1;
constexpr std::size_t most_lines = Recording::most_values;

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
  const Node root = read_toml(path, Recording::most_bytes);
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

}  // namespace vole
