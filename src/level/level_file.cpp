#include "level_file.hpp"

#include <fmt/format.h>

#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {

// Every key that is not the place's own names a component, so this table cannot be read by a description
// alone.
void read_field(const Node& node, PlaceText& place, const FieldRule&, Report& report) {
  if (!detail::expect(node, Node::Type::table, "a table", report)) return;
  place.where = node.where;
  place.overrides.where = node.where;
  const FieldRule cells = within(-65536, 65536);
  const FieldRule pixels = within(-1e6, 1e6);
  for (const Node::Entry& entry : node.entries) {
    if (entry.key == "kind")
      read_value(entry.value, place.kind, {}, report);
    else if (entry.key == "cell")
      read_value(entry.value, place.cell, cells, report);
    else if (entry.key == "at")
      read_value(entry.value, place.at, pixels, report);
    else if (entry.key == "name")
      read_value(entry.value, place.name, {}, report);
    else if (entry.key == "tags") {
      std::vector<std::string> tags;  // the one component that is a list
      read_value(entry.value, tags, items(most_tags), report);
      place.overrides.entries.push_back(entry);
    } else if (entry.value.type == Node::Type::table)
      place.overrides.entries.push_back(entry);
    else {
      const std::string known[] = {"kind", "cell", "at", "name", "tags"};
      report.error(entry.where, fmt::format("unknown key \"{}\"", entry.key), did_you_mean(entry.key, known));
    }
  }
  if (place.kind.value.empty()) report.error(node.where, "\"kind\" is missing here");
  if (place.cell.has_value() == place.at.has_value())
    report.error(node.where, "a place has either \"cell\" or \"at\"");
}

Node schema_field(const PlaceText&, const FieldRule&) {
  Node properties;
  detail::put(properties, "kind", detail::type_schema("string"));
  detail::put(properties, "cell", schema_of<IVec2>());
  detail::put(properties, "at", schema_of<Vec2>());
  detail::put(properties, "name", detail::type_schema("string"));
  detail::put(properties, "tags", schema_of<std::vector<std::string>>(items(most_tags)));
  Node required;
  required.type = Node::Type::array;
  required.items.push_back(detail::text_node("kind"));
  Node schema = detail::type_schema("object");
  detail::put(schema, "properties", std::move(properties));
  detail::put(schema, "required", std::move(required));
  detail::put(schema, "additionalProperties", detail::type_schema("object"));
  return schema;
}

}  // namespace vole
