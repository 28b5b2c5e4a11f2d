#include "vole/base/schema.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "vole/base/writing.hpp"

namespace vole {
namespace detail {

TomlValue text_toml(std::string_view text) {
  TomlValue toml;
  toml.type = TomlValue::Type::text;
  toml.text = text;
  return toml;
}

TomlValue yes_no_toml(bool yes) {
  TomlValue toml;
  toml.type = TomlValue::Type::yes_no;
  toml.yes = yes;
  return toml;
}

TomlValue number_toml(double number, bool whole) {
  TomlValue toml;
  toml.type = whole ? TomlValue::Type::whole : TomlValue::Type::number;
  toml.number = number;
  toml.whole = whole ? static_cast<std::int64_t>(number) : 0;
  return toml;
}

void put(TomlValue& table, std::string_view key, TomlValue value) {
  table.entries.push_back({std::string(key), {}, std::move(value)});
}

TomlValue type_schema(std::string_view type) {
  TomlValue schema;
  put(schema, "type", text_toml(type));
  return schema;
}

TomlValue number_schema(bool whole, const FieldRule& rule, double least, double most) {
  TomlValue schema = type_schema(whole ? "integer" : "number");
  constexpr double most_double = FieldRule::no_limit;
  constexpr double exact = 9e15;  // beyond that a whole number is not written exactly
  const double low = std::max(rule.least, least), high = std::min(rule.most, most);
  const bool plain = whole || rule.least != -most_double;
  if (low != -most_double && std::abs(low) < exact && plain) put(schema, "minimum", number_toml(low, whole));
  if (high != most_double && std::abs(high) < exact) put(schema, "maximum", number_toml(high, whole));
  return schema;
}

TomlValue choice_schema(const std::vector<std::string>& names) {
  TomlValue schema, choices;
  choices.type = TomlValue::Type::array;
  for (const std::string& name : names) choices.items.push_back(text_toml(name));
  put(schema, "enum", std::move(choices));
  return schema;
}

TomlValue either_schema(std::vector<TomlValue> choices) {
  TomlValue list, schema;
  list.type = TomlValue::Type::array;
  list.items = std::move(choices);
  put(schema, "anyOf", std::move(list));
  return schema;
}

TomlValue tuple_schema(const TomlValue& item, int count) {
  TomlValue schema = type_schema("array");
  put(schema, "items", item);
  put(schema, "minItems", number_toml(count, true));
  put(schema, "maxItems", number_toml(count, true));
  return schema;
}

}  // namespace detail

namespace {

void write_json(const TomlValue& toml, int depth, std::string& out) {
  const std::string indent(static_cast<std::size_t>(depth) * 2 + 2, ' ');
  const std::string outer(static_cast<std::size_t>(depth) * 2, ' ');
  switch (toml.type) {
    case TomlValue::Type::table:
      if (toml.entries.empty()) return void(out += "{}");
      out += "{\n";
      for (std::size_t i = 0; i < toml.entries.size(); ++i) {
        out += indent;
        out += vole::in_quotes(toml.entries[i].key);  // JSON and TOML quote alike
        out += ": ";
        write_json(toml.entries[i].value, depth + 1, out);
        out += i + 1 < toml.entries.size() ? ",\n" : "\n";
      }
      out += outer + "}";
      break;
    case TomlValue::Type::array:
      out += "[";
      for (std::size_t i = 0; i < toml.items.size(); ++i) {
        if (i != 0) out += ", ";
        write_json(toml.items[i], depth + 1, out);
      }
      out += "]";
      break;
    case TomlValue::Type::yes_no:
      out += toml.yes ? "true" : "false";
      break;
    case TomlValue::Type::whole:
      out += fmt::format("{}", toml.whole);
      break;
    case TomlValue::Type::number:
      out += fmt::format("{}", toml.number);
      break;
    case TomlValue::Type::text:
    case TomlValue::Type::date:
      out += vole::in_quotes(toml.text);
      break;
  }
}

}  // namespace

TomlValue file_schema(std::string_view title, TomlValue schema) {
  TomlValue file;
  detail::put(file, "$comment", detail::text_toml("Made by Vole; changes are lost when it is made again."));
  detail::put(file, "$schema", detail::text_toml("https://json-schema.org/draft/2020-12/schema"));
  detail::put(file, "title", detail::text_toml(title));
  file.entries.insert(file.entries.end(), schema.entries.begin(), schema.entries.end());
  return file;
}

std::string to_json(const TomlValue& toml) {
  std::string out;
  write_json(toml, 0, out);
  return out + "\n";
}

}  // namespace vole
