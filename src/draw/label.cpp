#include "vole/draw/label.hpp"

#include <fmt/core.h>

#include <algorithm>

namespace vole {
namespace detail {

void print_number(std::string& out, std::int64_t number) {
  out += fmt::format("{}", number);
}
void print_number(std::string& out, std::uint64_t number) {
  out += fmt::format("{}", number);
}
void print_number(std::string& out, float number) {
  out += fmt::format("{}", number);
}
void print_number(std::string& out, double number) {
  out += fmt::format("{}", number);
}

}  // namespace detail

Label::Label(std::string font, std::string pattern, const TextStyle& style)
    : font_(std::move(font)), pattern_(std::move(pattern)), style_(style) {}

void Label::set_pattern(std::string pattern) {
  pattern_ = std::move(pattern);
  stale_ = true;
}

void Label::set_style(const TextStyle& style) {
  style_ = style;
  stale_ = true;
}

void Label::forget_values() {
  values_.clear();
  stale_ = true;
}

void Label::add_value(std::unique_ptr<detail::ShownValue> value) {
  values_.push_back(std::move(value));
}

bool Label::needs_layout(const Asset<Font>& font) const {
  return stale_ || laid_out_in_.get() != &*font || has_changed();
}

bool Label::has_changed() const {
  return std::any_of(values_.begin(), values_.end(), [](const auto& value) { return value->changed(); });
}

const std::string& Label::text_now() const {
  if (stale_ || has_changed()) {
    print();
    stale_ = true;  // it is not laid out yet
  }
  return text_;
}

void Label::print() const {
  text_.clear();
  std::size_t next = 0;
  for (std::size_t i = 0; i < pattern_.size(); ++i) {
    const char c = pattern_[i];
    const char after = i + 1 < pattern_.size() ? pattern_[i + 1] : '\0';
    if (c == '{' && after == '}') {
      if (next < values_.size()) values_[next++]->print(text_);
      ++i;
    } else {
      if ((c == '{' || c == '}') && after == c) ++i;
      text_ += c;
    }
  }
  // Values that the pattern does not show must not look changed for ever.
  for (std::string unseen; next < values_.size(); ++next) values_[next]->print(unseen);
}

void Label::draw(DrawList& list, LayerId layer, const Asset<Font>& font, Vec2 at) const {
  if (needs_layout(font)) {
    print();
    laid_out_in_ = font.shared();
    lay_out_text(*laid_out_in_, text_, style_, items_);
    stale_ = false;
  }
  const Vec2 start{static_cast<float>(to_pixel(at.x)), static_cast<float>(to_pixel(at.y))};
  for (PictureItem item : items_) {
    item.at += start;
    list.add(layer, item);
  }
}

}  // namespace vole
