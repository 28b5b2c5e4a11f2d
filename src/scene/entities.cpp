#include "vole/scene/entities.hpp"

#include <atomic>
#include <stdexcept>

namespace vole {

std::size_t detail::next_component_type() {
  static std::atomic<std::size_t> next{0};
  return next++;
}

Entity Entities::create() {
  std::uint32_t index = 0;
  if (free_.empty()) {
    index = static_cast<std::uint32_t>(generations_.size());
    generations_.push_back(0);
  } else {
    index = free_.back();
    free_.pop_back();
  }
  ++generations_[index];
  ++alive_;
  return {index, generations_[index]};
}

void Entities::destroy(Entity entity) {
  if (!alive(entity)) return;
  for (const auto& pool : pools_)
    if (pool) pool->remove(entity.index);
  ++generations_[entity.index];
  free_.push_back(entity.index);
  --alive_;
}

bool Entities::alive(Entity entity) const {
  return entity && entity.index < generations_.size() && generations_[entity.index] == entity.generation;
}

std::uint32_t Entities::checked(Entity entity) const {
  if (!alive(entity)) throw std::out_of_range("a component for an entity that is gone");
  return entity.index;
}

void Entities::missing_component() {
  throw std::out_of_range("the entity has no component of this type, or is gone");
}

}  // namespace vole
