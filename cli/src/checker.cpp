#include "checker.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <tuple>

#include "game_files.hpp"
#include "judges.hpp"
#include "preview/staged_level.hpp"
#include "progress.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/paths.hpp"
#include "vole/base/reading.hpp"
#include "vole/level/level.hpp"
#include "vole/world/level_now.hpp"
#include "vole/world/slips.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/tile_components.hpp"

using vole::Error;
using vole::Problem;
using vole::TomlValue;

namespace {

// What has no place of its own, as a name that a component has when a file says nothing, gets this one.
Error at_place(const Error& error, const vole::FilePosition& where) {
  std::vector<Problem> problems = error.problems();
  for (Problem& problem : problems)
    if (!problem.where.file) problem.where = where;
  return Error(std::move(problems));
}

}  // namespace

Checker::Checker(const std::string& root) : root_(root), catalog_(root) {
  catalog_.remember_failures();
}
Checker::~Checker() = default;

template <class Work>
bool Checker::attempt(const Work& work) {
  try {
    work();
    return true;
  } catch (const Error& error) {
    report_.add(error);
    return false;
  }
}

void Checker::check_all(bool with_rules) {
  check_names_of_files();
  project_read_ = attempt([this] { check_project(); });
  controls_read_ = attempt([this] { check_controls(); });
  attempt([this] { files_to_send(root_); });
  check_assets<vole::Picture>();
  check_assets<vole::Sheet>();
  check_assets<vole::Atlas>();
  check_fonts();
  check_assets<vole::Tileset>();
  check_assets<vole::Level>();
  const bool groups_read = project_read_ && attempt([this] { check_groups(); });
  kinds_read_ = attempt([this] { check_kinds(); });
  check_tiles();
  const bool levels_read = check_levels();
  check_recordings();
  const bool all_read = groups_read && kinds_read_ && levels_read;
  if (!with_rules) return;
  attempt([&] { findings_ = check_rules(catalog_, project_, named_, all_read, kinds_, report_); });
}

std::vector<Finding> Checker::findings() const {
  std::vector<Finding> all;
  std::set<std::string> seen;
  for (const Problem& problem : report_.problems())
    if (seen.insert(to_text(problem)).second) all.push_back({problem, {}});
  all.insert(all.end(), findings_.begin(), findings_.end());
  const auto key = [](const Finding& finding) {
    const vole::FilePosition& where = finding.problem.where;
    return std::tuple(where.file ? *where.file : std::string(), where.line, where.column);
  };
  std::stable_sort(all.begin(), all.end(),
                   [&key](const Finding& a, const Finding& b) { return key(a) < key(b); });
  return all;
}

// Throws for a folder that cannot be read. What a game would look for and is no file is reported: a folder, a link that leads
// nowhere, a device.
void Checker::check_names_of_files() {
  vole::list_files(root_);
  for (const char* folder : {"assets", "levels", "kinds"}) {
    std::error_code failed;
    std::filesystem::recursive_directory_iterator it(vole::to_path(vole::join_path(root_, folder)), failed);
    for (; !failed && it != std::filesystem::recursive_directory_iterator(); it.increment(failed)) {
      const std::string name = vole::to_utf8(it->path().filename());
      std::error_code unknown;
      if (!name.starts_with('.') && name.ends_with(".toml") && !it->is_regular_file(unknown))
        report_.error(vole::FilePosition::whole_file(vole::to_utf8(it->path())), "is not a file");
    }
  }
}

void Checker::check_project() {
  ++files_;
  const std::string file = vole::join_path(root_, "game.toml");
  try {
    project_ = vole::read_project(file);
  } catch (const Error&) {
    read_what_can_be(file);
    throw;
  }
  attempt([this] { judge_icon(project_); });
}

// Its categories, so that what names them is not called wrong for something else in the project.
void Checker::read_what_can_be(const std::string& file) {
  try {
    vole::Report told_already;
    vole::read(vole::read_toml(file), project_, told_already);
    project_.categories = vole::Categories(project_.written_categories, told_already);
  } catch (const Error&) {
    // It is no TOML, or there is none.
  }
}

void Checker::check_controls() {
  const std::string file = vole::join_path(root_, "controls.toml");
  if (!vole::file_exists(file)) return;
  ++files_;
  controls_ = vole::read_controls(file);
}

template <class T>
void Checker::check_assets() {
  const std::vector<std::string> names = catalog_.loose_names<T>();
  Progress progress(fmt::format("checking each {}", vole::AssetType<T>::word), names.size());
  for (const std::string& name : names) {
    ++files_;
    progress.step();
    attempt([&] {
      const auto asset = catalog_.get<T>(name);
      if constexpr (std::is_same_v<T, vole::Sheet>)
        if (asset->font) catalog_.get<vole::Font>(name);
    });
  }
}

// Sheets with a font in them are fonts already checked.
void Checker::check_fonts() {
  for (const std::string& name : catalog_.loose_names<vole::Font>()) {
    if (!vole::file_exists(catalog_.asset_path(name + ".font.toml"))) continue;
    ++files_;
    attempt([&] { catalog_.get<vole::Font>(name); });
  }
}

// What tiles have of the game's own.
void Checker::check_tiles() {
  for (const std::string& name : catalog_.loose_names<vole::Tileset>())
    attempt([&] {
      vole::TileTable table;
      table.add(catalog_.get<vole::Tileset>(name).shared());
      vole::TileComponents(table, alone_.types(), vole::UnknownComponents::skip, report_);
      if (!own_components_) return;
      std::set<int> lines;  // several tiles may come from one
      for (const vole::Tile& tile : table.tiles())
        for (const auto& item : tile.values)
          if (lines.insert(item.where.line).second) {
            TomlValue values;
            values.entries.push_back({item.name, item.where, item.value});
            own_components_->check(values, nullptr, report_);
          }
    });
}

void Checker::check_groups() {
  for (const auto& scene : project_.assets.scenes)
    attempt([&] { vole::wanted_by_scene(project_.assets, scene.name, catalog_); });
  vole::AssetGroups every = project_.assets;
  // A scene that needs every group, so that all of them are checked.
  every.scenes.push_back({"", {}, {}});
  for (const auto& group : every.groups) every.scenes.back().value.push_back({group.name, group.where});
  for (const vole::WantedAsset& wanted : vole::wanted_by_scene(every, "", catalog_))
    named_.insert(fmt::format("{} {}", wanted.type, wanted.name));
}

void Checker::check_kinds() {
  attempt([this] { own_components_ = std::make_unique<OwnComponents>(root_, alone_.types()); });
  kinds_ = vole::read_kinds(root_, project_.categories);
  files_ += static_cast<int>(kinds_.files.size());
  for (const auto& kind : kinds_.all) check_thing(kind.name, kind.value, nullptr);
}

// Whether all could be read.
bool Checker::check_levels() {
  bool all_read = true;
  std::vector<vole::Asset<vole::Level>> levels;
  for (const std::string& name : catalog_.names<vole::Level>()) {
    vole::Asset<vole::Level> level;
    try {
      level = catalog_.get<vole::Level>(name);
    } catch (const Error&) {
      all_read = false;  // and reported already
      continue;
    }
    check_level(*level);
    check_pieces(name, *level);
    levels.push_back(std::move(level));
  }
  if (!kinds_read_ || !all_read) return all_read;
  check_spawned(levels);
  // What is wrong already would be met again.
  if (report_.has_errors()) return all_read;
  // Pieces are played where they are put.
  for (const auto& level : levels)
    if (!named_.contains("level " + level->name)) play_level(level->name);
  return all_read;
}

void Checker::check_level(const vole::Level& level) {
  if (project_read_)
    for (const auto& category : level.tiles.categories())
      attempt([&] { project_.categories.number(category.value, category.where); });
  if (level.cells.x > 0)
    for (const vole::LevelPlace& place : level.places) judge_place(level, place, report_);
  check_places(level, nullptr);
}

// Pieces that do not go into the level that names them, and levels that could not go on.
void Checker::check_pieces(const std::string& name, const vole::Level& level) {
  for (const vole::PieceList& list : level.pieces)
    for (const vole::PieceList::Item& item : list.items) named_.insert("level " + item.piece.value);
  if (level.pieces.empty()) return;
  attempt([&] {
    vole::LevelNow now;
    now.load(name, alone_.binding());
    // Known to go on; there may be pieces that never come.
    if (level.endless) vole::check_endless(level, now.find_piece(), report_);
    for (const auto& piece : now.piece_files()) check_places(level, piece.get());
  });
}

// Of the level's own file, or of a piece in it.
void Checker::check_places(const vole::Level& level, const vole::Level* piece) {
  if (!kinds_read_) return;
  // What is scattered is of one make, as are many places; each is looked at once.
  std::set<std::pair<std::string, std::string>> seen;
  const auto& places = (piece ? *piece : level).places;
  for (const vole::LevelPlace& place : places)
    if (!place.kind.empty() && seen.emplace(place.kind, to_toml(place.overrides)).second)
      attempt([&] {
        TomlValue thing = kinds_.kind(place.kind, place.where);
        thing.merge(place.overrides);
        check_thing(place.kind, thing, &level, piece);
      });
}

// Where the files alone are right, the level is played for a moment: what only stands out in motion ends the game too.
void Checker::play_level(const std::string& name) {
  constexpr int moments = 5;
  if (!project_read_ || !kinds_read_ || !controls_read_) return;
  try {
    const vole::TickInput nothing(std::make_shared<const vole::Controls>(controls_));
    if (!staged_game_) staged_game_ = std::make_unique<StagedGame>(catalog_);
    StagedLevel staged(*staged_game_, name, project_.canvas);
    for (int tick = 0; tick < moments; ++tick) staged.scene().tick(nothing);
  } catch (const Error& error) {
    report_.add(error);
  } catch (const std::exception& error) {
    report_.error(vole::FilePosition::whole_file(vole::join_path(root_, "levels/" + name + ".level.toml")),
                  error.what());
  }
}

// Kinds that no level has: code spawns them, so there must be a level that they can be in.
void Checker::check_spawned(const std::vector<vole::Asset<vole::Level>>& levels) {
  for (const auto& kind : kinds_.all) {
    vole::Report wrong;
    const auto compiled = alone_.compile(kind.name, kind.value);
    const bool fits = levels.empty() || std::any_of(levels.begin(), levels.end(), [&](const auto& level) {
                        try {
                          vole::expect_in_level(*compiled, &*level, nullptr);
                          return true;
                        } catch (const Error& error) {
                          wrong.add(at_place(error, kind.value.where));
                          return false;
                        }
                      });
    if (!fits) report_.add(Error({wrong.problems().front()}));
  }
}

// Without the game's schemas. What it calls one of its own must stand in its code.
void Checker::judge_unknown_components(const TomlValue& thing) {
  for (const TomlValue::Entry& entry : thing.entries) {
    if (alone_.types().find(entry.key) || vole::is_in_head(entry.key)) continue;
    if (!sources_) sources_ = std::make_unique<Sources>(root_, files_of_game(root_));
    const std::vector<std::string> known = alone_.types().names_in_files();
    const std::string near = vole::nearest_name(entry.key, known);
    const bool is_wrong = sources_->any() ? !sources_->quote(entry.key) : vole::is_slip(entry.key, known);
    if (is_wrong)
      report_.error(entry.where, fmt::format("no component \"{}\"", entry.key),
                    !near.empty()
                        ? fmt::format("did you mean \"{}\"?", near)
                        : "the library has none of this name, and no code of the game makes one known");
    else
      not_judged_.insert(entry.key);
  }
}

// As bringing it to life would find it. The game's own components are known to the game, which checks them when it
// starts, and from the schemas that it has written.
void Checker::check_thing(const std::string& kind, const TomlValue& thing, const vole::Level* level,
                          const vole::Level* piece) {
  const auto compiled = alone_.compile(kind, thing, report_);
  if (own_components_ && own_components_->known())
    own_components_->check(thing, piece ? piece : level, report_);
  else
    judge_unknown_components(thing);
  if (controls_read_) judge_player(*compiled, controls_, thing.where, report_);
  if (compiled->sprite) {
    named_.insert("sheet " + compiled->sprite->sheet_name.value);
    named_.insert("clip " + compiled->sprite->first_clip.value);
  }
  if (!level) return;
  try {
    vole::expect_in_level(*compiled, level, piece);
  } catch (const Error& error) {
    report_.add(at_place(error, thing.where));
  }
}

void Checker::check_recordings() {
  const std::string folder = vole::join_path(root_, "recordings");
  if (!vole::folder_exists(folder)) return;
  for (const std::string& name : vole::list_files(folder)) {
    if (!name.ends_with(".run")) continue;
    ++files_;
    attempt([&] {
      judge_recording(vole::join_path(folder, name), project_read_ ? &project_ : nullptr,
                      controls_read_ ? &controls_ : nullptr);
    });
  }
}
