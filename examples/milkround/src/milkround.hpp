// The game, for its window and for tests.
#pragma once

#include <vole/vole.hpp>

vole::Game milkround();
