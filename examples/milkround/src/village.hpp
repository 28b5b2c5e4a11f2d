// The village that all scenes are set in.
#pragma once

#include <vole/vole.hpp>

namespace milk {

// What a doorstep shows.
enum class Step { bare, waits, full };
constexpr auto enum_names(Step) {
  return std::array<std::string_view, 3>{"bare", "waits", "full"};
}

struct Doorstep {
  bool waits = false;
};
template <class V>
void describe(V& v, Doorstep& step) {
  v.state("waits", step.waits);
}

// Loads it below the board, and brings so many dogs to life.
void enter_village(vole::Stage& stage, int dogs);
// Has a doorstep show what it is.
void show_step(vole::Stage& stage, vole::Entity step, Step shows);
// It is getting light: 1 is dawn, and 0 day. By day the windows are dark.
void brighten(vole::Stage& stage, float dark);
// The board at the top of the canvas.
void draw_board(vole::Drawing& drawing);

}  // namespace milk
