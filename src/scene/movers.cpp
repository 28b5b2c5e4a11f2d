#include "vole/scene/movers.hpp"

#include "vole/scene/fly_motion.hpp"
#include "vole/scene/grid_motion.hpp"
#include "vole/scene/side_motion.hpp"
#include "vole/scene/top_motion.hpp"

namespace vole {

Movers::Movers() {
  add(move_sideways);
  add(move_from_above);
  add(move_on_grid);
  add(move_flying);
}

}  // namespace vole
