// A field by the member that it is:
//
//   std::size_t radius = index_of_field(&Lamp::radius);  // among numeric_fields(): see field.hpp
#pragma once

#include <cstddef>

#include "vole/base/described_type.hpp"

namespace vole {

namespace detail {

std::size_t index_of_field(const DescribedType& type, const void* owner, const void* field);

}  // namespace detail

// The index among numeric_fields() of this member; beyond them when it is not described.
template <Described T, class Field>
std::size_t index_of_field(Field T::*member) {
  const T sample{};
  return detail::index_of_field(described_type<T>(), &sample, &(sample.*member));
}

}  // namespace vole
