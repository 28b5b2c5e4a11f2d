#include "vole/scene/movers/movers.hpp"

#include "vole/scene/movers/fly_motion.hpp"
#include "vole/scene/movers/grid_motion.hpp"
#include "vole/scene/movers/side_motion.hpp"
#include "vole/scene/movers/top_motion.hpp"

namespace vole {

Movers::Movers() {
  add(move_sideways);
  add(move_from_above);
  add(move_on_grid);
  add(move_flying);
}

void Movers::visit(Entities& entities, const GiveTurn& give) const {
  for (const auto& each : all_) each(entities, give);
}

}  // namespace vole
