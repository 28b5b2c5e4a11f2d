#include "vole/base/schema.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "vole/base/writing.hpp"

namespace vole {
namespace detail {

Node text_node(std::string_view text) {
  Node node;
  node.type = Node::Type::text;
  node.text = text;
  return node;
}

Node yes_no_node(bool yes) {
  Node node;
  node.type = Node::Type::yes_no;
  node.yes = yes;
  return node;
}

Node number_node(double number, bool whole) {
  Node node;
  node.type = whole ? Node::Type::whole : Node::Type::number;
  node.number = number;
  node.whole = whole ? static_cast<std::int64_t>(number) : 0;
  return node;
}

void put(Node& table, std::string_view key, Node value) {
  table.entries.push_back({std::string(key), {}, std::move(value)});
}

Node type_schema(std::string_view type) {
  Node schema;
  put(schema, "type", text_node(type));
  return schema;
}

Node number_schema(bool whole, const FieldRule& rule, double least, double most) {
  Node schema = type_schema(whole ? "integer" : "number");
  constexpr double most_double = FieldRule::no_limit;
  constexpr double exact = 9e15;  // beyond that a whole number is not written exactly
  const double low = std::max(rule.least, least), high = std::min(rule.most, most);
  const bool plain = whole || rule.least != -most_double;
  if (low != -most_double && std::abs(low) < exact && plain) put(schema, "minimum", number_node(low, whole));
  if (high != most_double && std::abs(high) < exact) put(schema, "maximum", number_node(high, whole));
  return schema;
}

Node choice_schema(const std::vector<std::string>& names) {
  Node schema, choices;
  choices.type = Node::Type::array;
  for (const std::string& name : names) choices.items.push_back(text_node(name));
  put(schema, "enum", std::move(choices));
  return schema;
}

Node either_schema(std::vector<Node> choices) {
  Node list, schema;
  list.type = Node::Type::array;
  list.items = std::move(choices);
  put(schema, "anyOf", std::move(list));
  return schema;
}

Node tuple_schema(const Node& item, int count) {
  Node schema = type_schema("array");
  put(schema, "items", item);
  put(schema, "minItems", number_node(count, true));
  put(schema, "maxItems", number_node(count, true));
  return schema;
}

}  // namespace detail

namespace {

void write_json(const Node& node, int depth, std::string& out) {
  const std::string indent(static_cast<std::size_t>(depth) * 2 + 2, ' ');
  const std::string outer(static_cast<std::size_t>(depth) * 2, ' ');
  switch (node.type) {
    case Node::Type::table:
      if (node.entries.empty()) return void(out += "{}");
      out += "{\n";
      for (std::size_t i = 0; i < node.entries.size(); ++i) {
        out += indent;
        out += vole::in_quotes(node.entries[i].key);  // JSON and TOML quote alike
        out += ": ";
        write_json(node.entries[i].value, depth + 1, out);
        out += i + 1 < node.entries.size() ? ",\n" : "\n";
      }
      out += outer + "}";
      break;
    case Node::Type::array:
      out += "[";
      for (std::size_t i = 0; i < node.items.size(); ++i) {
        if (i != 0) out += ", ";
        write_json(node.items[i], depth + 1, out);
      }
      out += "]";
      break;
    case Node::Type::yes_no:
      out += node.yes ? "true" : "false";
      break;
    case Node::Type::whole:
      out += fmt::format("{}", node.whole);
      break;
    case Node::Type::number:
      out += fmt::format("{}", node.number);
      break;
    case Node::Type::text:
    case Node::Type::date:
      out += vole::in_quotes(node.text);
      break;
  }
}

}  // namespace

Node file_schema(std::string_view title, Node schema) {
  Node file;
  detail::put(file, "$comment", detail::text_node("Made by Vole; changes are lost when it is made again."));
  detail::put(file, "$schema", detail::text_node("https://json-schema.org/draft/2020-12/schema"));
  detail::put(file, "title", detail::text_node(title));
  file.entries.insert(file.entries.end(), schema.entries.begin(), schema.entries.end());
  return file;
}

std::string to_json(const Node& node) {
  std::string out;
  write_json(node, 0, out);
  return out + "\n";
}

}  // namespace vole
