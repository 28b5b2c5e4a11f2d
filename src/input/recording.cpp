#include "vole/input/recording.hpp"

#include <fmt/core.h>

#include "vole/base/output_files.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/writing.hpp"
#include "words.hpp"

namespace vole {

std::string checksum_text(std::uint64_t checksum) {
  return fmt::format("{:016x}", checksum);
}

namespace {

bool is_checksum(std::string_view text) {
  return text.size() == 16 && text.find_first_not_of("0123456789abcdef") == std::string_view::npos;
}

void check_order(const std::vector<Checkpoint>& checkpoints, Report& report) {
  for (std::size_t i = 1; i < checkpoints.size(); ++i)
    if (const std::int64_t before = checkpoints[i - 1].tick; checkpoints[i].tick <= before)
      report.error(checkpoints[i].where, fmt::format("the checkpoint of tick {} comes after that of tick {}",
                                                     checkpoints[i].tick, before));
}

}  // namespace

void read_field(const TomlValue& toml, Checkpoint& point, const FieldRule&, Report& report) {
  point.where = toml.where;
  if (!detail::expect(toml, TomlValue::Type::text, "a text in quotes", report)) return;
  std::string_view rest = toml.text;
  const auto tick = parse_number<std::int64_t>(take_word(rest));
  if (!tick || *tick < 0 || !is_checksum(rest))
    return report.error(toml.where, fmt::format("\"{}\" is not a checkpoint", toml.text),
                        "a checkpoint is like \"300 9f3c20aa17be4d55\"");
  point.tick = *tick;
  point.checksum = rest;
}

void write_field(TomlText& out, const Checkpoint& point) {
  out.add(std::string_view(fmt::format("{} {}", point.tick, point.checksum)));
}

TomlValue schema_field(const Checkpoint&, const FieldRule&) {
  return detail::type_schema("string");
}

Recording read_recording(const std::string& path) {
  Report report;
  Recording recording;
  const TomlValue root = read_toml(path, Recording::most_bytes);
  // Another format may have other keys: that it is another one is what is worth reporting.
  if (const TomlValue* format = root.find("format"); format && format->type == TomlValue::Type::whole)
    if (format->whole != recording.format)
      throw Error(format->where, fmt::format("is a recording in format {}", format->whole),
                  fmt::format("this build reads format {}", recording.format));
  read(root, recording, report);
  const Located<std::string>& checksum = recording.checksum;
  if (checksum.where.file && report.problems().empty() && !is_checksum(checksum.value))
    report.error(checksum.where, fmt::format("\"{}\" is not a checksum", checksum.value),
                 "it has 16 hexadecimal digits");
  if (report.problems().empty()) check_order(recording.checkpoints, report);
  if (report.problems().empty())
    for (std::size_t i = 1; i < recording.arrived.size(); ++i)
      if (const std::int64_t before = recording.arrived[i - 1].tick; recording.arrived[i].tick <= before)
        report.error(root.find("arrived")->items[i].where,
                     fmt::format("what arrived at tick {} comes after that of tick {}",
                                 recording.arrived[i].tick, before));
  report.throw_if_errors();
  return recording;
}

TomlValue recording_schema() {
  return schema_of<Recording>();
}

void write_recording(const std::string& path, const Recording& recording) {
  write_whole(path, std::string(output_mark(OutputKind::recording)) + to_toml(recording));
}

}  // namespace vole
