// What game.toml says:
//
//   title = "The Allotment"
//   id = "allotment"
//   version = "0.1.0"
//   canvas = [320, 180]
//   ticks_per_second = 60
//   first_scene = "title"
//   icon = "icon.png"
//
//   [limits]                               # `vole check` reports what goes beyond
//   picture_side = 1024
//
// Categories of bodies: see categories.hpp. Groups of assets that scenes load ahead: see groups.hpp.
#pragma once

#include <string>

#include "vole/app/groups.hpp"
#include "vole/base/describe.hpp"
#include "vole/level/categories.hpp"

namespace vole {

// The most that the project allows itself; 0: no limit.
struct ProjectLimits {
  int picture_side = 0;  // pixels
  int frames_in_sheet = 0;
  int cells_in_level = 0;
  std::int64_t file_kib = 0;    // of one asset
  std::int64_t assets_kib = 0;  // of all
};
template <class V>
void describe(V& v, ProjectLimits& limits) {
  v("picture_side", limits.picture_side, within(0, 65536));
  v("frames_in_sheet", limits.frames_in_sheet, within(0, 65536));
  v("cells_in_level", limits.cells_in_level, within(0, 1e9));
  v("file_kib", limits.file_kib, within(0, 1e9));
  v("assets_kib", limits.assets_kib, within(0, 1e9));
}

// What `vole check` lets pass here and in files that cannot say so themselves, as pictures cannot:
//
//   [check.files."assets/old-vole.png"]
//   unused-file = "kept to draw from"
struct ProjectNotes {
  Named<Located<std::string>> allow;
  Named<Named<Located<std::string>>> files;
};
template <class V>
void describe(V& v, ProjectNotes& notes) {
  v("allow", notes.allow, may_be_empty());  // which says more than that it is empty
  v("files", notes.files, may_be_empty());
}

// How the canvas goes into the window: by the largest whole multiple; as large as it fits; or over all of it, cut off
// where it does not fit.
enum class CanvasScaling : std::uint8_t { whole, fit, fill };
constexpr auto enum_names(CanvasScaling) {
  return std::array<std::string_view, 3>{"whole", "fit", "fill"};
}

struct Project {
  std::string root;  // the folder that holds game.toml

  Located<std::string> title;
  Located<std::string> id;
  Located<std::string> version{"0.1.0", {}};
  IVec2 canvas{320, 180};
  CanvasScaling scaling = CanvasScaling::whole;
  int ticks_per_second = 60;
  Located<std::string> first_scene;
  Located<std::string> icon;
  AssetGroups assets;
  Named<CategoryText> written_categories;
  Categories categories;  // as they are written
  ProjectLimits limits;
  ProjectNotes check;
};
template <class V>
void describe(V& v, Project& project) {
  v("title", project.title, needed());
  v("id", project.id, needed());
  v("version", project.version);
  v("canvas", project.canvas, within(16, 4096));
  v("scaling", project.scaling);
  v("ticks_per_second", project.ticks_per_second, within(10, 1000));
  v("first_scene", project.first_scene, needed());
  v("icon", project.icon);
  v("groups", project.assets.groups, items(1000));
  v("scenes", project.assets.scenes, items(1000));
  v("categories", project.written_categories, items(most_categories));
  v("limits", project.limits);
  v("check", project.check);
}

// What keeps a text from being a game's title, id or version; empty where nothing does. A title stands in windows and
// menus; an id is a program, a target of its build and a folder on every system; a version is part of a file's name.
std::string wrong_with_title(std::string_view title);
std::string wrong_with_id(std::string_view id);
std::string wrong_with_version(std::string_view version);

// `file` is the path of a game.toml. Throws Error, also for names that cannot be used and for an icon that is not in the
// game's folder.
Project read_project(const std::string& file);

// The path of the game.toml that a program means by `file`: beside the program; else in the folder that the
// file PROGRAM.folder beside the program names (development builds have one); else as it is. Throws
// Error.
std::string find_project(const std::string& file, const std::string& program);

}  // namespace vole
