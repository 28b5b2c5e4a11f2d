#include <fmt/core.h>

#include <algorithm>
#include <cstdio>
#include <nlohmann/json.hpp>
#include <set>

#include "commands.hpp"
#include "game_files.hpp"
#include "kinds_alone.hpp"
#include "own_components.hpp"
#include "progress.hpp"
#include "rules/rules.hpp"
#include "vole/app/project.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/input/recording.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/level_now.hpp"
#include "vole/world/person.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/tile_components.hpp"
#include "vole/world/top_mover.hpp"

namespace {

using vole::Error;
using vole::Node;
using vole::Problem;
using vole::Report;

// Reads a game's files one after the other; each thing that is wrong goes to the report and the rest goes on.
class Checker {
 public:
  explicit Checker(const std::string& root) : root_(root), catalog_(root) { catalog_.remember_failures(); }

  void check_all() {
    vole::list_files(root_);  // throws for a folder that cannot be read
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
    attempt([&] { findings_ = check_rules(catalog_, project_, named_, all_read, kinds_, report_); });
  }

  // Sorted by place, each once: a broken picture is met again by every sheet that uses it.
  std::vector<Finding> findings() const {
    std::vector<Finding> all;
    std::set<std::string> seen;
    for (const Problem& problem : report_.problems())
      if (seen.insert(to_text(problem)).second) all.push_back({problem, {}});
    all.insert(all.end(), findings_.begin(), findings_.end());
    std::stable_sort(all.begin(), all.end(),
                     [](const Finding& a, const Finding& b) { return key(a.problem) < key(b.problem); });
    return all;
  }
  int files() const { return files_; }

 private:
  static std::tuple<std::string, int, int> key(const Problem& problem) {
    return {problem.where.file ? *problem.where.file : std::string(), problem.where.line,
            problem.where.column};
  }

  // Whether nothing was wrong.
  template <class Work>
  bool attempt(const Work& work) {
    try {
      work();
      return true;
    } catch (const Error& error) {
      report_.add(error);
      return false;
    }
  }

  void check_project() {
    ++files_;
    project_ = vole::read_project(vole::join_path(root_, "game.toml"));
    const vole::Project& project = project_;
    id_ = project.id.value;
    if (!project.icon.value.empty()) {
      attempt([&] {
        try {
          vole::read_png(vole::join_path(root_, project.icon.value));
        } catch (const Error& error) {
          const bool missing = !vole::file_exists(vole::join_path(root_, project.icon.value));
          if (!missing) throw;
          throw Error(project.icon.where, fmt::format("no file \"{}\"", project.icon.value),
                      error.problems()[0].hint);
        }
      });
    }
  }

  void check_controls() {
    const std::string file = vole::join_path(root_, "controls.toml");
    if (!vole::file_exists(file)) return;
    ++files_;
    controls_ = vole::read_controls(file);
  }

  template <class T>
  void check_assets() {
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
  void check_fonts() {
    for (const std::string& name : catalog_.loose_names<vole::Font>()) {
      if (!vole::file_exists(catalog_.asset_path(name + ".font.toml"))) continue;
      ++files_;
      attempt([&] { catalog_.get<vole::Font>(name); });
    }
  }

  // What tiles have of the game's own.
  void check_tiles() {
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
              Node values;
              values.entries.push_back({item.name, item.where, item.value});
              own_components_->check(values, nullptr, report_);
            }
      });
  }

  void check_groups() {
    for (const auto& scene : project_.assets.scenes)
      attempt([&] { vole::wanted_by_scene(project_.assets, scene.name, catalog_); });
    vole::AssetGroups every = project_.assets;
    // A scene that needs every group, so that all of them are checked.
    every.scenes.push_back({"", {}, {}});
    for (const auto& group : every.groups) every.scenes.back().value.push_back({group.name, group.where});
    for (const vole::WantedAsset& wanted : vole::wanted_by_scene(every, "", catalog_))
      named_.insert(fmt::format("{} {}", wanted.type, wanted.name));
  }

  void check_kinds() {
    attempt([this] { own_components_ = std::make_unique<OwnComponents>(root_, alone_.types()); });
    kinds_ = vole::read_kinds(root_, project_.categories);
    files_ += static_cast<int>(kinds_.files.size());
    for (const auto& kind : kinds_.all) check_thing(kind.name, kind.value, nullptr);
  }

  // Whether all could be read.
  bool check_levels() {
    bool all_read = true;
    for (const std::string& name : catalog_.names<vole::Level>()) {
      vole::Asset<vole::Level> level;
      try {
        level = catalog_.get<vole::Level>(name);
      } catch (const Error&) {
        all_read = false;  // and reported already
        continue;
      }
      if (project_read_)
        for (const auto& category : level->tiles.categories())
          attempt([&] { project_.categories.number(category.value, category.where); });
      for (const vole::LevelPlace& place : level->places) {
        if (level->cells.x > 0) check_place(*level, place);
        if (!kinds_read_) continue;
        attempt([&] {
          Node thing = kinds_.kind(place.kind, place.where);
          thing.merge(place.overrides);
          check_thing(place.kind, thing, &*level);
        });
      }
      check_pieces(name, *level);
    }
    return all_read;
  }

  // Pieces that do not go into the level that names them, and levels that could not go on.
  void check_pieces(const std::string& name, const vole::Level& level) {
    for (const vole::PieceList& list : level.pieces)
      for (const vole::PieceList::Item& item : list.items) named_.insert("level " + item.piece.value);
    if (level.pieces.empty()) return;
    attempt([&] {
      vole::LevelNow now;
      now.load(name, alone_.binding());
      // Known to go on; there may be pieces that never come.
      if (level.endless) vole::check_endless(level, now.find_piece(), report_);
      if (!kinds_read_) return;
      for (const auto& piece : now.piece_files())
        for (const vole::LevelPlace& place : piece->places) {
          Node thing = kinds_.kind(place.kind, place.where);
          thing.merge(place.overrides);
          const auto kind = alone_.compile(place.kind, thing);
          if (kind->sprite)
            attempt([&] { level.layer(kind->sprite->layer_name.value, kind->sprite->layer_name.where); });
        }
    });
  }

  void check_place(const vole::Level& level, const vole::LevelPlace& place) {
    const vole::IVec2 size = level.size();
    // Feet may stand on the lower edge.
    if (place.at.x >= 0 && place.at.y >= 0 && place.at.x <= static_cast<float>(size.x) &&
        place.at.y <= static_cast<float>(size.y))
      return;
    report_.error(place.where,
                  fmt::format("this place is outside the level, which has {} x {} cells ({} x {} pixels)",
                              level.cells.x, level.cells.y, size.x, size.y));
  }

  // As bringing it to life would find it. The game's own components are known to the game, which checks them when it
  // starts, and from the schemas that it has written.
  void check_thing(const std::string& kind, const Node& thing, const vole::Level* level) {
    const auto compiled = alone_.compile(kind, thing, report_);
    if (own_components_) own_components_->check(thing, level, report_);
    if (const auto* const person = compiled->find<vole::Person>(); person && controls_read_)
      check_person(*person, needed_by(*compiled), thing.where);
    if (!compiled->sprite) return;
    const vole::Sprite& sprite = *compiled->sprite;
    named_.insert("sheet " + sprite.sheet_name.value);
    named_.insert("clip " + sprite.first_clip.value);
    attempt([&] {
      if (level) level->layer(sprite.layer_name.value, sprite.layer_name.where);
    });
  }

  // By its mover.
  static vole::NeededIntent needed_by(const vole::CompiledKind& kind) {
    for (const vole::CompiledKind::Part& part : kind.parts)
      if (part.type->mover) return *part.type->mover;
    return {};
  }

  void check_person(const vole::Person& person, vole::NeededIntent needed,
                    const vole::FilePosition& otherwise) {
    const auto known = [&](const auto& things, const auto& written, std::string_view sort) {
      const auto names = vole::names_of(things);
      if (std::find(names.begin(), names.end(), written.value) == names.end())
        report_.error(written.where.file ? written.where : otherwise,
                      fmt::format("no {} \"{}\" in controls.toml", sort, written.value),
                      vole::did_you_mean(written.value, names));
    };
    known(controls_.axes, person.walk, "axis");
    const vole::Axis* const walk = vole::find_named(controls_.axes, person.walk.value);
    if (needed.up_and_down && !(walk && walk->is_flat)) known(controls_.axes, person.walk_down, "axis");
    if (needed.jump) known(controls_.actions, person.jump, "action");
  }

  void check_recordings() {
    const std::string folder = vole::join_path(root_, "recordings");
    if (!vole::folder_exists(folder)) return;
    for (const std::string& name : vole::list_files(folder)) {
      if (!name.ends_with(".run")) continue;
      ++files_;
      attempt([&] {
        const std::string file = vole::join_path(folder, name);
        const vole::Recording recording = vole::read_recording(file);
        if (!id_.empty() && recording.game != id_)
          throw Error(
              vole::FilePosition::whole_file(file),
              fmt::format("is a recording of the game \"{}\", and this is \"{}\"", recording.game, id_));
        if (controls_read_) const vole::InputReader reader(recording, controls_);
      });
    }
  }

  std::string root_;
  std::string id_;
  vole::Project project_;
  std::set<std::string> named_;  // assets that files name, as "sheet vole"
  std::vector<Finding> findings_;
  vole::Catalog catalog_;
  vole::Controls controls_;
  vole::Kinds kinds_;
  KindsAlone alone_{catalog_, kinds_};
  std::unique_ptr<OwnComponents> own_components_;
  Report report_;
  int files_ = 0;
  // What could not be read is not judged by.
  bool project_read_ = false, controls_read_ = false, kinds_read_ = false;
};

nlohmann::json to_json(const Finding& finding) {
  const Problem& problem = finding.problem;
  return {{"file", problem.where.file ? *problem.where.file : std::string()},
          {"line", problem.where.line},
          {"column", problem.where.column},
          {"severity", problem.severity == vole::Severity::error ? "error" : "warning"},
          {"message", problem.text},
          {"hint", problem.hint},
          {"times", problem.times},
          {"rule", finding.rule}};
}

}  // namespace

int check(const CheckOptions& options) {
  if (!vole::folder_exists(options.folder))
    throw Error(vole::FilePosition::whole_file(options.folder), "no such folder");
  Checker checker(options.folder);
  checker.check_all();
  const std::vector<Finding> findings = checker.findings();
  if (options.json) {
    nlohmann::json found = nlohmann::json::array();
    for (const Finding& finding : findings) found.push_back(to_json(finding));
    fmt::print("{}\n", found.dump(2, ' ', false, nlohmann::json::error_handler_t::replace));
  } else {
    for (const Finding& finding : findings)
      fmt::print("{}{}\n", to_text(finding.problem),
                 finding.rule.empty() ? "" : fmt::format(" [{}]", finding.rule));
    if (findings.empty())
      fmt::print("{}: {} files, nothing wrong\n", options.folder, checker.files());
    else
      fmt::print("{}: {} problem{} in {} files\n", options.folder, findings.size(),
                 findings.size() == 1 ? "" : "s", checker.files());
  }
  return findings.empty() ? 0 : 1;
}
