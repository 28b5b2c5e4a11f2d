#include "vole/scene/shown.hpp"

#include <fmt/core.h>

#include <cmath>

#include "vole/asset/track.hpp"
#include "vole/base/within.hpp"
#include "vole/scene/pictures/drawing.hpp"
#include "vole/scene/watched.hpp"

namespace vole {
namespace {

// A part that plays a track when what it follows has changed.
class WatchedPart final : public Watched {
 public:
  explicit WatchedPart(const ShownPart& part) : part_(part) {}

  void begin(const Stage&, WatchedState& state) override {
    last_.clear();
    part_.print(last_);
    state = {last_, {}, -1};
  }
  bool go_on(const WatchedState& state) override {
    last_ = state.value;
    return true;
  }
  bool tell(Stage& stage, WatchedState& state) override {
    now_.clear();
    part_.print(now_);
    if (now_ == last_) return false;
    last_.swap(now_);
    state.value = last_;
    state.changed = stage.ticks();
    return true;
  }

 private:
  const ShownPart& part_;
  std::string last_, now_;
};

void draw_frame(Drawing& drawing, const std::string& sheet, const ShownFrame& frame, Vec2 at) {
  if (!frame.name.empty())
    drawing.frame(sheet, frame.name, at);
  else if (frame.number >= 0)
    drawing.frame(sheet, frame.number, at);
}

}  // namespace

ShownPart& ShownPart::from(Anchor spot) {
  spot_ = spot;
  return *this;
}
ShownPart& ShownPart::when(const bool& is_shown) {
  is_shown_ = &is_shown;
  return *this;
}
ShownPart& ShownPart::plays(const Track& track) {
  track_ = &track;
  return *this;
}

void ShownPart::draw(Drawing& drawing, std::int64_t changed) const {
  if (is_shown_ && !*is_shown_) return;
  Vec2 origin(spot_in(spot_, drawing.canvas()));
  const int rate = drawing.stage().ticks_per_second();
  if (track_ && changed >= 0 && (track_->loop || !track_->over_at(changed, rate)))
    origin += track_->at(changed, rate).offset;
  draw_at(drawing, origin);
}

void ShownText::print(std::string& out) const {
  out += label_.text_now();
}
void ShownText::draw_at(Drawing& drawing, Vec2 origin) const {
  drawing.label(label_, origin + at_);
}

float ShownBar::share() const {
  const float share = share_ ? share_() : 1;
  return std::isnan(share) ? 0 : brought_within(share, 0, 1);
}
void ShownBar::print(std::string& out) const {
  detail::print_number(out, share());
}
void ShownBar::draw_at(Drawing& drawing, Vec2 origin) const {
  const float now = share(), rim = static_cast<float>(style_.rim);
  Rect inner = box_.moved_by(origin);
  drawing.list().fill(drawing.layer(), inner, style_.back);
  inner = {inner.at + Vec2{rim, rim}, inner.size - Vec2{2 * rim, 2 * rim}};
  const Vec2 way = unit_of(style_.grows);
  const Vec2 full = inner.size;
  if (way.x != 0) inner.size.x *= now;
  if (way.y != 0) inner.size.y *= now;
  if (way.x < 0 || way.y < 0) inner.at += full - inner.size;
  drawing.list().fill(drawing.layer(), inner, now <= style_.low_at ? style_.low : style_.full);
}

void ShownRow::print(std::string& out) const {
  detail::print_number(out, static_cast<std::int64_t>(value_ ? value_() : count_));
}
void ShownRow::draw_at(Drawing& drawing, Vec2 origin) const {
  const int there = value_ ? value_() : count_;
  for (int i = 0; i < count_; ++i)
    draw_frame(drawing, sheet_, i < there ? there_ : missing_, origin + at_ + step_ * static_cast<float>(i));
}

void ShownBox::draw_at(Drawing& drawing, Vec2 origin) const {
  drawing.box(sheet_, box_.moved_by(origin), style_);
}
void ShownPicture::draw_at(Drawing& drawing, Vec2 origin) const {
  draw_frame(drawing, sheet_, frame_, origin + at_);
}

Shown::Shown(const Values* values) : values_(values) {}
Shown::~Shown() = default;
Shown::Shown(Shown&&) noexcept = default;
Shown& Shown::operator=(Shown&&) noexcept = default;

template <class Part>
Part& Shown::add(std::unique_ptr<Part> part) {
  Part& added = *part;
  parts_.push_back(std::move(part));
  return added;
}

ShownText& Shown::text(std::string_view font, std::string_view pattern, Vec2 at, const TextStyle& style) {
  return add(std::make_unique<ShownText>(std::string(font), std::string(pattern), at, style));
}
ShownBar& Shown::bar(const Rect& box, const BarStyle& style) {
  return add(std::make_unique<ShownBar>(box, style));
}
ShownRow& Shown::row(std::string_view sheet, ShownFrame there, ShownFrame missing, int count, Vec2 at,
                     Vec2 step) {
  return add(
      std::make_unique<ShownRow>(std::string(sheet), std::move(there), std::move(missing), count, at, step));
}
ShownPart& Shown::box(std::string_view sheet, const Rect& box, const BoxStyle& style) {
  return add(std::make_unique<ShownBox>(std::string(sheet), box, style));
}
ShownPart& Shown::frame(std::string_view sheet, ShownFrame frame, Vec2 at) {
  return add(std::make_unique<ShownPicture>(std::string(sheet), std::move(frame), at));
}

void Shown::watch() {
  for (const std::unique_ptr<ShownPart>& part : parts_)
    if (part->track()) watched_.push_back(std::make_unique<WatchedPart>(*part));
}

}  // namespace vole
