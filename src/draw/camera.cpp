#include "vole/draw/camera.hpp"

#include <algorithm>
#include <cmath>

#include "vole/draw/draw_list.hpp"

namespace vole {
namespace {

// No side of a view is longer.
constexpr float longest_view = 4096;

// In the middle of bounds that are smaller than what is seen.
float kept(float middle, float length, float start, float end) {
  if (end - start <= length) return (start + end) / 2;
  return std::clamp(middle, start + length / 2, end - length / 2);
}

float beyond_slack(float distance, float slack) {
  return distance > slack ? distance - slack : distance < -slack ? distance + slack : 0.0f;
}

// Where a view of some pixels begins beside the pixel in its middle, which stays the middle of the canvas whatever the zoom.
struct Start {
  int pixels = 0;
  float skipped = 0;
};
Start start_of(int canvas, float zoom) {
  if (zoom == 1) return {-(canvas / 2), 0};
  const float at = -static_cast<float>(canvas) / (2 * zoom);
  return {static_cast<int>(std::floor(at)), at - std::floor(at)};
}

}  // namespace

float Camera::usable_zoom(float wanted) const {
  const auto longest = static_cast<float>(std::max(canvas.x, canvas.y));
  const float least = std::clamp(longest / longest_view, least_zoom, most_zoom);
  return std::isfinite(wanted) ? std::clamp(wanted, least, most_zoom) : 1.0f;
}

Vec2 Camera::kept_inside(Vec2 middle) const {
  if (bounds.empty()) return middle;
  const Vec2 shown = Vec2(canvas) / usable_zoom(zoom);
  return {kept(middle.x, shown.x, bounds.left(), bounds.right()),
          kept(middle.y, shown.y, bounds.top(), bounds.bottom())};
}

void Camera::jump_to(Vec2 middle) {
  middle_ = before_ = kept_inside(middle);
  zoom_now_ = zoom_before_ = zoom;
}

void Camera::remember() {
  before_ = middle_;
  zoom_before_ = zoom_now_;
  zoom_now_ = zoom;
}

void Camera::follow(Vec2 target, float seconds) {
  remember();
  const Vec2 away = target + offset - middle_;
  const Vec2 distance{beyond_slack(away.x, slack.x), beyond_slack(away.y, slack.y)};
  // Half of the distance each `smoothing` seconds; for one short tick the rational form is as good as the
  // power.
  const float share = smoothing > 0 ? seconds / (seconds + smoothing) : 1.0f;
  middle_ = kept_inside(middle_ + distance * share);
}

void Camera::stay() {
  remember();
  middle_ = kept_inside(middle_);
}

void Camera::zoom_about(Vec2 point, float wanted) {
  middle_ = point + (middle_ - point) * (usable_zoom(zoom) / usable_zoom(wanted));
  zoom = wanted;
}

float Camera::zoom_at(float share) const {
  return usable_zoom(zoom_before_ + (zoom_now_ - zoom_before_) * share);
}

Rect Camera::seen() const {
  const float now = zoom_at(1);
  const Vec2 start(corner({1, 1}, 1));
  return {start, Vec2(canvas) / now};
}

View Camera::view(float share, const IRect& part) const {
  View view;
  view.part = part;
  view.zoom = zoom_at(share);
  const Start across = start_of(canvas.x, view.zoom), down = start_of(canvas.y, view.zoom);
  view.skipped = {across.skipped, down.skipped};
  const auto pixels = [&view](int length, float skipped) {
    return static_cast<int>(
        std::min(std::ceil(static_cast<float>(length) / view.zoom + skipped), longest_view));
  };
  view.size = {pixels(canvas.x, across.skipped), pixels(canvas.y, down.skipped)};
  return view;
}

IVec2 Camera::corner(Vec2 parallax, float share, Vec2 origin) const {
  const Vec2 middle = before_ + (middle_ - before_) * share;
  const float zoom_shown = zoom_at(share);
  // A layer of another parallax shows what it would without zoom in the middle of the canvas.
  const auto of_layer = [zoom_shown](float at, int length, float along_with, float moved) {
    const float half = static_cast<float>(length) / 2;
    return to_pixel(along_with == 1 ? at : (at - half + moved) * along_with + half) +
           start_of(length, zoom_shown).pixels;
  };
  return {of_layer(middle.x, canvas.x, parallax.x, origin.x),
          of_layer(middle.y, canvas.y, parallax.y, origin.y)};
}

}  // namespace vole
