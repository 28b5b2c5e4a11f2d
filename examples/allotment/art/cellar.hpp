// The root cellar: tiles with walls for each of the 47 cases of their edges, what stands before them, and water; its gate and
// the lever that raises it.
#pragma once

#include "vole/asset/image.hpp"

vole::Image paint_cellar();
// Three frames of 16 x 32: shut, half up, up.
vole::Image paint_gate();
// Two frames of 16 x 16: as it was, and pulled.
vole::Image paint_lever();
