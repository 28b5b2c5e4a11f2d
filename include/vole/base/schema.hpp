// JSON Schemas (draft 2020-12) made from the same descriptions that read the files, so that an editor
// completes and checks what a loader will accept.
//
//   std::string text = to_json(file_schema("a sheet", schema_of<SheetText>()));
//
// A type with a read_field of its own has a `Node schema_field(const T&, const FieldRule&)` beside it.
#pragma once

#include "vole/base/colour.hpp"
#include "vole/base/describe.hpp"
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
Node schema_of(const FieldRule& rule = {});

// Gathers the fields of one table.
class SchemaMaker {
 public:
  SchemaMaker();

  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& rule = {}) {
    Node schema = schema_of<T>(rule);
    if constexpr (std::is_same_v<T, bool>)
      detail::put(schema, "default", detail::yes_no_node(field));
    else if constexpr (std::is_arithmetic_v<T>)
      if (!rule.required)
        detail::put(schema, "default",
                    detail::number_node(static_cast<double>(field), std::is_integral_v<T>));
    add(key, std::move(schema), rule.required);
  }
  template <class T>
  void state(std::string_view, T&, const FieldRule& = {}) {}
  template <class T>
  void rest(Named<T>&) {
    others_ = schema_of<T>();
  }

  Node schema() const;

 private:
  void add(std::string_view key, Node schema, bool required);

  Node properties_;
  Node required_;
  std::optional<Node> others_;  // of keys that are not listed
};

template <class T>
Node schema_of(const FieldRule& rule) {
  using namespace detail;
  if constexpr (std::is_same_v<T, Node>) {
    return Node{};
  } else if constexpr (IsLocated<T>::value) {
    return schema_of<decltype(T::value)>(rule);
  } else if constexpr (IsOptional<T>::value) {
    return schema_of<typename T::value_type>(rule);
  } else if constexpr (IsNamed<T>::value) {
    Node schema = type_schema("object");
    put(schema, "additionalProperties", schema_of<decltype(T::value_type::value)>(rule));
    put(schema, "maxProperties", number_node(static_cast<double>(rule.most_items), true));
    return schema;
  } else if constexpr (IsVector<T>::value) {
    Node schema = type_schema("array");
    put(schema, "items", schema_of<typename T::value_type>(rule));
    put(schema, "maxItems", number_node(static_cast<double>(rule.most_items), true));
    return schema;
  } else if constexpr (IsArray<T>::value) {
    return tuple_schema(schema_of<typename T::value_type>(rule), static_cast<int>(T{}.size()));
  } else if constexpr (NamedEnum<T>) {
    const auto names = enum_names(T{});
    return choice_schema(std::vector<std::string>(names.begin(), names.end()));
  } else if constexpr (WrittenAsOne<T>) {
    T value{};
    Node schema = schema_of<std::remove_reference_t<decltype(one_field(value).field)>>(one_field(value).rule);
    if (!one_field(value).format.empty()) put(schema, "format", text_node(one_field(value).format));
    return schema;
  } else if constexpr (Described<T>) {
    SchemaMaker maker;
    T value{};
    describe(maker, value);
    return maker.schema();
  } else if constexpr (std::is_same_v<T, bool>) {
    return type_schema("boolean");
  } else if constexpr (std::is_integral_v<T>) {
    return number_schema(true, rule, static_cast<double>(std::numeric_limits<T>::min()),
                         static_cast<double>(std::numeric_limits<T>::max()));
  } else if constexpr (std::is_floating_point_v<T>) {
    return number_schema(false, rule, -std::numeric_limits<double>::max(),
                         std::numeric_limits<double>::max());
  } else if constexpr (std::is_same_v<T, Vec2>) {
    return tuple_schema(schema_of<float>(rule), 2);
  } else if constexpr (std::is_same_v<T, IVec2>) {
    return tuple_schema(schema_of<int>(rule), 2);
  } else if constexpr (std::is_same_v<T, IRect>) {
    return tuple_schema(schema_of<int>(rule), 4);
  } else if constexpr (std::is_same_v<T, Rect>) {
    return tuple_schema(schema_of<float>(rule), 4);
  } else if constexpr (std::is_same_v<T, Vec4>) {
    return tuple_schema(schema_of<float>(), 4);
  } else if constexpr (std::is_same_v<T, Colour>) {
    Node schema = type_schema("string");
    put(schema, "pattern", text_node("^#([0-9a-fA-F]{6}|[0-9a-fA-F]{8})$"));
    return schema;
  } else if constexpr (std::is_same_v<T, std::string>) {
    return type_schema("string");
  } else {
    return schema_field(T{}, rule);
  }
}

// The schema of a whole file.
Node file_schema(std::string_view title, Node schema);

// A node as JSON (RFC 8259), indented. An empty table is "anything" as a schema, and written as {}.
std::string to_json(const Node& node);

}  // namespace vole
