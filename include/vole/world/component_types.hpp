// The components a game knows: each one's name, C++ type, pool and description.
//
//   ComponentTypes types;              // those of the library
//   types.add<Bulb>("bulb");           // a struct with a describe function
//
// What else a type may say for itself: component_hooks.hpp.
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/field_index.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/component_hooks.hpp"
#include "vole/world/entities.hpp"

namespace vole {

class FieldRef;
class Report;
class Sheet;
struct OriginMove;
struct PlaceLink;
using LinkVisit = std::function<void(PlaceLink&)>;

class ComponentTypes {
 public:
  // Whether kinds and levels may have it; what only the library attaches is part of states alone.
  enum class Use : std::uint8_t { files, state };

  struct Type {
    std::string name;
    Use use = Use::files;
    std::size_t number = 0;  // of the C++ type
    // Of what turns intent into motion: what it cannot do without.
    std::optional<NeededIntent> mover = {};
    bool pilot = false;  // it writes intent
    const DescribedType* described = nullptr;
    const detail::ComponentCopies* copies = nullptr;
    const detail::ComponentHooks* hooks = nullptr;

    // A component as a table says; what is wrong goes to the report.
    std::shared_ptr<void> parse(const TomlValue& table, Report& report) const;
    // The one of a thing; nullptr when it has none.
    const void* find(const Entities& entities, Entity entity) const;
    // Attaches a copy of such a component.
    void attach(Entities& entities, Entity entity, const void* component) const;
    // What a file may say of it: see schema.hpp.
    TomlValue schema() const;
    // Its numbers, pairs and colours, and one of them by its index; none when the entity has no such
    // component.
    const std::vector<FieldInfo>& fields() const;
    FieldRef field(Entities& entities, Entity entity, std::size_t index) const;
    // The value of one of them in a component that stands elsewhere, as in a kind.
    Vec4 value_of(const void* component, std::size_t index) const;
    // The links in a component; and in all that are attached.
    void visit_links(void* component, const LinkVisit& visit) const;
    void visit_all_links(Entities& entities, const std::function<void(Entity, PlaceLink&)>& visit) const;
    // Binds what is attached to the thing; and to all things: what is wrong goes to the report.
    void bind(const OnThing& on) const;
    void bind_all(World& world, const Binding& binding, Report& report) const;
    // Moves all places in the level that attached ones hold, but for those entities that stay where they are.
    void move_positions(Entities& entities, const OriginMove& by,
                        const std::function<bool(Entity)>& stays) const;

   private:
    // Calls visit(entity, component) for all that are attached.
    template <class Visit>
    void each(Entities& entities, const Visit& visit) const;
  };

  ComponentTypes();

  // Throws std::logic_error when the name or the type is there already, and for a field that cannot be saved.
  template <Described T>
  void add(std::string_view name, Use use = Use::files) {
    add({std::string(name),
         use,
         described_type<T>().number(),
         {},
         false,
         &described_type<T>(),
         &detail::component_copies<T>,
         &detail::component_hooks<T>});
  }

  // The same for what moves its thing, and for what steers it: see movers.hpp.
  template <Described T>
  void add_mover(std::string_view name, NeededIntent needed = {}) {
    add<T>(name);
    of(name).mover = needed;
  }
  template <Described T>
  void add_pilot(std::string_view name) {
    add<T>(name);
    of(name).pilot = true;
  }

  // nullptr when there is none of this name.
  const Type* find(std::string_view name) const;
  // The type of a C++ type; nullptr when it is not a component.
  const Type* of(const DescribedType& described) const { return by_number(described.number()); }
  template <Described T>
  const Type* of() const {
    return of(described_type<T>());
  }
  // Those that files may have.
  const Type* find_in_files(std::string_view name) const;
  std::vector<std::string> names_in_files() const;
  // Sorted by name, so that states do not depend on the order of registration.
  const std::vector<Type>& all() const { return types_; }

 private:
  void add(Type type);
  Type& of(std::string_view name) { return const_cast<Type&>(*find(name)); }
  const Type* by_number(std::size_t number) const;

  std::vector<Type> types_;
};

// A numeric field of a component, looked up once.
struct BoundField {
  const ComponentTypes::Type* type = nullptr;  // nullptr: there is no such field
  std::size_t index = 0;
  int parts = 0;
  bool is_position = false;  // which moves with the origin: so many pixels, or cells
  bool in_cells = false;

  FieldRef in(Entities& entities, Entity entity) const;
};
BoundField bind_field(const ComponentTypes& types, std::string_view component, std::string_view field);

// Reports each field that a track of the sheet names and that is none, or has another type of value; unknown
// components too, unless they are to be skipped.
enum class UnknownComponents : std::uint8_t { report, skip };
void check_tracks(const Sheet& sheet, const ComponentTypes& types, UnknownComponents unknown, Report& report);

}  // namespace vole
