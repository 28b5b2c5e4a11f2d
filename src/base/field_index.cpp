#include "vole/base/field_index.hpp"

namespace vole {

std::size_t detail::index_of_field(const DescribedType& type, const void* owner, const void* field) {
  const std::vector<FieldInfo>& fields = type.table().numbers();
  std::size_t index = 0;
  while (index < fields.size() && fields[index].field->in(owner) != field) ++index;
  return index;
}

}  // namespace vole
