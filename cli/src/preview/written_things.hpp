// The things of a game's kinds as they are when they are spawned, without the game.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "kinds_alone.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/lamp.hpp"
#include "vole/world/probes.hpp"

struct WrittenThing {
  std::shared_ptr<const vole::CompiledKind> kind;
  std::optional<vole::CollisionBody> body;  // around the position
  const vole::Probes* probes = nullptr;     // these are of the kind, which this keeps alive
  const vole::AlongPath* way = nullptr;
  const vole::Lamp* lamp = nullptr;

  // What shows first, its pivot on the position; nothing: no picture.
  std::optional<vole::Frame> frame() const;
};

class WrittenThings {
 public:
  // The catalog must outlive this.
  explicit WrittenThings(vole::Catalog& catalog);

  const vole::Kinds& kinds() const { return kinds_; }
  // Both throw Error.
  WrittenThing of_kind(const std::string& kind) const;
  WrittenThing at_place(const vole::LevelPlace& place) const;

 private:
  WrittenThing made_of(std::string_view kind, const vole::TomlValue& components) const;

  vole::Catalog& catalog_;
  vole::Kinds kinds_;
  KindsAlone alone_;
};
