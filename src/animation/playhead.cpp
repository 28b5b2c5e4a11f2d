#include "vole/animation/playhead.hpp"

#include <algorithm>

#include "vole/asset/clip.hpp"
#include "vole/base/within.hpp"

namespace vole {

void Playhead::tick() {
  tick(60, [](const ClipEvent&) {});
}

void Playhead::tick(int ticks_per_second, const std::function<void(const ClipEvent& event)>& tell) {
  if (!clip_ || paused_) return;
  ++ticks_;
  const std::int64_t before = began_ ? progress_ : -1;
  began_ = true;
  progress_ += clip_->units_per_second() * speed_;
  if (progress_ > most_progress) forget_passes(ticks_per_second);
  if (clip_->events.empty() || progress_ == before) return;
  const std::int64_t scale = normal_speed * ticks_per_second;
  const std::int64_t pass_length = clip_->length() * scale;
  const std::int64_t last_pass = clip_->loop ? progress_ / pass_length : clip_->times - 1;
  std::int64_t pass = before < 0 ? 0 : before / pass_length;
  // One pass back, so that an event at the very end of a pass is not missed.
  for (pass = pass > 0 ? pass - 1 : 0; pass <= last_pass && pass * pass_length <= progress_; ++pass)
    for (const ClipEvent& event : clip_->events) {
      const bool final_end = clip_->loop || pass == last_pass;
      if (event.position == ClipEvent::at_end && !final_end) continue;
      const std::int64_t when = pass * pass_length + clip_->start_of(event.position) * scale;
      if (when > before && when <= progress_) tell(event);
    }
}

void Playhead::play(const Clip& clip) {
  if (clip_ != &clip) restart(clip);
}

void Playhead::restart(const Clip& clip) {
  clip_ = &clip;
  ticks_ = progress_ = 0;
  began_ = false;
  ++starts_;
}

void Playhead::stop() {
  clip_ = nullptr;
  ++starts_;
}

void Playhead::forget_passes(int ticks_per_second) {
  const std::int64_t pass_length = clip_->length() * normal_speed * ticks_per_second;
  if (clip_->loop)
    progress_ %= pass_length;
  else
    progress_ = most_progress;
}

void Playhead::go_to(int position, int ticks_per_second) {
  if (!clip_) return;
  const int last = static_cast<int>(clip_->frames.size()) - 1;
  progress_ = clip_->start_of(std::clamp(position, 0, last)) * normal_speed * ticks_per_second;
  began_ = true;
}

void Playhead::set_speed(float factor) {
  const float usable = brought_within(factor, 0, 100);
  speed_ = static_cast<std::int32_t>(usable * static_cast<float>(normal_speed) + 0.5f);
}

int Playhead::position(int ticks_per_second) const {
  return clip_ ? clip_->position_at(progress_ / (normal_speed * ticks_per_second)) : 0;
}

int Playhead::frame(int ticks_per_second) const {
  return clip_ ? clip_->frames[static_cast<std::size_t>(position(ticks_per_second))] : 0;
}

bool Playhead::finished(int ticks_per_second) const {
  return clip_ && clip_->over_after(progress_ / (normal_speed * ticks_per_second));
}

}  // namespace vole
