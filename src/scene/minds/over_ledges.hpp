// How a mind goes over ledges: to where a crossing begins, with a run where it needs one, and off.
#pragma once

#include <optional>

#include "thinking.hpp"

namespace vole {

// What a thing with a side_mover does to get to where its goal is; none where it need not leave its ledge, or knows no way.
std::optional<Intent> intent_over_ledges(Thinker& thinker, const MindPart& part, Vec2 goal);

}  // namespace vole
