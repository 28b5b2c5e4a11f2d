#include "vole/base/field.hpp"

#include <cstring>

namespace vole {
FieldRef::Bytes FieldRef::bytes() const {
  Bytes bytes{};
  std::memcpy(bytes.data(), value_, field_->type->size());
  return bytes;
}

void FieldRef::put_back(const Bytes& bytes) {
  std::memcpy(value_, bytes.data(), field_->type->size());
}

std::size_t detail::index_of_field(const DescribedType& type, const void* owner, const void* field) {
  const std::vector<FieldInfo>& fields = numeric_fields(type);
  std::size_t index = 0;
  while (index < fields.size() && fields[index].field->in(owner) != field) ++index;
  return index;
}

}  // namespace vole
