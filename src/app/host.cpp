#include "vole/app/host.hpp"

#include <algorithm>

namespace vole {

IRect place_canvas(IVec2 canvas, IVec2 window, CanvasScaling scaling) {
  const IVec2 its{std::max(canvas.x, 1), std::max(canvas.y, 1)};
  IVec2 size = its * std::max(1, std::min(window.x / its.x, window.y / its.y));
  if (scaling != CanvasScaling::whole) {
    // Of the two sides, the one that is full first, or last.
    const std::int64_t wide = std::int64_t{window.x} * its.y, high = std::int64_t{window.y} * its.x;
    const bool by_width = scaling == CanvasScaling::fit ? wide < high : wide > high;
    const auto other = [](int length, int of, int side) {
      return static_cast<int>((std::int64_t{length} * side + of / 2) / of);
    };
    size = by_width ? IVec2{window.x, other(window.x, its.x, its.y)}
                    : IVec2{other(window.y, its.y, its.x), window.y};
    size = {std::max(size.x, 1), std::max(size.y, 1)};
  }
  return {{(window.x - size.x) / 2, (window.y - size.y) / 2}, size};
}

Vec2 canvas_point(Vec2 in_window, IVec2 canvas, IVec2 window, CanvasScaling scaling) {
  const IRect placed = place_canvas(canvas, window, scaling);
  return (in_window - Vec2(placed.at)) * Vec2(canvas) / Vec2(placed.size);
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
