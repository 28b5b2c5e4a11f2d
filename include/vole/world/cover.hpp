// How a scene lies over those below it. Said by the scene that covers, as state that it may change at any time:
//
//   void enter(vole::Stage& stage) override { stage.cover() = {.darkens = 0.5f, .blurs = 2}; }
#pragma once

#include <string>
#include <vector>

#include "vole/base/describe.hpp"

namespace vole {

struct Cover {
  // The most pixels on each side that a blurred one is mixed with.
  static constexpr int most_blur = 32;

  bool below_goes_on = false;  // what lies below has its ticks; else it stands as it is
  std::vector<std::string> lets_through =
      {};                    // actions that the one below is told of too, while it has its ticks
  bool hides_below = false;  // nothing below needs to be drawn
  float darkens = 0;         // what is below: 0 as it is, to 1 black
  int blurs = 0;             // over so many pixels on each side; 0: as it is
};
template <class V>
void describe(V& v, Cover& cover) {
  v.state("below_goes_on", cover.below_goes_on);
  v.state("lets_through", cover.lets_through);
  v.state("hides_below", cover.hides_below);
  v.state("darkens", cover.darkens);
  v.state("blurs", cover.blurs);
}

}  // namespace vole
