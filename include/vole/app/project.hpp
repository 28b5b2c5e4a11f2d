// What game.toml says:
//
//   title = "The Allotment"
//   id = "allotment"
//   version = "0.1.0"
//   canvas = [320, 180]
//   ticks_per_second = 60
//   first_scene = "title"
//   icon = "icon.png"
#pragma once

#include <string>

#include "vole/base/describe.hpp"

namespace vole {

struct Project {
  std::string root;  // the folder that holds game.toml

  Located<std::string> title;
  Located<std::string> id;
  std::string version = "0.1.0";
  IVec2 canvas{320, 180};
  int ticks_per_second = 60;
  Located<std::string> first_scene;
  Located<std::string> icon;
};
template <class V>
void describe(V& v, Project& project) {
  v("title", project.title, needed());
  v("id", project.id, needed());
  v("version", project.version);
  v("canvas", project.canvas, within(16, 4096));
  v("ticks_per_second", project.ticks_per_second, within(10, 1000));
  v("first_scene", project.first_scene, needed());
  v("icon", project.icon);
}

// `file` is the path of a game.toml. Throws Error.
Project read_project(const std::string& file);

// The path of the game.toml that a program means by `file`: beside the program; else in the folder that the file
// PROGRAM.folder beside the program names (development builds have one); else as it stands. Throws Error.
std::string find_project(const std::string& file, const std::string& program);

// The folder of the running program; `called` is its argv[0].
std::string program_path(const std::string& called);

}  // namespace vole
