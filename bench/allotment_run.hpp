// The allotment without a session, some way into one of its scenes.
#pragma once

#include "allotment.hpp"
#include "vole/app/project.hpp"
#include "vole/app/simulation.hpp"

struct AllotmentRun {
  vole::Game game = allotment();
  vole::Project project = vole::read_project(VOLE_ALLOTMENT_FOLDER "/game.toml");
  vole::Catalog catalog{project.root};
  vole::Kinds kinds = vole::read_kinds(project.root, project.categories);
  std::shared_ptr<const vole::Controls> controls =
      std::make_shared<const vole::Controls>(vole::read_controls(project.root + "/controls.toml"));
  vole::Simulation simulation{game, {catalog, kinds, controls, project.canvas, project.ticks_per_second}, 7};
  vole::TickInput input{controls};

  void enter(const char* scene) {
    simulation.ask_for(scene);
    simulation.enter();
    for (int i = 0; i < 120; ++i) simulation.tick(input);
  }
};
