// What types of fields have in common whose bytes in a state are those that they have in memory.
#pragma once

#include "vole/base/field_type.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/state.hpp"
#include "vole/base/vec4.hpp"
#include "vole/base/writing.hpp"

namespace vole::detail {

template <class T>
class PlainType : public FieldType {
 public:
  void write_state(StateWriter& out, const void* value) const override { out.add(value, sizeof(T)); }
  void read_state(StateReader& in, void* value) const override {
    in.take(value, sizeof(T));
    if (!is_sound(value)) StateReader::broken();
  }
  std::size_t plain_size() const override { return sizeof(T); }
  std::size_t size() const override { return sizeof(T); }

 protected:
  static T& in(void* value) { return *static_cast<T*>(value); }
  static const T& in(const void* value) { return *static_cast<const T*>(value); }
};

// "[1, 2]".
template <class... Parts>
void add_parts(TomlText& out, Parts... parts) {
  std::string_view before = "[";
  ((out.add_plain(before), out.add(parts), before = ", "), ...);
  out.add_plain("]");
}

}  // namespace vole::detail
