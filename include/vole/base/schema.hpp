// JSON Schemas (draft 2020-12) made from the same descriptions that read the files, so that an editor
// completes and checks what a loader will accept.
//
//   std::string text = to_json(file_schema("a sheet", schema_of<SheetText>()));
//
// A type with a read_field of its own has a `Node schema_field(const T&, const FieldRule&)` beside it.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/base/node.hpp"

namespace vole {

namespace detail {

Node text_node(std::string_view text);
Node yes_no_node(bool yes);
Node number_node(double number, bool whole);
void put(Node& table, std::string_view key, Node value);
Node type_schema(std::string_view type);
Node number_schema(bool whole, const FieldRule& rule, double least, double most);
Node choice_schema(const std::vector<std::string>& names);
Node either_schema(std::vector<Node> choices);
// A list of so many of the same.
Node tuple_schema(const Node& item, int count);

}  // namespace detail

template <class T>
Node schema_of(const FieldRule& rule = {}) {
  return field_type<T>().schema(rule);
}

// The schema of a whole file.
Node file_schema(std::string_view title, Node schema);

// A node as JSON (RFC 8259), indented. An empty table is "anything" as a schema, and written as {}.
std::string to_json(const Node& node);

}  // namespace vole
