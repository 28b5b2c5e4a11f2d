// A text that shows values: laid out again when one of them changes, and free while none does.
//
//   Label count("letters", "{}/{}");
//   count.of(gathered_, planted_);              // keeps looking at them
//   drawing.label(count, {24, 6});              // in a scene's draw()
//
// A value may be a number, a bool, a text, or anything with `std::string to_text(const T&)` and ==.
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "vole/asset/asset.hpp"
#include "vole/draw/text.hpp"

namespace vole {

namespace detail {

class ShownValue {
 public:
  virtual ~ShownValue() = default;
  // Whether the value differs from what was printed last.
  virtual bool changed() const = 0;
  virtual void print(std::string& out) = 0;
};

// As short as it can be for its type.
void print_number(std::string& out, std::int64_t number);
void print_number(std::string& out, std::uint64_t number);
void print_number(std::string& out, float number);
void print_number(std::string& out, double number);

template <class T>
using NumberOf = std::conditional_t<
    std::is_same_v<T, float>, float,
    std::conditional_t<std::is_floating_point_v<T>, double,
                       std::conditional_t<std::is_signed_v<T>, std::int64_t, std::uint64_t>>>;

template <class T>
class ShownValueOf final : public ShownValue {
 public:
  explicit ShownValueOf(const T& value) : value_(value), printed_(value) {}
  bool changed() const override { return !(value_ == printed_); }
  void print(std::string& out) override {
    printed_ = value_;
    if constexpr (std::is_same_v<T, bool>) {
      out += printed_ ? "yes" : "no";
    } else if constexpr (std::is_arithmetic_v<T>) {
      print_number(out, NumberOf<T>(printed_));
    } else if constexpr (std::is_convertible_v<T, std::string_view>) {
      out += std::string_view(printed_);
    } else {
      out += to_text(printed_);
    }
  }

 private:
  const T& value_;
  T printed_;
};

}  // namespace detail

class Label {
 public:
  // `pattern`: each {} stands for the next value; {{ and }} for braces.
  Label(std::string font, std::string pattern, const TextStyle& style = {});

  // Shows these values in place of those before; they must outlive the label.
  template <class... Values>
  Label& of(const Values&... values) {
    forget_values();
    (add_value(std::make_unique<detail::ShownValueOf<Values>>(values)), ...);
    return *this;
  }
  void set_pattern(std::string pattern);
  void set_style(const TextStyle& style);

  const std::string& font() const { return font_; }
  // The text as it stood when it was last drawn.
  const std::string& text() const { return text_; }
  // The text as the values are now.
  const std::string& text_now() const;

  // Laid out again only when a value, the style or the font has changed since it was last drawn. What it keeps
  // for that is not part of what the label is, so a const label can be drawn.
  void draw(DrawList& list, LayerId layer, const Asset<Font>& font, Vec2 at) const;

 private:
  void forget_values();
  void add_value(std::unique_ptr<detail::ShownValue> value);
  bool has_changed() const;
  bool needs_layout(const Asset<Font>& font) const;
  void print() const;

  std::string font_;
  std::string pattern_;
  TextStyle style_;
  std::vector<std::unique_ptr<detail::ShownValue>> values_;

  mutable bool stale_ = true;
  mutable std::string text_;
  mutable std::shared_ptr<const Font> laid_out_in_;
  mutable std::vector<PictureItem> items_;
};

}  // namespace vole
