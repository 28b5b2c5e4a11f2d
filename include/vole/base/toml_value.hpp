// A parsed TOML document that remembers where each of its values stands.
//
//   TomlValue root = parse_toml(text, "kinds.toml");
//   if (const TomlValue* bulb = root.find("bulb")) ...
//
// Most code does not walk nodes but describes a struct and reads it: see describe.hpp.
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/error.hpp"

namespace vole {

class TomlValue {
 public:
  // Made and ended in one place, not anew in each source that uses it.
  TomlValue();
  TomlValue(const TomlValue&);
  TomlValue(TomlValue&&) noexcept;
  TomlValue& operator=(const TomlValue&);
  TomlValue& operator=(TomlValue&&) noexcept;
  ~TomlValue();

  enum class Type { table, array, text, whole, number, yes_no, date };

  struct Entry;

  Type type = Type::table;
  FilePosition where;

  std::string text;              // text, and a date as it was written
  std::int64_t whole = 0;        // whole
  double number = 0;             // number and whole
  bool yes = false;              // yes_no
  std::vector<TomlValue> items;  // array
  std::vector<Entry> entries;    // table, in the order of the file

  // The value under a key of a table; nullptr when there is none.
  const TomlValue* find(std::string_view key) const;
  TomlValue* find(std::string_view key);

  // Puts the values of `over` over this table's: tables are merged key by key, all else is replaced.
  void merge(const TomlValue& over);
};

struct TomlValue::Entry {
  std::string key;
  FilePosition where;  // of the key
  TomlValue value;
};

// "a table", "a text", "the number 3": what a message calls a value.
std::string to_text(const TomlValue& toml);

// The value as TOML on one line: what parse_toml reads back as the same.
std::string to_toml(const TomlValue& toml);

// Reads TOML 1.0. `file` is the name that messages give. Throws Error at the place of a syntax error.
// At most 32 lists and inline tables lie within each other, a key has at most 32 parts, and a text so many values.
inline constexpr int most_toml_values = 500'000;
TomlValue parse_toml(std::string_view text, std::string_view file, int most_values = most_toml_values);

// Reads a file and parses it. Throws Error, also for one of more bytes.
inline constexpr std::size_t most_toml_bytes = std::size_t{16} << 20;
TomlValue read_toml(const std::string& path, std::size_t most_bytes = most_toml_bytes);

}  // namespace vole
