// JSON Schemas (draft 2020-12) made from the same descriptions that read the files, so that an editor
// completes and checks what a loader will accept.
//
//   std::string text = to_json(file_schema("a sheet", schema_of<SheetText>()));
//
// A type with a read_field of its own has a `TomlValue schema_field(const T&, const FieldRule&)` beside it.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/base/toml_value.hpp"

namespace vole {

namespace detail {

TomlValue text_toml(std::string_view text);
TomlValue yes_no_toml(bool yes);
TomlValue number_toml(double number, bool whole);
void put(TomlValue& table, std::string_view key, TomlValue value);
TomlValue type_schema(std::string_view type);
TomlValue number_schema(bool whole, const FieldRule& rule, double least, double most);
TomlValue choice_schema(const std::vector<std::string>& names);
TomlValue either_schema(std::vector<TomlValue> choices);
// A list of so many of the same.
TomlValue tuple_schema(const TomlValue& item, int count);

}  // namespace detail

template <class T>
TomlValue schema_of(const FieldRule& rule = {}) {
  return field_type<T>().schema(rule);
}

// The schema of a whole file.
TomlValue file_schema(std::string_view title, TomlValue schema);

// A toml as JSON (RFC 8259), indented. An empty table is "anything" as a schema, and written as {}.
std::string to_json(const TomlValue& toml);

}  // namespace vole
