// What a field can do where its type says nothing else.
#include "vole/base/field_type.hpp"

#include "vole/base/toml_value.hpp"
#include "vole/base/vec4.hpp"

namespace vole {

std::optional<TomlValue> FieldType::default_toml(const void*) const {
  return std::nullopt;
}

void FieldType::visit_all(const FieldType& wanted, void* value,
                          const std::function<void(void*)>& visit) const {
  if (this == &wanted) visit(value);
}

Vec4 FieldType::parts_of(const void*) const {
  return Vec4(0, 0, 0, 0);
}

void FieldType::put_parts(void*, Vec4, const FieldRule&) const {}

}  // namespace vole
