// The components a game knows, by the names they have in files.
//
//   ComponentTypes types;              // those of the library
//   types.add<Bulb>("bulb");           // a struct with a describe function
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
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
         [] { return schema_of<T>(); }});
  }

  const Type* find(std::string_view name) const;
  const std::vector<Type>& all() const { return types_; }
  std::vector<std::string> names() const;

 private:
  void add(Type type);

  std::vector<Type> types_;  // sorted by name, so that checksums do not hang on the order of registration
};

}  // namespace vole
