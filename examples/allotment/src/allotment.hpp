// The game as the program and the tests start it.
#pragma once

#include <vole/vole.hpp>

vole::Game allotment();
