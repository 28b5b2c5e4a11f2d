// "stones", or { tile = "stones", weight = 0.1 }: one of several to choose from, in files.
#pragma once

#include <fmt/core.h>

#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {

// `key` is what the table calls the name, `sort` what it is the name of, as in messages.
inline void read_weighted_name(const Node& node, std::string_view key, std::string_view sort,
                               Located<std::string>& name, double& weight, Report& report) {
  if (node.type == Node::Type::text) return read_value(node, name, {}, report);
  if (!detail::expect(node, Node::Type::table,
                      fmt::format("a {}'s name, or {{ {} = \"...\", weight = ... }}", sort, key), report))
    return;
  Reader reader(node, report);
  reader(key, name, needed());
  reader("weight", weight, within(0, 1e6));
  reader.finish();
}

inline Node weighted_name_schema(const char* key) {
  Node properties;
  detail::put(properties, key, schema_of<std::string>());
  detail::put(properties, "weight", schema_of<double>(within(0, 1e6)));
  Node table = detail::type_schema("object");
  detail::put(table, "properties", std::move(properties));
  detail::put(table, "additionalProperties", detail::yes_no_node(false));
  return detail::either_schema({schema_of<std::string>(), std::move(table)});
}

}  // namespace vole
