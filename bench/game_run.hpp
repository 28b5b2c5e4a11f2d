// An example game without a session.
#pragma once

#include "allotment.hpp"
#include "towpath.hpp"
#include "vole/app/first_scene.hpp"
#include "vole/app/project.hpp"
#include "vole/app/simulation.hpp"
#include "vole/input/controls.hpp"

struct GameRun {
  vole::Game game;
  vole::Project project;
  vole::Catalog catalog{project.root};
  vole::Kinds kinds = vole::read_kinds(project.root, project.categories);
  std::shared_ptr<const vole::Controls> controls =
      std::make_shared<const vole::Controls>(vole::read_controls(project.root + "/controls.toml"));
  vole::Simulation simulation{game, {catalog, kinds, controls, project.canvas, project.ticks_per_second}, 7};
  vole::TickInput input{controls};

  GameRun(vole::Game its, const std::string& folder)
      : game(std::move(its)), project(vole::read_project(folder + "/game.toml")) {}

  // `with`: what it is given, as on a command line.
  void enter(const std::string& scene, const std::string& with = {}) {
    vole::ask_for(simulation, game, project, {scene, with});
    simulation.make_change();
  }
};

// The allotment some way into one of its levels.
struct AllotmentRun : GameRun {
  AllotmentRun() : GameRun(allotment(), VOLE_ALLOTMENT_FOLDER) {}

  void enter(const std::string& level) {
    GameRun::enter("garden", "level = '" + level + "'");
    for (int i = 0; i < 120; ++i) simulation.tick(input);
  }
};
