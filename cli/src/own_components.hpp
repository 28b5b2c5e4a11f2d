// The components that only the game knows, as its schemas say: what `GAME --schemas schemas` has written.
#pragma once

#include <memory>
#include <string>

#include "vole/base/toml_value.hpp"
#include "vole/level/level.hpp"
#include "vole/world/component_types.hpp"

class OwnComponents {
 public:
  // Of the game in this folder; one that has written no schemas has none. Throws Error for a file that is no schema.
  OwnComponents(const std::string& root, const vole::ComponentTypes& types);
  ~OwnComponents();

  // Whether the game has written what its own are; a new game has schemas of the library's alone.
  bool known() const;

  // Reports what of a kind's or a place's own components is not as the schemas say. Without schemas of the game nothing is.
  // `level`: whose places links may name; nullptr: any.
  void check(const vole::TomlValue& components, const vole::Level* level, vole::Report& report) const;

  // For a component that is not known.
  std::string hint_for(const std::string& name) const;

 private:
  struct Known;
  std::unique_ptr<Known> known_;
};
