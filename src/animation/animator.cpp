#include "vole/animation/animator.hpp"

namespace vole {

void Animator::play(const Clip& clip) {
  if (clip_ != &clip) restart(clip);
}

void Animator::restart(const Clip& clip) {
  clip_ = &clip;
  ticks_ = 0;
}

int Animator::frame(int ticks_per_second) const {
  return clip_ ? clip_->frame_at(ticks_, ticks_per_second) : 0;
}

bool Animator::over(int ticks_per_second) const {
  return clip_ && clip_->over_at(ticks_, ticks_per_second);
}

}  // namespace vole
