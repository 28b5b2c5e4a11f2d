#include "vole/base/toml_value.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/describe.hpp"
#include "vole/base/files.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/writing.hpp"

namespace vole {

TomlValue::TomlValue() = default;
TomlValue::TomlValue(const TomlValue&) = default;
TomlValue::TomlValue(TomlValue&&) noexcept = default;
TomlValue& TomlValue::operator=(const TomlValue&) = default;
TomlValue& TomlValue::operator=(TomlValue&&) noexcept = default;
TomlValue::~TomlValue() = default;

const TomlValue* TomlValue::find(std::string_view key) const {
  const auto found =
      std::find_if(entries.begin(), entries.end(), [key](const Entry& e) { return e.key == key; });
  return found == entries.end() ? nullptr : &found->value;
}

TomlValue* TomlValue::find(std::string_view key) {
  return const_cast<TomlValue*>(static_cast<const TomlValue*>(this)->find(key));
}

void TomlValue::merge(const TomlValue& over) {
  for (const Entry& entry : over.entries) {
    TomlValue* mine = find(entry.key);
    if (!mine)
      entries.push_back(entry);
    else if (mine->type == Type::table && entry.value.type == Type::table)
      mine->merge(entry.value);
    else
      *mine = entry.value;
  }
}

std::string to_text(const TomlValue& toml) {
  switch (toml.type) {
    case TomlValue::Type::table:
      return "a table";
    case TomlValue::Type::array:
      return fmt::format("a list of {}", toml.items.size());
    case TomlValue::Type::text:
      return fmt::format("the text \"{}\"", toml.text);
    case TomlValue::Type::whole:
      return fmt::format("the number {}", toml.whole);
    case TomlValue::Type::number:
      return fmt::format("the number {}", toml.number);
    case TomlValue::Type::yes_no:
      return toml.yes ? "true" : "false";
    case TomlValue::Type::date:
      return fmt::format("the date {}", toml.text);
  }
  return {};
}

std::string to_toml(const TomlValue& toml) {
  std::string out;
  switch (toml.type) {
    case TomlValue::Type::table:
      for (const TomlValue::Entry& entry : toml.entries) {
        out += out.empty() ? "{ " : ", ";
        out += toml_key(entry.key) + " = " + to_toml(entry.value);
      }
      return out.empty() ? "{}" : out + " }";
    case TomlValue::Type::array:
      for (const TomlValue& item : toml.items) out += (out.empty() ? "" : ", ") + to_toml(item);
      return "[" + out + "]";
    case TomlValue::Type::text:
      return in_quotes(toml.text);
    case TomlValue::Type::whole:
      return fmt::format("{}", toml.whole);
    case TomlValue::Type::number:
      return toml_number(toml.number);
    case TomlValue::Type::yes_no:
      return toml.yes ? "true" : "false";
    case TomlValue::Type::date:
      return toml.text;
  }
  return out;
}

TomlValue read_toml(const std::string& path, std::size_t most_bytes) {
  return parse_toml(read_text(path, most_bytes), path);
}

}  // namespace vole
