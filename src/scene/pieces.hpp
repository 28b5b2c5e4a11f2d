// What the places of a level, and of the pieces in it, bring to life; and how an endless level goes on.
#pragma once

#include "vole/scene/stage.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Throw Error, for all at once, when a place of the level or of one of its pieces cannot be brought to life; and of one piece.
void expect_places(const StageSetting& setting, const LevelNow& level);
void expect_places(const StageSetting& setting, const LevelNow& level, const Level& piece);

// What the camera stays inside.
Rect bounds_of(const LevelNow& level);

// The cameras that may show all of the level, before it becomes larger or smaller: so they may afterwards. One that looks within a
// zone, or that code has set other bounds for, stays as it is.
class LevelCameras {
 public:
  explicit LevelCameras(World& world);
  void follow() const;

 private:
  World& world_;
  bool own_ = false;            // the scene's camera
  std::vector<Camera*> views_;  // of further views: nothing is allocated where there are none
};

// Brings a place to life.
Entity put_place(const StageSetting& setting, World& world, const FromPlace& from);

// Whether all is built in this tick, or as much as a tick has time for.
enum class Haste : std::uint8_t { at_once, spread };

class Pieces {
 public:
  Pieces(const StageSetting& setting, World& world) : setting_(setting), world_(world), level_(world.level) {}

  // All of a piece, at once.
  void finish(std::uint32_t number);
  // Takes it away, with all that came with it.
  void drop(std::uint32_t number);
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
