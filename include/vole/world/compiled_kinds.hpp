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
#include "vole/world/binding.hpp"

namespace vole {

class Level;
class World;
struct FromPlace;
struct LevelPlace;
struct Sprite;

struct CompiledKind {
  struct Part {
    const ComponentTypes::Type* type = nullptr;
    std::shared_ptr<const void> component;
  };
  struct Carried {
    std::string point;
    std::shared_ptr<const CompiledKind> kind;
  };

  // A part by its type; nullptr when it has none.
  template <class T>
  const T* find() const {
    for (const Part& part : parts)
      if (part.type->number == described_type<T>().number())
        return static_cast<const T*>(part.component.get());
    return nullptr;
  }

  std::string name;
  std::vector<Part> parts;
  std::vector<Carried> carried;
  const Sprite* sprite = nullptr;  // among the parts
  int things = 1;                  // that it brings to life: itself, and all that is carried
  bool links = false;              // whether it, or what it carries, refers to places
  int levels = 1;                  // of them: 2 when it carries something that carries nothing
};

// What a table of components comes to; what is wrong with it goes to the report, and what could be made is returned.
// A kind brings at most 256 things to life, each carried by the next at most 7 times.
struct KindCompiler {
  const Kinds& kinds;
  Binding binding;

  std::shared_ptr<const CompiledKind> compile(std::string_view name, const TomlValue& components,
                                              Report& report) const;
};

class CompiledKinds {
 public:
  // Both must outlive this.
  CompiledKinds(const Kinds& kinds, const Binding& binding) : compiler_{kinds, binding} {}

  // Compiled on first use. Throws Error: for an unknown name at `asked` with the nearest, and for what is
  // wrong with the kind.
  std::shared_ptr<const CompiledKind> get(std::string_view kind, const FilePosition& asked = {});
  // The same with a table of components put over the kind's; compiled each time.
  std::shared_ptr<const CompiledKind> with(std::string_view kind, const TomlValue& over,
                                           const FilePosition& asked = {}) const;
  struct Recompiled {
    std::shared_ptr<const CompiledKind> before, now;
  };
  // After a change of the files: those that were compiled are compiled again, and what is wrong with them goes
  // to the report; of those the last good version stays.
  std::vector<Recompiled> recompile(Report& report);

  const Kinds& written() const { return compiler_.kinds; }
  const Binding& binding() const { return compiler_.binding; }

 private:
  KindCompiler compiler_;
  std::map<std::string, std::shared_ptr<const CompiledKind>, std::less<>> compiled_;
};

// Throws Error, before anything is put down, when the level lacks the layer of a sprite. The same for places and paths that are named, which
// are looked for in the file of the level or of the piece.
void expect_in_level(const CompiledKind& kind, const Level* level, const Level* piece = nullptr);

// Finds the things that links name: those of a thing that came with a piece among what came with it.
void link_places(World& world, const ComponentTypes& types);

// Brings a thing to life with its feet (or pivot) at a position, and what it carries with it.
Entity put_down(World& world, const CompiledKind& kind, Vec2 at, const Binding& binding);
// What a place of the level, or of a piece, brings to life.
Entity put_down(World& world, const CompiledKind& kind, const LevelPlace& place, const FromPlace& from,
                const Binding& binding);

}  // namespace vole
