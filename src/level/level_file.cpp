#include "level_file.hpp"

#include <fmt/core.h>

#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/tag_limit.hpp"
#include "weighted_name.hpp"

namespace vole {
namespace {

// Every key that is not listed names a component, so these tables cannot be read by a description alone. `read` returns
// whether the key was one of its own.
template <class Read>
void read_with_components(const Node& node, Node& overrides, std::span<const std::string> known,
                          Report& report, const Read& read) {
  overrides.where = node.where;
  for (const Node::Entry& entry : node.entries) {
    if (read(entry)) continue;
    if (entry.key == "tags") {
      std::vector<std::string> tags;  // the one component that is a list
      read_value(entry.value, tags, items(most_tags), report);
      overrides.entries.push_back(entry);
    } else if (entry.value.type == Node::Type::table) {
      overrides.entries.push_back(entry);
    } else {
      report.error(entry.where, fmt::format("unknown key \"{}\"", entry.key), did_you_mean(entry.key, known));
    }
  }
}

const std::vector<std::string> place_keys{"kind", "cell", "at",    "pivot", "offset",
                                          "flip", "name", "stays", "tags"};
const std::vector<std::string> scatter_keys{"kind", "count", "zone", "on", "seed", "apart", "tags"};

Node table_with_components(Node properties) {
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

const FieldRule scatter_count = within(1, 10'000);
const FieldRule scatter_apart = within(0, 4096);

}  // namespace

void read_field(const Node& node, TilesetNames& names, const FieldRule&, Report& report) {
  if (node.type == Node::Type::array) return read_value(node, names.all, items(64), report);
  names.all.resize(1);
  read_value(node, names.all[0], {}, report);
}

Node schema_field(const TilesetNames&, const FieldRule&) {
  return detail::either_schema({schema_of<std::string>(), schema_of<std::vector<std::string>>(items(64))});
}

void read_field(const Node& node, PlaceText& place, const FieldRule&, Report& report) {
  if (!detail::expect(node, Node::Type::table, "a table", report)) return;
  place.where = node.where;
  read_with_components(node, place.overrides, place_keys, report, [&](const Node::Entry& entry) {
    const auto read = [&](std::string_view key, auto& field, const FieldRule& rule = {}) {
      if (entry.key != key) return false;
      read_value(entry.value, field, rule, report);
      return true;
    };
    return read("kind", place.kind) || read("cell", place.cell, level_pixels) ||
           read("at", place.at, level_pixels) || read("pivot", place.pivot) ||
           read("offset", place.offset, level_pixels) || read("flip", place.flip) ||
           read("name", place.name) || read("stays", place.stays);
  });
  if (place.kind.value.empty()) report.error(node.where, "\"kind\" is missing here");
  if (place.cell.has_value() == place.at.has_value())
    report.error(node.where, "a place has either \"cell\" or \"at\"");
}

Node schema_field(const PlaceText&, const FieldRule&) {
  Node properties;
  detail::put(properties, "kind", detail::type_schema("string"));
  detail::put(properties, "cell", schema_of<IVec2>());
  detail::put(properties, "at", schema_of<Vec2>());
  detail::put(properties, "pivot", schema_of<Anchor>());
  detail::put(properties, "offset", schema_of<Vec2>());
  detail::put(properties, "flip", schema_of<bool>());
  detail::put(properties, "name", detail::type_schema("string"));
  detail::put(properties, "stays", schema_of<bool>());
  return table_with_components(std::move(properties));
}

void read_field(const Node& node, ScatterText& scatter, const FieldRule&, Report& report) {
  if (!detail::expect(node, Node::Type::table, "a table", report)) return;
  scatter.where = node.where;
  read_with_components(node, scatter.overrides, scatter_keys, report, [&](const Node::Entry& entry) {
    const auto read = [&](std::string_view key, auto& field, const FieldRule& rule = {}) {
      if (entry.key != key) return false;
      read_value(entry.value, field, rule, report);
      return true;
    };
    return read("kind", scatter.kind) || read("count", scatter.count, scatter_count) ||
           read("zone", scatter.zone) || read("on", scatter.on, items(100)) || read("seed", scatter.seed) ||
           read("apart", scatter.apart, scatter_apart);
  });
  if (scatter.kind.value.empty()) report.error(node.where, "\"kind\" is missing here");
}

Node schema_field(const ScatterText&, const FieldRule&) {
  Node properties;
  detail::put(properties, "kind", detail::type_schema("string"));
  detail::put(properties, "count", schema_of<int>(scatter_count));
  detail::put(properties, "zone", detail::type_schema("string"));
  detail::put(properties, "on", schema_of<std::vector<std::string>>(items(100)));
  detail::put(properties, "seed", schema_of<std::int64_t>());
  detail::put(properties, "apart", schema_of<float>(scatter_apart));
  return table_with_components(std::move(properties));
}

void read_field(const Node& node, PieceText& piece, const FieldRule&, Report& report) {
  read_weighted_name(node, "piece", "level", piece.piece, piece.weight, report);
}

Node schema_field(const PieceText&, const FieldRule&) {
  return weighted_name_schema("piece");
}

}  // namespace vole
