#include "vole/app/host.hpp"

#include <algorithm>

namespace vole {

IRect place_canvas(IVec2 canvas, IVec2 window) {
  const int scale = std::max(1, std::min(window.x / std::max(canvas.x, 1), window.y / std::max(canvas.y, 1)));
  const IVec2 size{canvas.x * scale, canvas.y * scale};
  return {{(window.x - size.x) / 2, (window.y - size.y) / 2}, size};
}

Vec2 canvas_point(Vec2 in_window, IVec2 canvas, IVec2 window) {
  const IRect placed = place_canvas(canvas, window);
  return (in_window - Vec2(placed.at)) * Vec2(canvas) /
         Vec2(std::max(placed.size.x, 1), std::max(placed.size.y, 1));
}

HeadlessHost::HeadlessHost(int ticks_per_second) : rate_(std::max(ticks_per_second, 1)) {}

int HeadlessHost::run(std::unique_ptr<HostedRun> run) {
  while (run->step()) {
  }
  return run->finish();
}

std::int64_t HeadlessHost::elapsed() {
  // Rounded up, so that a tick is due at each step and the error never adds up.
  const auto time_at = [this](std::int64_t step) { return (step * 1'000'000'000 + rate_ - 1) / rate_; };
  ++steps_;
  return time_at(steps_) - time_at(steps_ - 1);
}

}  // namespace vole
