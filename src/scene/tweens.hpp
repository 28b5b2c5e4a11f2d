// Tweens that begin.
#pragma once

#include <vector>

#include "vole/world/tween.hpp"

namespace vole {

// Without legs, of a field by its index, in place of an older one of it. Returns its place in the list.
std::size_t add_tween(std::vector<Tween>& all, const ComponentTypes::Type& type, std::size_t field,
                      Entity thing);

}  // namespace vole
