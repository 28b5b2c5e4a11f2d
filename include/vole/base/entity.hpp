// The id of a thing. An index is used again after its thing is gone, with another generation.
#pragma once

#include <cstdint>

namespace vole {

struct Entity {
  std::uint32_t index = 0;
  std::uint32_t generation = 0;  // 0: no entity

  explicit operator bool() const { return generation != 0; }
  friend bool operator==(Entity, Entity) = default;
};

}  // namespace vole
