// What a component does with the names that it holds. A type has any of these functions beside its describe(), the game's own as the
// library's; each is called where it says, and a type without it has nothing to do there.
//
//   void need(Bell& bell, const OfKind& kind);         // a kind with it is made ready: what is missing or wrong goes to the report
//   void expect(const Bell& bell, const InLevel& in);  // a thing is about to be put there: throws Error for what the level lacks
//   void bind(Bell& bell, const OnThing& on);          // finds what its names mean
//   void forget(Bell& bell);                           // it leaves its thing
//
// What need() makes ready is copied to each thing of the kind. bind() is called when the component is put down with its kind, when a
// state is restored, and at the start of each tick; so one that code has added, or whose names or files are others, is bound like all
// the rest, and a bind() that finds nothing changed has to be quick. What it finds is no state: what decides must follow from what is
// described. What is read from texts of its own alone (scripts, conditions) needs no bind(): it is read anew where it is used and the texts are
// others. forget() is called when the component is removed or replaced, and when its thing is; not when the scene ends.
//
// All are found where the type is made known (Game::knows), so they must be declared before that.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/toml_value.hpp"

namespace vole {

class Catalog;
struct Kinds;
class Level;
class Report;
class Sheet;
class World;
struct Binding;
struct CompiledKind;

// The kind that is made ready.
class OfKind {
 public:
  OfKind(const CompiledKind& kind, const FilePosition& where, const Kinds& kinds, const Binding& binding,
         Report& report)
      : kind_(kind), where_(where), kinds_(kinds), binding_(binding), report_(report) {}

  std::string_view name() const;
  const FilePosition& where() const { return where_; }
  // Another of its components; nullptr when it has none.
  template <class T>
  const T* find() const {
    return static_cast<const T*>(find(described_type<T>().number()));
  }
  // Of its sprite; nullptr without one. A stand-in (Sheet::missing) may have any clips, points and rules.
  bool has_sprite() const;
  const Sheet* sheet() const;
  // What clip rules, minds and switches of it may ask: of every thing, its probes, and its sheet's rules.
  std::vector<std::string> facts() const;

  const Kinds& kinds() const { return kinds_; }
  const Binding& binding() const { return binding_; }
  Catalog& catalog() const;
  Report& report() const { return report_; }
  // The game has to have one of this name.
  void expect_category(const Located<std::string>& name) const;

 private:
  const void* find(std::size_t type) const;

  const CompiledKind& kind_;
  const FilePosition& where_;
  const Kinds& kinds_;
  const Binding& binding_;
  Report& report_;
};

// The level, or the piece, that a thing is put into. All throw Error with the nearest name; an empty name is none.
class InLevel {
 public:
  // `level`: nullptr where none is loaded. `piece`: nullptr for the level's own file.
  InLevel(const Level* level, const Level* piece) : level_(level), piece_(piece) {}

  void expect_place(const Located<std::string>& name) const;
  void expect_path(const Located<std::string>& name) const;
  // Of the level: pieces go into its layers.
  void expect_layer(const Located<std::string>& name) const;

 private:
  const Level& file(std::string_view what, const Located<std::string>& name) const;

  const Level* level_;
  const Level* piece_;
};

// The thing whose component is bound, and where names are looked up.
struct OnThing {
  World& world;
  Entity thing;
  const Binding& binding;
};

namespace detail {

// The functions that a type has, nullptr for what it has not.
struct ComponentHooks {
  void (*need)(void* component, const OfKind& kind) = nullptr;
  void (*expect)(const void* component, const InLevel& in) = nullptr;
  void (*bind)(void* component, const OnThing& on) = nullptr;
};

template <class T>
constexpr ComponentHooks hooks_of() {
  ComponentHooks hooks;
  if constexpr (requires(T & component, const OfKind& kind) { need(component, kind); })
    hooks.need = [](void* component, const OfKind& kind) { need(*static_cast<T*>(component), kind); };
  if constexpr (requires(const T& component, const InLevel& in) { expect(component, in); })
    hooks.expect = [](const void* component, const InLevel& in) {
      expect(*static_cast<const T*>(component), in);
    };
  if constexpr (requires(T & component, const OnThing& on) { bind(component, on); })
    hooks.bind = [](void* component, const OnThing& on) { bind(*static_cast<T*>(component), on); };
  return hooks;
}
template <class T>
inline constexpr ComponentHooks component_hooks = hooks_of<T>();

}  // namespace detail
}  // namespace vole
