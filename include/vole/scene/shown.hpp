// What a scene shows over its level by itself: texts, bars and pictures that follow values. Said once, as cues are; drawn before what the
// scene draws in draw().
//
//   void shows(vole::Shown& shown) override {
//     shown.box("sign", {{4, 4}, {64, 20}});
//     shown.text("letters", "{}/{}", {26, 9}).of(gathered_, planted_).plays(hop);
//     shown.bar({{200, 6}, {110, 7}}, {.full = gold, .low = rust, .low_at = 0.25f}).of(seconds_left_, seconds_);
//     shown.row("bottle", "full", "broken", 3, {150, 5}, {9, 0}).of(bottles_);
//   }
//
// Values are members of the scene, or fields of a value of the game (value<Purse>().coins); they must outlive the scene.
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "vole/base/anchor.hpp"
#include "vole/base/colour.hpp"
#include "vole/base/direction.hpp"
#include "vole/base/rect.hpp"
#include "vole/draw/box.hpp"
#include "vole/draw/label.hpp"
#include "vole/scene/values.hpp"

namespace vole {

class Drawing;
class Watched;
struct Track;

// A frame of a sheet, by its name or its number; without either: nothing.
struct ShownFrame {
  ShownFrame() = default;
  ShownFrame(int its_number) : number(its_number) {}         // NOLINT
  ShownFrame(const char* its_name) : name(its_name) {}       // NOLINT
  ShownFrame(std::string_view its_name) : name(its_name) {}  // NOLINT

  std::string name;
  int number = -1;
};

class ShownPart {
 public:
  virtual ~ShownPart() = default;

  // Its position counts from this spot of the canvas; else from the top left.
  ShownPart& from(Anchor spot);
  // Only while this is true.
  ShownPart& when(const bool& is_shown);
  // Plays the track's offset whenever what it follows has changed; the track must outlive the scene.
  ShownPart& plays(const Track& track);

  // For the scene that is drawn. `changed`: ticks since the last change.
  void draw(Drawing& drawing, std::int64_t changed) const;
  const Track* track() const { return track_; }
  // What it follows, as text.
  virtual void print(std::string& out) const = 0;

 protected:
  virtual void draw_at(Drawing& drawing, Vec2 origin) const = 0;

 private:
  Anchor spot_ = Anchor::top_left;
  const bool* is_shown_ = nullptr;
  const Track* track_ = nullptr;
};

class ShownText final : public ShownPart {
 public:
  ShownText(std::string font, std::string pattern, Vec2 at, const TextStyle& style)
      : label_(std::move(font), std::move(pattern), style), at_(at) {}
  // As of a label (draw/label.hpp).
  template <class... Values>
  ShownText& of(const Values&... values) {
    label_.of(values...);
    return *this;
  }

 private:
  void print(std::string& out) const override;
  void draw_at(Drawing& drawing, Vec2 origin) const override;

  Label label_;
  Vec2 at_;
};

struct BarStyle {
  Colour full{0xed, 0xa6, 0x3f, 0xff};
  Colour low = full;  // from `low_at` down, a share of the most
  float low_at = 0;
  Colour back{0x1b, 0x1a, 0x26, 0xff};  // behind it, and its rim
  int rim = 1;                          // pixels
  Direction grows = Direction::right;   // one of four
};

class ShownBar final : public ShownPart {
 public:
  ShownBar(const Rect& box, const BarStyle& style) : box_(box), style_(style) {}
  // As long as the value's share of the most.
  template <class Value, class Most>
  ShownBar& of(const Value& value, const Most& most) {
    share_ = [&value, &most] { return static_cast<float>(value) / static_cast<float>(most); };
    return *this;
  }

 private:
  float share() const;
  void print(std::string& out) const override;
  void draw_at(Drawing& drawing, Vec2 origin) const override;

  Rect box_;
  BarStyle style_;
  std::function<float()> share_;
};

// So many pictures; the first of them, as many as the value says, are of one frame, and the others of another.
class ShownRow final : public ShownPart {
 public:
  ShownRow(std::string sheet, ShownFrame there, ShownFrame missing, int count, Vec2 at, Vec2 step)
      : sheet_(std::move(sheet)),
        there_(std::move(there)),
        missing_(std::move(missing)),
        count_(count),
        at_(at),
        step_(step) {}
  template <class Value>
  ShownRow& of(const Value& value) {
    value_ = [&value] { return static_cast<int>(value); };
    return *this;
  }

 private:
  void print(std::string& out) const override;
  void draw_at(Drawing& drawing, Vec2 origin) const override;

  std::string sheet_;
  ShownFrame there_, missing_;
  int count_;
  Vec2 at_, step_;
  std::function<int()> value_;
};

class ShownBox final : public ShownPart {
 public:
  ShownBox(std::string sheet, const Rect& box, const BoxStyle& style)
      : sheet_(std::move(sheet)), box_(box), style_(style) {}

 private:
  void print(std::string&) const override {}
  void draw_at(Drawing& drawing, Vec2 origin) const override;

  std::string sheet_;
  Rect box_;
  BoxStyle style_;
};

class ShownPicture final : public ShownPart {
 public:
  ShownPicture(std::string sheet, ShownFrame frame, Vec2 at)
      : sheet_(std::move(sheet)), frame_(std::move(frame)), at_(at) {}

 private:
  void print(std::string&) const override {}
  void draw_at(Drawing& drawing, Vec2 origin) const override;

  std::string sheet_;
  ShownFrame frame_;
  Vec2 at_;
};

class Shown {
 public:
  explicit Shown(const Values* values = nullptr);
  ~Shown();
  Shown(Shown&&) noexcept;
  Shown& operator=(Shown&&) noexcept;

  // What is said later lies over what was said before. Fonts and sheets that are not there are told when they are drawn.
  ShownText& text(std::string_view font, std::string_view pattern, Vec2 at, const TextStyle& style = {});
  ShownBar& bar(const Rect& box, const BarStyle& style = {});
  ShownRow& row(std::string_view sheet, ShownFrame there, ShownFrame missing, int count, Vec2 at, Vec2 step);
  ShownPart& box(std::string_view sheet, const Rect& box, const BoxStyle& style = {});
  ShownPart& frame(std::string_view sheet, ShownFrame frame, Vec2 at);

  // A value of the game: see values.hpp. Throws Error for one that it does not have.
  template <class T>
  const T& value() const {
    return expect_values(values_).template get<T>();
  }

  // For the scene that is run: those that play a track are watched.
  const std::vector<std::unique_ptr<ShownPart>>& parts() const { return parts_; }
  const std::vector<std::unique_ptr<Watched>>& watched() const { return watched_; }
  void watch();

 private:
  template <class Part>
  Part& add(std::unique_ptr<Part> part);

  const Values* values_;
  std::vector<std::unique_ptr<ShownPart>> parts_;
  std::vector<std::unique_ptr<Watched>> watched_;
};

}  // namespace vole
