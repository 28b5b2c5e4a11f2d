// A stage on which one thing of the kind "mouse" shows a sheet that the test writes: 8 frames of 8 x 8.
#pragma once

#include "test_stage.hpp"
#include "vole/asset/clip.hpp"
#include "vole/world/body.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/sprite.hpp"

struct SheetStage : TestStage {
  TempFolder folder;
  vole::Stage* stage = nullptr;
  vole::Entity mouse;

  // `know` tells the game what it has of its own.
  explicit SheetStage(const std::string& sheet, const std::string& other_kinds = {},
                      const std::string& more_of_mouse = {},
                      const std::function<void(vole::Game&)>& know = {}) {
    if (know) know(game);
    write_small_game(folder);
    write_sheet(sheet);
    folder.write("kinds.toml",
                 std::string("[mouse]\nsprite = { sheet = \"mouse\" }\nbody = { size = [6, 6] }\n")
                     .append(more_of_mouse)
                     .append("\n")
                     .append(other_kinds));
    start();
  }
  void start() { stage = &TestStage::start(folder); }
  void spawn() { mouse = stage->spawn("mouse", {20, 20}); }

  void write_sheet(const std::string& text) {
    folder.write("assets/mouse.sheet.toml", std::string("frame = { size = [8, 8] }\n").append(text));
  }
  // As a running game takes a changed file.
  void reload(const std::string& sheet) {
    write_sheet(sheet);
    vole::Report report;
    catalog->refresh(report);
    REQUIRE(report.problems().empty());
  }
  // Moves so, on the ground.
  void moves(vole::Vec2 velocity) { stage->entities().add(mouse, vole::Motion{velocity}); }
  vole::Sprite& sprite() { return stage->get<vole::Sprite>(mouse); }
  std::string clip() { return sprite().playhead().clip() ? sprite().playhead().clip()->name : ""; }
};
