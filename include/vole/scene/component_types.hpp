// The components a game knows, by the names they have in files.
//
//   ComponentTypes types;              // those of the library
//   types.add<Bulb>("bulb");           // a struct with a describe function
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/sheet.hpp"
#include "vole/base/describe.hpp"
#include "vole/base/field.hpp"
#include "vole/base/schema.hpp"
#include "vole/scene/entities.hpp"

namespace vole {

// What can be a component in a file: it has a describe function, or a read_field of its own.
template <class T>
concept FileComponent = Described<T> ||
    requires(const Node& node, T& value, const FieldRule& rule, Report& report) {
  read_field(node, value, rule, report);
};

class ComponentTypes {
 public:
  struct Type {
    std::string name;
    // Reads a component from a table and attaches it.
    void (*attach)(const Node& table, Entities& entities, Entity entity, Report& report);
    // Adds the component to a checksum, if the entity has one.
    void (*hash)(const Entities& entities, Entity entity, Hash& hash);
    // What a file may say of it: see schema.hpp.
    Node (*schema)();
    // Its numbers, pairs and colours, and one of them by its index; none when the entity has no such
    // component.
    const std::vector<FieldInfo>& (*fields)();
    FieldRef (*field)(Entities& entities, Entity entity, std::size_t index);
  };

  ComponentTypes();

  template <FileComponent T>
  void add(std::string_view name) {
    add({std::string(name),
         [](const Node& table, Entities& entities, Entity entity, Report& report) {
           T component{};
           read_value(table, component, {}, report);
           entities.add(entity, std::move(component));
         },
         []([[maybe_unused]] const Entities& entities, [[maybe_unused]] Entity entity,
            [[maybe_unused]] Hash& hash) {
           if constexpr (Described<T>)
             if (const T* component = entities.find<T>(entity)) vole::add_to(hash, *component);
         },
         [] { return schema_of<T>(); },
         []() -> const std::vector<FieldInfo>& {
           static const std::vector<FieldInfo> none;
           if constexpr (Described<T>) return numeric_fields<T>();
           return none;
         },
         []([[maybe_unused]] Entities& entities, [[maybe_unused]] Entity entity,
            [[maybe_unused]] std::size_t index) {
           if constexpr (Described<T>)
             if (T* component = entities.find<T>(entity)) return field_at(*component, index);
           return FieldRef();
         }});
  }

  const Type* find(std::string_view name) const;
  // Reports each field that a track of the sheet names and that is none, or has another sort of value;
  // unknown components too, unless they are let `pass`.
  enum class Unknown { told, pass };
  void check_tracks(const Sheet& sheet, Unknown unknown, Report& report) const;
  const std::vector<Type>& all() const { return types_; }
  std::vector<std::string> names() const;

 private:
  void add(Type type);

  std::vector<Type> types_;  // sorted by name, so that checksums do not hang on the order of registration
};

}  // namespace vole
