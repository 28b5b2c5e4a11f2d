// A level with its things as a scene finds them that does nothing but load it. The game's own components are left out.
#pragma once

#include <memory>
#include <optional>
#include <string>

#include "vole/app/game.hpp"
#include "vole/app/project.hpp"
#include "vole/scene/running_scene.hpp"
#include "vole/world/compiled_kinds.hpp"

// What all levels of a game share, read once. Throws Error.
class StagedGame {
 public:
  explicit StagedGame(vole::Catalog& catalog);
  StagedGame(const StagedGame&) = delete;
  StagedGame& operator=(const StagedGame&) = delete;

 private:
  friend class StagedLevel;
  vole::Project project_;
  vole::Game game_;
  vole::Kinds kinds_;
  vole::CompiledKinds compiled_;
  std::shared_ptr<const vole::Controls> controls_;
};

class StagedLevel {
 public:
  // On a canvas of this size. Throws Error. The game outlives this.
  StagedLevel(StagedGame& game, const std::string& level, vole::IVec2 canvas);

  vole::Stage& stage() { return running_->stage(); }
  vole::RunningScene& scene() { return *running_; }
  // The first thing of a kind; throws Error, about the level's file, where it has no place for one.
  vole::Entity first(const std::string& kind);

 private:
  std::string file_;
  vole::StageSetting setting_;
  std::optional<vole::RunningScene> running_;
};
