#include "judges.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/app/recorder.hpp"
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
  if (player->number > controls.players())
    report.error(otherwise,
                 fmt::format("player {} has no controls: controls.toml has {} player{}", player->number,
                             controls.players(), controls.players() == 1 ? "" : "s"),
                 fmt::format("write [players.{}.actions] or [players.{}.axes.NAME] there", player->number,
                             player->number));
  const vole::NeededIntent needed = needed_by(kind);
  expect(controls.axes, player->walk, "axis");
  const vole::Axis* const walk = vole::find_named(controls.axes, player->walk.value);
  if (needed.up_and_down && !(walk && walk->is_flat)) expect(controls.axes, player->walk_down, "axis");
  // A name that the kind gives is meant, whatever its mover needs.
  static const vole::Player usual;
  const auto expect_given = [&](const auto& things, const auto& written, const auto& usually,
                                bool its_mover_needs, std::string_view sort) {
    if (its_mover_needs || written.value != usually.value) expect(things, written, sort);
  };
  expect_given(controls.axes, player->walk_down, usual.walk_down, false, "axis");
  expect_given(controls.actions, player->jump, usual.jump, needed.jump, "action");
  expect_given(controls.actions, player->drop, usual.drop, false, "action");
  expect_given(controls.actions, player->dash, usual.dash, false, "action");
  expect_given(controls.actions, player->act, usual.act, false, "action");
}

void judge_recording(const std::string& file, const vole::Project* project, const vole::Controls* controls) {
  const vole::Recording recording = vole::read_recording(file);
  if (project) vole::expect_recording_of(*project, recording, file);
  if (controls) const vole::InputReader reader(recording, *controls);
}
