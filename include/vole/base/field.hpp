// The numbers, pairs and colours among the fields of a described struct, found by name while the program
// runs:
//
//   const std::vector<FieldInfo>& fields = numeric_fields<Lamp>();      // "radius", "brightness"
//   FieldRef radius = field_at(lamp, 0);
//   radius.put(radius.value() + Vec4(2, 0, 0, 0));
#pragma once

#include <array>
#include <cstddef>
#include <string_view>
#include <vector>

#include "vole/base/field_index.hpp"
#include "vole/base/vec4.hpp"

namespace vole {

constexpr std::string_view word_for_parts(int parts) {
  return parts == 1 ? "a number" : parts == 2 ? "a pair of numbers" : "a colour";
}

// In the order in which the struct describes them, state included. Throws std::logic_error for a type without a default constructor.
inline const std::vector<FieldInfo>& numeric_fields(const DescribedType& type) {
  return type.table().numbers();
}
template <Described T>
const std::vector<FieldInfo>& numeric_fields() {
  return numeric_fields(described_type<T>());
}

// A value as parts: a number fills x, a pair x and y, a colour all four with red, green, blue and alpha up to 255.
template <class T>
Vec4 parts_of(const T& value) {
  return field_type<T>().parts_of(&value);
}

// One such field of one struct; good for as long as the struct stays where it is.
class FieldRef {
 public:
  // The bytes of a field, to put them back.
  using Bytes = std::array<std::byte, 16>;

  FieldRef() = default;
  FieldRef(const DescribedField& field, void* owner) : value_(field.in(owner)), field_(&field) {}

  explicit operator bool() const { return field_ != nullptr; }
  Vec4 value() const { return field_->type->parts_of(value_); }
  // Brought within what the field may be; whole numbers are rounded.
  void put(Vec4 value) { field_->type->put_parts(value_, value, field_->rule); }

  Bytes bytes() const;
  void put_back(const Bytes& bytes);

 private:
  void* value_ = nullptr;
  const DescribedField* field_ = nullptr;
};

// The field at this index among numeric_fields(); none beyond them.
template <Described T>
FieldRef field_at(T& owner, std::size_t index) {
  const std::vector<FieldInfo>& fields = numeric_fields<T>();
  return index < fields.size() ? FieldRef(*fields[index].field, &owner) : FieldRef();
}

}  // namespace vole
