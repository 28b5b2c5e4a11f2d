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

}  // namespace vole
