// "stones", or { tile = "stones", weight = 0.1 }: one of several to choose from, in files.
#pragma once

#include <fmt/core.h>

#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {

// `key` is what the table calls the name, `sort` what it is the name of, as in messages.
inline void read_weighted_name(const TomlValue& toml, std::string_view key, std::string_view sort,
                               Located<std::string>& name, double& weight, Report& report) {
  if (toml.type == TomlValue::Type::text) return read_value(toml, name, {}, report);
  if (!detail::expect(toml, TomlValue::Type::table,
                      fmt::format("a {}'s name, or {{ {} = \"...\", weight = ... }}", sort, key), report))
    return;
  Reader reader(toml, report);
  reader(key, name, needed());
  reader("weight", weight, within(0, 1e6));
  reader.finish();
}

inline TomlValue weighted_name_schema(const char* key) {
  TomlValue properties;
  detail::put(properties, key, schema_of<std::string>());
  detail::put(properties, "weight", schema_of<double>(within(0, 1e6)));
  TomlValue table = detail::type_schema("object");
  detail::put(table, "properties", std::move(properties));
  detail::put(table, "additionalProperties", detail::yes_no_toml(false));
  return detail::either_schema({schema_of<std::string>(), std::move(table)});
}

}  // namespace vole
