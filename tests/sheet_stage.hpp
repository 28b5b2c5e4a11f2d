// A stage on which one thing of the kind "mouse" shows a sheet that the test writes: 8 frames of 8 x 8.
#pragma once

#include <memory>

#include "support.hpp"
#include "vole/app/game.hpp"

struct SheetStage {
  TempFolder folder;
  vole::Kinds kinds;
  vole::ComponentTypes types;
  std::unique_ptr<vole::Catalog> catalog;
  std::unique_ptr<vole::Stage> stage;
  vole::Entity mouse;

  explicit SheetStage(const std::string& sheet, const std::string& other_kinds = {},
                      const std::string& more_of_mouse = {}) {
    write_small_game(folder);
    write_sheet(sheet);
    folder.write("kinds.toml",
                 std::string("[mouse]\nsprite = { sheet = \"mouse\" }\nbody = { size = [6, 6] }\n")
                     .append(more_of_mouse)
                     .append("\n")
                     .append(other_kinds));
    start();
  }
  // Begins anew with the files as they are now.
  void start() {
    stage.reset();
    kinds = vole::read_kinds(folder.path());
    catalog = std::make_unique<vole::Catalog>(folder.path());
    stage = std::make_unique<vole::Stage>(vole::StageSetting{*catalog, kinds, types, {64, 32}, 60}, 1);
  }
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
  vole::Sprite& sprite() { return stage->get<vole::Sprite>(mouse); }
  std::string clip() { return sprite().animator.clip() ? sprite().animator.clip()->name : ""; }
  void tick(int times = 1) {
    for (int i = 0; i < times; ++i) {
      stage->begin_tick({});
      stage->end_tick();
    }
  }
  vole::PictureItem drawn(std::size_t index = 0) {
    vole::DrawList list;
    list.start({64, 32});
    stage->draw(list, 1);
    return list.items().at(index).picture;
  }
};
