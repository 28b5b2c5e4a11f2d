#include "vole/draw/camera.hpp"

#include <algorithm>
#include <cmath>

#include "vole/base/hash.hpp"
#include "vole/base/random.hpp"
#include "vole/base/within.hpp"
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

// The share of its way that something goes in a time in which it goes half of it again and again: 1 - 2^(-time / half). So it is the same
// way at any rate of ticks. Worked out by the four operations alone, which every machine does to the same bits.
float share_of_way(float time, float half) {
  if (!(half > 0)) return 1;
  double halves = static_cast<double>(time) / static_cast<double>(half), left = 1;
  if (!(halves < 64)) return 1;
  for (; halves >= 1; halves -= 1) left /= 2;
  // exp(-x) for the rest, x below 0.7: the thirteenth term is below 1e-11.
  const double x = halves * 0.69314718055994530942;
  double term = 1, sum = 1;
  for (int i = 1; i < 13; ++i) sum += term *= -x / i;
  return static_cast<float>(1 - left * sum);
}

float softly(float share) {
  return share * share * (3 - 2 * share);
}

// Where a view of some pixels begins beside the pixel in its middle, which stays the middle of the canvas whatever the zoom.
struct Start {
  int pixels = 0;
  float skipped = 0;
};
Start start_of(int canvas, float zoom) {
  if (zoom == 1) return {-(canvas / 2), 0};
  const float at = -static_cast<float>(canvas) / (2 * zoom);
  return {floor_to_int(at), at - std::floor(at)};
}

Vec2 on_pixels(Vec2 position) {
  return {static_cast<float>(to_pixel(position.x)), static_cast<float>(to_pixel(position.y))};
}

// How far what is shown may be from where the camera is before it moves to another pixel.
constexpr float hold = 0.75f;

}  // namespace

float Camera::usable_zoom(float wanted) const {
  const auto longest = static_cast<float>(std::max(canvas.x, canvas.y));
  const float least = std::clamp(longest / longest_view, least_zoom, most_zoom);
  return std::isfinite(wanted) ? std::clamp(wanted, least, most_zoom) : 1.0f;
}

Vec2 Camera::kept_inside(Vec2 middle) const {
  if (bounds.empty()) return middle;
  const Vec2 shown = Vec2(canvas) / zoom_now();
  return {kept(middle.x, shown.x, bounds.left(), bounds.right()),
          kept(middle.y, shown.y, bounds.top(), bounds.bottom())};
}

void Camera::jump_to(Vec2 wanted) {
  const Vec2 middle = brought_within_reach(wanted);
  zoom_now_ = zoom_before_ = zoom;
  middle_ = before_ = kept_inside(middle);
  shown_ = on_pixels(middle_);
  looks_ = {0, 0};
  move_ = {};
  goes_along_ = {};
}

void Camera::remember(float seconds) {
  before_ = middle_;
  zoom_before_ = zoom_now_;
  if (zoom_move_.left > 0) {
    zoom_move_.left = std::max(zoom_move_.left - seconds, 0.0f);
    const float share_left = zoom_move_.left / zoom_move_.seconds;
    zoom = share_left > 0 ? zoom_move_.to + (zoom_move_.from - zoom_move_.to) * share_left : zoom_move_.to;
  }
  go_on_shaking(seconds);
}

// The zoom in which a box of several things fits.
float Camera::fitting_zoom(Vec2 size) const {
  if (size == Vec2{0, 0}) return zoom;
  const Vec2 fits = Vec2(canvas) / (size + Vec2(2 * std::max(margin, 0.0f)));
  return std::min(std::max(std::min(fits.x, fits.y), farthest), zoom);
}

void Camera::follow(const CameraTarget& wanted, float passed) {
  const float seconds = brought_within_seconds(passed);
  CameraTarget target = wanted;
  for (Vec2* const part : {&target.at, &target.before, &target.velocity, &target.size})
    *part = brought_within_reach(*part);
  target.faces = brought_within(target.faces, -1, 1);
  remember(seconds);
  const float share = share_of_way(seconds, smoothing);
  const float fitting = fitting_zoom(target.size);
  zoom_now_ = target.size == Vec2{0, 0} ? fitting : zoom_now_ + (fitting - zoom_now_) * share;
  const Vec2 look = target.velocity * ahead + Vec2{target.faces * face_ahead, 0};
  looks_ += (look - looks_) * share_of_way(seconds, ahead_seconds);
  const Vec2 away = target.at + offset + looks_ - middle_;
  const Vec2 distance{beyond_slack(away.x, slack.x), beyond_slack(away.y, slack.y)};
  middle_ = along_move(kept_inside(middle_ + distance * share), seconds);
  if (target.size == Vec2{0, 0})
    go_along_with_pixels(target);
  else
    rest_on_pixels();
}

void Camera::stay(float passed) {
  const float seconds = brought_within_seconds(passed);
  remember(seconds);
  zoom_now_ = zoom;
  middle_ = along_move(kept_inside(middle_), seconds);
  rest_on_pixels();
}

// Between where it was when the move began and where it would be without.
Vec2 Camera::along_move(Vec2 middle, float seconds) {
  if (!(move_.left > 0)) return middle;
  move_.left = std::max(move_.left - seconds, 0.0f);
  return move_.from + (middle - move_.from) * softly(1 - move_.left / move_.seconds);
}

void Camera::rest_on_pixels() {
  goes_along_ = {};
  shown_ = on_pixels(middle_);
}

// While it moves it keeps its distance from the target in whole pixels, as long as that is about right; while it does not, what it
// shows stays.
void Camera::go_along_with_pixels(const CameraTarget& target) {
  target_ = target.at;
  target_before_ = target.before;
  const Vec2 now = on_pixels(target_), then = on_pixels(target_before_);
  const auto go = [](float middle, float before, float target_now, Vec2 pixels, float& from,
                     float& from_before, float& shown, bool& along) {
    const bool went_along = along;
    along = middle != before;
    if (!along) {
      if (std::abs(shown - middle) > 1) shown = static_cast<float>(to_pixel(middle));
      return;
    }
    // From what is shown now on, so that it does not jump by a pixel when it starts.
    from_before = went_along ? from : shown - pixels.x;
    from = from_before;
    if (std::abs(from - (middle - target_now)) > hold)
      from = static_cast<float>(to_pixel(middle - target_now));
    shown = pixels.y + from;
  };
  go(middle_.x, before_.x, target_.x, {then.x, now.x}, from_target_.x, from_before_.x, shown_.x,
     goes_along_.x);
  go(middle_.y, before_.y, target_.y, {then.y, now.y}, from_target_.y, from_before_.y, shown_.y,
     goes_along_.y);
}

void Camera::zoom_about(Vec2 about, float to) {
  const Vec2 point = brought_within_reach(about);
  const float wanted = brought_within(to, least_zoom, most_zoom);
  middle_ = point + (shown_ - point) * (usable_zoom(zoom_now_) / usable_zoom(wanted));
  zoom = zoom_now_ = zoom_before_ = wanted;
  before_ = middle_;
  shown_ = on_pixels(middle_);
  goes_along_ = {};
}

void Camera::zoom_over(float to, float within) {
  const float wanted = brought_within(to, least_zoom, most_zoom), seconds = brought_within_seconds(within);
  if (seconds == 0) {
    zoom = wanted;
    zoom_move_ = {};
    return;
  }
  zoom_move_ = {zoom, wanted, seconds, seconds};
}

void Camera::move_over(const Rect& to, float within) {
  const float seconds = brought_within_seconds(within);
  bounds = {brought_within_reach(to.at), brought_within_reach(to.size)};
  if (seconds > 0)
    move_ = {middle_, seconds, seconds};
  else
    jump_to(middle_);
}

void Camera::shake(float wanted, float within) {
  constexpr float most_pixels = 10'000;
  const float pixels = brought_within(wanted, 0, most_pixels), seconds = brought_within_seconds(within);
  if (pixels == 0 || seconds == 0) return;
  shake_.pixels = pixels;
  shake_.left = shake_.seconds = seconds;
}

void Camera::go_on_shaking(float seconds) {
  shake_.before = shake_.now;
  shake_.now = {0, 0};
  if (!(shake_.left > 0)) return;
  const float strength = shake_.pixels * shake_.left / shake_.seconds;
  shake_.left = std::max(shake_.left - seconds, 0.0f);
  Hash hash;
  hash.add(std::uint64_t{++shake_.times});
  Random chance(hash.value());
  const float x = chance.within(-1, 1), y = chance.within(-1, 1);
  shake_.now = Vec2{x, y} * strength;
}

float Camera::zoom_at(float share) const {
  return usable_zoom(zoom_before_ + (zoom_now_ - zoom_before_) * share);
}

Rect Camera::seen() const {
  return {Vec2(corner({1, 1}, 1)), Vec2(canvas) / zoom_now()};
}

Vec2 Camera::to_level(Vec2 on_canvas) const {
  return shown_ + (on_canvas - Vec2(at) - Vec2(canvas) * 0.5f) / zoom_now();
}

Vec2 Camera::to_canvas(Vec2 in_level) const {
  return (in_level - shown_) * zoom_now() + Vec2(canvas) * 0.5f + Vec2(at);
}

View Camera::view(float share) const {
  View view;
  const auto limited = [](IVec2 pixels) {
    constexpr int most = 32768;  // whatever code or a file has put there
    return IVec2{std::clamp(pixels.x, -most, most), std::clamp(pixels.y, -most, most)};
  };
  view.part = {limited(at), limited(canvas)};
  view.zoom = zoom_at(share);
  const Start across = start_of(canvas.x, view.zoom), down = start_of(canvas.y, view.zoom);
  view.skipped = {across.skipped, down.skipped};
  const auto pixels = [&view](int length, float skipped) {
    return ceil_to_int(std::clamp(static_cast<float>(length) / view.zoom + skipped, 0.0f, longest_view));
  };
  view.size = {pixels(canvas.x, across.skipped), pixels(canvas.y, down.skipped)};
  return view;
}

IVec2 Camera::corner(Vec2 parallax, float share, Vec2 origin) const {
  const Vec2 shaken = shake_.before + (shake_.now - shake_.before) * share;
  const Vec2 middle = before_ + (middle_ - before_) * share + shaken;
  const Vec2 target = target_before_ + (target_ - target_before_) * share;
  const float zoom_shown = zoom_at(share);
  // Of the level, in the middle of the canvas.
  const Vec2 along = on_pixels(target) + on_pixels(from_before_ + (from_target_ - from_before_) * share);
  Vec2 pixel{goes_along_.x ? along.x : shown_.x, goes_along_.y ? along.y : shown_.y};
  // Not a pixel beyond the bounds either; on its way to others it is outside of them.
  if (!(move_.left > 0)) pixel = kept_inside(pixel);
  // A layer of another parallax shows what it would without zoom in the middle of the canvas.
  const auto of_layer = [zoom_shown](float at_middle, float shown, float shaken_by, int length,
                                     float along_with, float moved) {
    const float half = static_cast<float>(length) / 2;
    const int in_middle = along_with == 1 ? to_pixel(shown) + to_pixel(shaken_by)
                                          : to_pixel((at_middle - half + moved) * along_with + half);
    return in_middle + start_of(length, zoom_shown).pixels;
  };
  return {of_layer(middle.x, pixel.x, shaken.x, canvas.x, parallax.x, origin.x),
          of_layer(middle.y, pixel.y, shaken.y, canvas.y, parallax.y, origin.y)};
}

}  // namespace vole
