// A described struct as TOML, its state fields included: what reading.hpp reads back as the same.
//
//   std::string lines = to_toml(bulb);                  // a table's lines
//   read(parse_toml(lines, "bulb"), again, report, TableOf::state);
#pragma once

#include <cstdint>
#include <string>
#include <string_view>

#include "vole/base/described_type.hpp"

namespace vole {

// A text in quotes, as TOML and JSON have it; and a key, in quotes where it must be.
std::string in_quotes(std::string_view text);
std::string toml_key(std::string_view key);
// With a point where it is whole, so that it is read back as a number.
std::string toml_number(double number);
std::string toml_number(float number);

// TOML as it is written, value by value.
class TomlText {
 public:
  // Long lists have a line for each item, or all is on one line.
  enum class Layout : std::uint8_t { lines, one_line };
  explicit TomlText(Layout layout = Layout::lines) : layout_(layout) {}

  void add_key(std::string_view key);
  void add(bool value);
  void add(std::int64_t value);
  void add(double value);
  void add(float value);
  void add(std::string_view text);
  void add_bits(std::uint64_t bits);  // 16 hexadecimal digits in quotes
  // What stands between the values.
  void add_plain(std::string_view text) { text_ += text; }

  Layout layout() const { return layout_; }
  void use(Layout layout) { layout_ = layout; }
  const std::string& text() const { return text_; }

 private:
  std::string text_;
  Layout layout_;
};

// As the lines of a table.
template <Described T>
std::string to_toml(const T& value) {
  return described_type<T>().to_toml(&value);
}

// As a table on one line: "{ worth = 1 }".
template <Described T>
std::string to_inline_toml(const T& value) {
  return described_type<T>().to_inline_toml(&value);
}

}  // namespace vole
