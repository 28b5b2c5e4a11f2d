// Kinds as the tool knows them: without the game, so without the components that are its own.
#pragma once

#include <memory>
#include <string_view>
#include <vector>

#include "vole/level/kinds.hpp"
#include "vole/world/compiled_kinds.hpp"

class KindsAlone {
 public:
  // Both must outlive this.
  KindsAlone(vole::Catalog& catalog, const vole::Kinds& kinds) : catalog_(catalog), kinds_(kinds) {}

  vole::Binding binding() const { return {catalog_, types_, no_tracks_, vole::UnknownComponents::skip}; }
  const vole::ComponentTypes& types() const { return types_; }
  // What a table of components comes to. What is wrong with it goes to the report, or is reported elsewhere.
  std::shared_ptr<const vole::CompiledKind> compile(std::string_view name, const vole::TomlValue& components,
                                                    vole::Report& report) const {
    return vole::KindCompiler{kinds_, binding()}.compile(name, components, report);
  }
  std::shared_ptr<const vole::CompiledKind> compile(std::string_view name,
                                                    const vole::TomlValue& components) const {
    vole::Report told_elsewhere;
    return compile(name, components, told_elsewhere);
  }

 private:
  vole::Catalog& catalog_;
  const vole::Kinds& kinds_;
  vole::ComponentTypes types_;
  const std::vector<const vole::Track*> no_tracks_;
};
