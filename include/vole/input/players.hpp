// How many may play at one machine.
#pragma once

namespace vole {

inline constexpr int most_players = 4;

}  // namespace vole
