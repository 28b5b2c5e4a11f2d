// The root cellar's tiles: walls for each of the 47 cases of their edges, what stands before them, and water.
#pragma once

#include "vole/asset/image.hpp"

vole::Image paint_cellar();
