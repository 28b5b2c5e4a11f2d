// Kinds ready to be put down: components made once, with their sheets found, so that bringing a thing to life copies
// them and parses nothing.
//
//   CompiledKinds kinds(written, binding);
//   Entity bulb = put_down(world, kinds.get("bulb"), {40, 16});
#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "vole/level/kinds.hpp"
#include "vole/world/world.hpp"

namespace vole {

struct CompiledKind {
  struct Part {
    const ComponentTypes::Type* type = nullptr;
    std::shared_ptr<const void> component;
  };
  struct Carried {
    std::string point;
    std::shared_ptr<const CompiledKind> kind;
  };

  std::string name;
  std::vector<Part> parts;
  std::vector<Carried> carried;
  const Sprite* sprite = nullptr;  // among the parts
};

// What a table of components comes to; what is wrong with it goes to the report, and what could be made is
// returned. `carried_by`: the kinds that carry this one, each within the one before.
struct KindCompiler {
  const Kinds& kinds;
  Binding binding;

  std::shared_ptr<const CompiledKind> compile(std::string_view name, const Node& components, Report& report,
                                              std::vector<std::string> carried_by = {}) const;
};

class CompiledKinds {
 public:
  // Both must outlive this.
  CompiledKinds(const Kinds& kinds, const Binding& binding) : compiler_{kinds, binding} {}

  // Compiled on first use. Throws Error: for an unknown name at `asked` with the nearest, and for what is
  // wrong with the kind.
  std::shared_ptr<const CompiledKind> get(std::string_view kind, const FilePosition& asked = {});
  // The same with a table of components put over the kind's; compiled each time.
  std::shared_ptr<const CompiledKind> with(std::string_view kind, const Node& over,
                                           const FilePosition& asked = {}) const;
  // After a change of the files: those that were compiled are compiled again, and what is wrong with them goes
  // to the report; of those the last good version stays.
  void recompile(Report& report);

  const Kinds& written() const { return compiler_.kinds; }
  const Binding& binding() const { return compiler_.binding; }

 private:
  KindCompiler compiler_;
  std::map<std::string, std::shared_ptr<const CompiledKind>, std::less<>> compiled_;
};

// Throws Error, before anything is put down, when the world's level lacks the layer of a sprite.
void check_layers(const CompiledKind& kind, const LevelNow& level);

// Brings a thing to life with its feet (or pivot) at a position, and what it carries with it.
Entity put_down(World& world, const CompiledKind& kind, Vec2 at, const Binding& binding);

}  // namespace vole
