// over-limit: what goes beyond the limits that the project sets itself.
#include <filesystem>

#include "game_under_check.hpp"
#include "vole/base/paths.hpp"

namespace {

void over(GameUnderCheck& game, const std::string& file, std::string_view what, std::int64_t value,
          std::int64_t limit, std::string_view unit) {
  if (limit > 0 && value > limit)
    game.add("over-limit", file,
             fmt::format("{} {} {}; the project's limit is {}", what, value, unit, limit));
}

}  // namespace

void find_what_is_over_limits(GameUnderCheck& game) {
  const vole::ProjectLimits& limits = game.project.limits;
  std::int64_t all = 0;
  for (const std::string& file : game.files) {
    if (!file.starts_with("assets/")) continue;
    std::error_code failed;
    const auto bytes = static_cast<std::int64_t>(
        std::filesystem::file_size(vole::join_path(game.catalog.root(), file), failed));
    if (failed) continue;
    all += bytes;
    over(game, file, "has", (bytes + 1023) / 1024, limits.file_kib, "KiB");
  }
  over(game, "game.toml", "all assets have", (all + 1023) / 1024, limits.assets_kib, "KiB");
  for (const std::string& name : game.catalog.loose_names<vole::Picture>()) {
    try {
      const vole::IVec2 size = game.catalog.get<vole::Picture>(name)->size();
      over(game, "assets/" + name + ".png", "is", std::max(size.x, size.y), limits.picture_side,
           "pixels along a side");
    } catch (const vole::Error&) {
    }
  }
  game.each_sheet([&](const vole::Sheet& sheet, const std::string& file) {
    over(game, file, "has", static_cast<std::int64_t>(sheet.frames.size()), limits.frames_in_sheet, "frames");
  });
  for (const std::string& name : game.catalog.loose_names<vole::Level>()) {
    try {
      const vole::IVec2 cells = game.catalog.get<vole::Level>(name)->cells;
      over(game, "levels/" + name + ".level.toml", "has", std::int64_t{cells.x} * cells.y,
           limits.cells_in_level, "cells");
    } catch (const vole::Error&) {
    }
  }
}
