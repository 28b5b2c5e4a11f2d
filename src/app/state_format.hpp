#pragma once

namespace vole {

// Of states as TOML, also of the scenes in a save.
constexpr int state_format = 2;

}  // namespace vole
