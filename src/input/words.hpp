// Lines of a recording, word by word.
#pragma once

#include <algorithm>
#include <charconv>
#include <optional>
#include <string_view>

namespace vole {

// What a line tells beside actions and axes.
inline constexpr std::string_view pads_word = "*pads", pointer_word = "*pointer", wheel_word = "*wheel",
                                  asked_word = "*asked";
inline constexpr std::string_view outside_word = "out";

template <class Number>
std::optional<Number> parse_number(std::string_view text) {
  Number number = 0;
  const auto parsed = std::from_chars(text.data(), text.data() + text.size(), number);
  if (parsed.ec != std::errc{} || parsed.ptr != text.data() + text.size()) return std::nullopt;
  return number;
}

inline std::string_view take_word(std::string_view& text) {
  const std::size_t end = std::min(text.find(' '), text.size());
  const std::string_view word = text.substr(0, end);
  text.remove_prefix(std::min(end + 1, text.size()));
  return word;
}

}  // namespace vole
