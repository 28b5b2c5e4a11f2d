// What can be done with a described struct whose type is known only while the program runs.
//
//   const DescribedType& type = described_type<Harvest>();
//   std::shared_ptr<void> harvest = type.make();
//   type.read(in, harvest.get());
#pragma once

#include <memory>

#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"

namespace vole {

// The name of a type as its source has it, for messages: "Harvest".
template <class T>
constexpr std::string_view type_name() {
  // Both compilers write "... [T = Harvest]" or "[with T = Harvest; ...]".
  std::string_view text = __PRETTY_FUNCTION__;
  text.remove_prefix(text.find("T = ") + 4);
  text = text.substr(0, text.find_first_of(";]"));
  // Without its namespace.
  const std::size_t scope =
      text.find('<') == std::string_view::npos ? text.rfind("::") : std::string_view::npos;
  return scope == std::string_view::npos ? text : text.substr(scope + 2);
}

struct DescribedType {
  std::string_view name;  // in C++
  std::shared_ptr<void> (*make)();
  void (*write)(StateWriter& out, const void* value);
  void (*read)(StateReader& in, void* value);
  std::string (*to_inline_toml)(const void* value);
  void (*from_node)(const Node& node, void* value, Report& report, TableOf of);
};

// One for each type: two are of the same type when their addresses are equal.
template <Described T>
const DescribedType& described_type() {
  static const DescribedType type{
      type_name<T>(),
      []() -> std::shared_ptr<void> { return std::make_shared<T>(); },
      [](StateWriter& out, const void* value) { write_state(out, *static_cast<const T*>(value)); },
      [](StateReader& in, void* value) { read_state(in, *static_cast<T*>(value)); },
      [](const void* value) { return vole::to_inline_toml(*static_cast<const T*>(value)); },
      [](const Node& node, void* value, Report& report, TableOf of) {
        vole::read(node, *static_cast<T*>(value), report, of);
      }};
  return type;
}

}  // namespace vole
