#pragma once

#include <vole/vole.hpp>

vole::Game towpath();
