// SDL, built from Debian's own source package, to be linked into programs for a system.
#pragma once

#include "other_system.hpp"

// Builds it into the system's folder where it is not there yet; the words that tell CMake where it is. Throws vole::Error.
std::vector<std::string> with_built_sdl(const OtherSystem& system);
