// Plays one clip of a sheet, in ticks.
//
//   animator.play(sheet.clip("run"));    // each tick: playing the clip that plays already does not restart
//   it animator.tick(); int frame = animator.frame(60);
#pragma once

#include "vole/asset/sheet.hpp"

namespace vole {

class Animator {
 public:
  // Starts the clip from its first frame unless it plays already. The clip must outlive the animator or its
  // next play.
  void play(const Clip& clip);
  // Starts the clip from its first frame in any case.
  void restart(const Clip& clip);
  void tick() { ++ticks_; }
  // Plays this version of the clip from where the old one was; for a sheet that was loaded anew.
  void replace(const Clip* clip) { clip_ = clip; }

  const Clip* clip() const { return clip_; }
  // The frame of the sheet to show; 0 while no clip plays.
  int frame(int ticks_per_second) const;
  // Whether a clip that does not loop has come to its end.
  bool over(int ticks_per_second) const;
  std::int64_t ticks() const { return ticks_; }

 private:
  const Clip* clip_ = nullptr;
  std::int64_t ticks_ = 0;
};

}  // namespace vole
