#include "vole/base/writing.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace vole {
namespace {

template <class Number>
std::string number_text(Number value) {
  std::string text = fmt::format("{}", value);
  if (text.find_first_of(".en") == std::string::npos) text += ".0";
  return text;
}

void append_quoted(std::string& out, std::string_view text) {
  out += '"';
  for (const char c : text) {
    if (c == '"' || c == '\\') {
      out += '\\';
      out += c;
    } else if (static_cast<unsigned char>(c) < 0x20 || c == 0x7f) {
      out += fmt::format("\\u{:04x}", static_cast<unsigned char>(c));
    } else {
      out += c;
    }
  }
  out += '"';
}

bool is_plain_key(std::string_view key) {
  const auto plain = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
  };
  return !key.empty() && std::all_of(key.begin(), key.end(), plain);
}

}  // namespace

std::string toml_number(double number) {
  return number_text(number);
}
std::string toml_number(float number) {
  return number_text(number);
}

std::string in_quotes(std::string_view text) {
  std::string out;
  append_quoted(out, text);
  return out;
}

std::string toml_key(std::string_view key) {
  return is_plain_key(key) ? std::string(key) : in_quotes(key);
}

void TomlText::add_key(std::string_view key) {
  if (is_plain_key(key))
    text_ += key;
  else
    append_quoted(text_, key);
}
void TomlText::add(bool value) {
  text_ += value ? "true" : "false";
}
void TomlText::add(std::int64_t value) {
  const fmt::format_int digits(value);
  text_.append(digits.data(), digits.size());
}
void TomlText::add(double value) {
  text_ += toml_number(value);
}
void TomlText::add(float value) {
  text_ += toml_number(value);
}
void TomlText::add(std::string_view text) {
  append_quoted(text_, text);
}
void TomlText::add_bits(std::uint64_t bits) {
  text_ += fmt::format("\"{:016x}\"", bits);
}

}  // namespace vole
