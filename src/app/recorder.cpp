#include "vole/app/recorder.hpp"

#include <fmt/core.h>

#include "vole/base/writing.hpp"
#include "vole/version.hpp"

namespace vole {
namespace {

std::string made_by(const std::string& game, const std::string& game_version, std::string_view vole_version) {
  // A recording need not say either version.
  return fmt::format("{}{}{}", game, game_version.empty() ? "" : " " + std::string(game_version),
                     vole_version.empty() ? "" : " with vole " + std::string(vole_version));
}

Recording read_for(const Project& project, const std::string& file) {
  Recording recording = read_recording(file);
  expect_recording_of(project, recording, file);
  return recording;
}

}  // namespace

void expect_recording_of(const Project& project, const Recording& recording, const std::string& file) {
  const FilePosition where = FilePosition::whole_file(file);
  if (recording.game != project.id.value)
    throw Error(where, fmt::format("is a recording of the game \"{}\", and this is \"{}\"", recording.game,
                                   project.id.value));
  if (recording.ticks_per_second != 0 && recording.ticks_per_second != project.ticks_per_second)
    throw Error(where,
                fmt::format("was recorded at {} ticks a second, and this build runs at {}",
                            recording.ticks_per_second, project.ticks_per_second),
                "record it again with --record");
}

Recorder::Recorder(const Project& project, std::uint64_t seed, const Controls& controls,
                   const FirstScene& first)
    : writer_(controls) {
  recording_.game = project.id.value;
  recording_.game_version = project.version.value;
  recording_.vole_version = version;
  recording_.seed = static_cast<std::int64_t>(seed);
  recording_.ticks_per_second = project.ticks_per_second;
  if (!first.scene.empty()) recording_.scene = first.scene;
  if (!first.with.empty()) recording_.with = first.with;
}

void Recorder::add_checkpoint(std::int64_t ticks, std::uint64_t checksum) {
  recording_.checkpoints.push_back({ticks, checksum_text(checksum), {}});
}

bool Recorder::add(Arrived arrived) {
  const std::size_t bytes = to_inline_toml(arrived).size();
  if (arrived_bytes_ + bytes + writer_.bytes() + (std::size_t{2} << 20) > Recording::most_bytes) return false;
  arrived_bytes_ += bytes;
  recording_.arrived.push_back(std::move(arrived));
  return true;
}

bool Recorder::full() const {
  constexpr std::size_t bytes_of_checkpoint = 40;
  const std::size_t values = recording_.inputs.size() + recording_.checkpoints.size();
  const std::size_t bytes =
      writer_.bytes() + arrived_bytes_ + bytes_of_checkpoint * recording_.checkpoints.size();
  return values + 1000 > Recording::most_values || bytes + (1 << 20) > Recording::most_bytes;
}

void Recorder::write(const std::string& file, std::int64_t ticks, std::uint64_t checksum) {
  recording_.ticks = ticks;
  recording_.checksum.value = checksum_text(checksum);
  write_recording(file, recording_);
}

Replay::Replay(const std::string& file, const Project& project, const Controls& controls)
    : file_(file),
      here_(made_by(project.id.value, project.version.value, version)),
      recording_(read_for(project, file)),
      reader_(recording_, controls) {}

const Arrived* Replay::take_arrived(std::int64_t ticks) {
  if (next_arrived_ == recording_.arrived.size() || recording_.arrived[next_arrived_].tick > ticks)
    return nullptr;
  return &recording_.arrived[next_arrived_++];
}

bool Replay::wants_check(std::int64_t ticks) const {
  const auto& points = recording_.checkpoints;
  return (ticks == recording_.ticks && !is_unchecked()) ||
         (next_checkpoint_ < points.size() && points[next_checkpoint_].tick <= ticks);
}

void Replay::check(std::int64_t ticks, std::uint64_t checksum) {
  const auto& points = recording_.checkpoints;
  for (; next_checkpoint_ < points.size() && points[next_checkpoint_].tick <= ticks; ++next_checkpoint_) {
    const Checkpoint& point = points[next_checkpoint_];
    // Only the first difference is reported; what follows differs because of it.
    if (point.tick == ticks && point.checksum != checksum_text(checksum) && differences_.empty())
      differences_.push_back({point.where, Severity::error,
                              fmt::format("at tick {} the state differs from the recording", ticks), ""});
  }
  if (ticks == recording_.ticks && !is_unchecked()) check_end(checksum);
}

void Replay::check_end(std::uint64_t checksum) {
  if (checksum_text(checksum) == recording_.checksum.value) return;
  const std::string made = made_by(recording_.game, recording_.game_version, recording_.vole_version);
  differences_.push_back(
      {FilePosition::whole_file(file_), Severity::error,
       fmt::format("the run ends in state {}, and the recording in {}", checksum_text(checksum),
                   recording_.checksum.value),
       made == here_ ? "the game or its files changed since; record it again with --record"
                     : fmt::format("it was recorded by {}, and this is {}; record it again with --record",
                                   made, here_)});
}

}  // namespace vole
