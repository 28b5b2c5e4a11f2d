// Plays one clip of a sheet, in ticks. Exact: whole numbers only, so nothing drifts however long it plays.
//
//   playhead.play(sheet.clip("run"));    // each tick: playing the clip that plays already does not restart it
//   playhead.tick(60, [&](const ClipEvent& event) { ... });
//   int frame = playhead.frame(60);
#pragma once

#include <cstdint>
#include <functional>

#include "vole/base/describe.hpp"

namespace vole {

struct Clip;
struct ClipEvent;

class Playhead {
 public:
  // Starts the clip from its first frame unless it plays already. The clip must outlive the playhead or its
  // next play.
  void play(const Clip& clip);
  // Starts the clip from its first frame in any case.
  void restart(const Clip& clip);
  // No clip any more.
  void stop();
  void pause() { paused_ = true; }
  void resume() { paused_ = false; }
  bool paused() const { return paused_; }
  // Goes to the start of the frame at this position of the clip; events before it are passed over.
  void go_to(int position, int ticks_per_second);
  // How fast time passes for it: 1 as the clip says, 0 not at all, at most 100; in thousandths.
  void set_speed(float factor);
  float speed() const { return static_cast<float>(speed_) / 1000; }

  void tick();
  // Goes on by one tick and calls `tell` with each event that is passed, once, in order, however many frames or
  // passes that is. `tell` may change anything except this playhead: see Cues::when_event.
  void tick(int ticks_per_second, const std::function<void(const ClipEvent& event)>& tell);
  // Plays this version of the clip from where the old one was; for a sheet that was reloaded.
  void replace(const Clip* clip) { clip_ = clip; }

  // All but the clip, which whoever owns the playhead keeps by its name.
  template <class V>
  friend void describe(V& v, Playhead& playhead) {
    v.state("ticks", playhead.ticks_, within(0, most_ticks));
    v.state("progress", playhead.progress_, within(0, most_progress));
    v.state("speed", playhead.speed_, within(0, 100 * normal_speed));
    v.state("starts", playhead.starts_);
    v.state("paused", playhead.paused_);
    v.state("began", playhead.began_);
  }

  const Clip* clip() const { return clip_; }
  // The frame of the sheet to show; 0 while no clip plays.
  int frame(int ticks_per_second) const;
  // Its position among the clip's frames.
  int position(int ticks_per_second) const;
  // Whether a clip that does not loop has come to its end.
  bool finished(int ticks_per_second) const;
  // Ticks since the start, those paused not counted.
  std::int64_t ticks() const { return ticks_; }
  // Units of the clip, times ticks a second, times 1000: what decides the frame.
  std::int64_t progress() const { return progress_; }
  // Changes whenever a clip is started.
  std::uint32_t starts() const { return starts_; }

 private:
  static constexpr std::int64_t normal_speed = 1000;
  // Far from what 64 bits hold; weeks at the highest speed.
  static constexpr std::int64_t most_progress = std::int64_t{1} << 61;

  // Keeps the place within the pass, so that a clip may play for ever.
  void forget_passes(int ticks_per_second);

  const Clip* clip_ = nullptr;
  std::int64_t ticks_ = 0;
  std::int64_t progress_ = 0;
  std::int32_t speed_ = normal_speed;
  std::uint32_t starts_ = 0;
  bool paused_ = false;
  bool began_ = false;  // the events of the first frame have been reported
};

}  // namespace vole
