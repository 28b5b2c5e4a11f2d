#include "vole/draw/camera.hpp"

#include <algorithm>

#include "vole/draw/draw_list.hpp"

namespace vole {
namespace {

// In the middle of bounds that are smaller than the canvas.
float kept(float middle, float length, float start, float end) {
  if (end - start <= length) return (start + end) / 2;
  return std::clamp(middle, start + length / 2, end - length / 2);
}

float beyond_slack(float distance, float slack) {
  return distance > slack ? distance - slack : distance < -slack ? distance + slack : 0.0f;
}

}  // namespace

Vec2 Camera::kept_inside(Vec2 middle) const {
  if (bounds.empty()) return middle;
  return {kept(middle.x, static_cast<float>(canvas.x), bounds.left(), bounds.right()),
          kept(middle.y, static_cast<float>(canvas.y), bounds.top(), bounds.bottom())};
}

void Camera::jump_to(Vec2 middle) {
  middle_ = before_ = kept_inside(middle);
}

void Camera::follow(Vec2 target, float seconds) {
  before_ = middle_;
  const Vec2 away = target + offset - middle_;
  const Vec2 distance{beyond_slack(away.x, slack.x), beyond_slack(away.y, slack.y)};
  // Half of the distance each `smoothing` seconds; for one short tick the rational form is as good as the
  // power.
  const float share = smoothing > 0 ? seconds / (seconds + smoothing) : 1.0f;
  middle_ = kept_inside(middle_ + distance * share);
}

IVec2 Camera::corner(Vec2 parallax, float share, Vec2 origin) const {
  const Vec2 middle = before_ + (middle_ - before_) * share;
  const auto of_layer = [](float start, int length, float along_with, float moved) {
    const float corner = start - static_cast<float>(length) / 2;
    return to_pixel(along_with == 1 ? corner : (corner + moved) * along_with);
  };
  return {of_layer(middle.x, canvas.x, parallax.x, origin.x),
          of_layer(middle.y, canvas.y, parallax.y, origin.y)};
}

}  // namespace vole
