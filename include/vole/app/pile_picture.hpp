// The picture of a run: its scenes as they lie over one another, and what a transition makes of the one before and the one after.
#pragma once

#include "vole/app/simulation.hpp"
#include "vole/draw/raster.hpp"

namespace vole {

class PilePicture {
 public:
  // Draws into the canvas: all of it.
  void draw(Simulation& simulation, const Game& game, Catalog& catalog, float share, XrayParts xray, Image& canvas);

 private:
  void draw_side(ScenePile& pile, ScenePile::Side side, float share, XrayParts xray, Image& into);

  DrawList list_;
  Raster raster_;
  // While a transition lasts.
  Image before_, after_;
};

}  // namespace vole
