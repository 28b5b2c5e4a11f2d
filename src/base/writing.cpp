#include "vole/base/writing.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace vole::detail {

void write_key(std::string& out, std::string_view key) {
  const auto plain = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
  };
  if (!key.empty() && std::all_of(key.begin(), key.end(), plain))
    out += key;
  else
    write_scalar(out, key);
}

void write_scalar(std::string& out, bool value) {
  out += value ? "true" : "false";
}

void write_scalar(std::string& out, std::int64_t value) {
  out += fmt::format("{}", value);
}

void write_scalar(std::string& out, double value) {
  const std::string text = fmt::format("{}", value);
  out += text;
  if (text.find_first_of(".en") == std::string::npos) out += ".0";
}

void write_scalar(std::string& out, float value) {
  const std::string text = fmt::format("{}", value);
  out += text;
  if (text.find_first_of(".en") == std::string::npos) out += ".0";
}

void write_scalar(std::string& out, std::string_view value) {
  out += '"';
  for (const char c : value) {
    if (c == '"' || c == '\\')
      out += std::string{'\\', c};
    else if (static_cast<unsigned char>(c) < 0x20 || c == 0x7f)
      out += fmt::format("\\u{:04x}", static_cast<unsigned char>(c));
    else
      out += c;
  }
  out += '"';
}

void write_bits(std::string& out, std::uint64_t bits) {
  out += fmt::format("\"{:016x}\"", bits);
}

}  // namespace vole::detail
