// How an endless level goes on in front of the camera, and leaves behind it.
#pragma once

#include "vole/scene/stage.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Whether all is built in this tick, or as much as a tick has time for.
enum class Haste : std::uint8_t { at_once, spread };

class EndlessGoing {
 public:
  EndlessGoing(const StageSetting& setting, World& world)
      : setting_(setting), world_(world), level_(world.level) {}

  // All of a piece, at once.
  void finish(std::uint32_t number);
  // Takes it away, with all that came with it.
  void remove(std::uint32_t number);
  // What is left behind goes, and what comes next is built, as the camera stands.
  void go_along(Haste haste);

 private:
  // Along the way that the level goes on, counted in that direction. In pixels.
  struct Stretch {
    float start = 0, end = 0;
  };
  // What is left to do in this tick.
  struct Time {
    int cells = 0, things = 0;
  };

  Stretch stretch(const Rect& area) const;
  Stretch stretch(const IRect& cells) const;
  void find_view();
  void leave_behind();
  void remove_left_behind();
  void go_on(Haste haste);
  PutPiece* unfinished();
  int lines_in(int cells, const PutPiece& piece) const;
  bool build(PutPiece& piece, Time& time);

  const StageSetting& setting_;
  World& world_;
  LevelNow& level_;
  Stretch view_;                  // what the camera shows
  float ahead_ = 0, behind_ = 0;  // how far the level has to reach, and where it may end
};

}  // namespace vole
