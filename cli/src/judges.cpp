#include "judges.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/asset/image.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/input/input_reader.hpp"
#include "vole/input/recording.hpp"
#include "vole/world/player.hpp"

using vole::Error;

void judge_icon(const vole::Project& project) {
  if (project.icon.value.empty()) return;
  const std::string file = vole::join_path(project.root, project.icon.value);
  try {
    vole::read_png(file);
  } catch (const Error& error) {
    if (vole::file_exists(file)) throw;
    throw Error(project.icon.where, fmt::format("no file \"{}\"", project.icon.value),
                error.problems()[0].hint);
  }
}

void judge_place(const vole::Level& level, const vole::LevelPlace& place, vole::Report& report) {
  const vole::IVec2 size = level.size();
  // Feet may stand on the lower edge.
  if (place.at.x >= 0 && place.at.y >= 0 && place.at.x <= static_cast<float>(size.x) &&
      place.at.y <= static_cast<float>(size.y))
    return;
  report.error(place.where,
               fmt::format("this place is outside the level, which has {} x {} cells ({} x {} pixels)",
                           level.cells.x, level.cells.y, size.x, size.y));
}

namespace {

// By its mover.
vole::NeededIntent needed_by(const vole::CompiledKind& kind) {
  for (const vole::CompiledKind::Part& part : kind.parts)
    if (part.type->mover) return *part.type->mover;
  return {};
}

}  // namespace

void judge_player(const vole::CompiledKind& kind, const vole::Controls& controls,
                  const vole::FilePosition& otherwise, vole::Report& report) {
  const auto* const player = kind.find<vole::Player>();
  if (!player) return;
  const auto expect = [&](const auto& things, const auto& written, std::string_view sort) {
    const auto names = vole::names_of(things);
    if (std::find(names.begin(), names.end(), written.value) == names.end())
      report.error(written.where.file ? written.where : otherwise,
                   fmt::format("no {} \"{}\" in controls.toml", sort, written.value),
                   vole::did_you_mean(written.value, names));
  };
  const vole::NeededIntent needed = needed_by(kind);
  expect(controls.axes, player->walk, "axis");
  const vole::Axis* const walk = vole::find_named(controls.axes, player->walk.value);
  if (needed.up_and_down && !(walk && walk->is_flat)) expect(controls.axes, player->walk_down, "axis");
  if (needed.jump) expect(controls.actions, player->jump, "action");
}

void judge_recording(const std::string& file, const std::string& game, const vole::Controls* controls) {
  const vole::Recording recording = vole::read_recording(file);
  if (!game.empty() && recording.game != game)
    throw Error(vole::FilePosition::whole_file(file),
                fmt::format("is a recording of the game \"{}\", and this is \"{}\"", recording.game, game));
  if (controls) const vole::InputReader reader(recording, *controls);
}
