#include "level_places.hpp"

#include <fmt/core.h>

#include "vole/level/level.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/world.hpp"

namespace vole {

std::shared_ptr<const CompiledKind> kind_at(const StageSetting& setting, const LevelPlace& place) {
  return place.overrides.entries.empty() ? setting.kinds.get(place.kind, place.where)
                                         : setting.kinds.with(place.kind, place.overrides, place.where);
}

namespace {

// Counts what a level brings to life, with all that is carried.
class ThingCount {
 public:
  explicit ThingCount(Report& report) : report_(report) {}
  void add(int things, const FilePosition& where) {
    constexpr std::int64_t most = 262'144;
    const bool had_room = count_ <= most;
    count_ += things;
    if (had_room && count_ > most)
      report_.error(
          where, fmt::format("with this the level has more than {} things, counting what they carry", most));
  }

 private:
  Report& report_;
  std::int64_t count_ = 0;
};

// Of the level's own file, or of a piece.
void expect_all(const StageSetting& setting, const LevelNow& level, const Level* piece, Report& report) {
  const Level& file = piece ? *piece : level.file();
  ThingCount count(report);
  for (const LevelPlace& place : file.places)
    report.gather([&] {
      if (place.kind.empty()) return;
      const auto kind = kind_at(setting, place);
      count.add(kind->things, place.where);
      expect_in_level(*kind, &level.file(), piece);
    });
}

}  // namespace

void expect_places(const StageSetting& setting, const LevelNow& level) {
  Report report;
  expect_all(setting, level, nullptr, report);
  for (const std::shared_ptr<const Level>& piece : level.piece_files())
    expect_all(setting, level, piece.get(), report);
  for (const Located<std::string>& category : level.file().tiles.categories())
    report.gather([&] { setting.kinds.written().categories.number(category.value, category.where); });
  report.throw_if_errors();
}

void expect_places(const StageSetting& setting, const LevelNow& level, const Level& piece) {
  Report report;
  expect_all(setting, level, &piece, report);
  report.throw_if_errors();
}

Entity put_place(const StageSetting& setting, World& world, const FromPlace& from) {
  const LevelPlace& place = *world.level.place(from);
  if (place.kind.empty()) return {};
  return put_down(world, *kind_at(setting, place), place, from, setting.binding());
}

}  // namespace vole
