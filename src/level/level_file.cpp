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
void read_with_components(const TomlValue& toml, TomlValue& overrides, std::span<const std::string> known,
                          Report& report, const Read& read) {
  overrides.where = toml.where;
  for (const TomlValue::Entry& entry : toml.entries) {
    if (read(entry)) continue;
    if (entry.key == "tags") {
      std::vector<std::string> tags;  // the one component that is a list
      read_value(entry.value, tags, items(most_tags), report);
      overrides.entries.push_back(entry);
    } else if (entry.value.type == TomlValue::Type::table) {
      overrides.entries.push_back(entry);
    } else {
      report.error(entry.where, fmt::format("unknown key \"{}\"", entry.key), did_you_mean(entry.key, known));
    }
  }
}

const std::vector<std::string> place_keys{"kind",     "cell", "at",   "pivot", "offset",
                                          "mirrored", "name", "keep", "tags"};
const std::vector<std::string> scatter_keys{"kind", "count", "zone", "on", "seed", "apart", "tags"};

TomlValue with_key(std::string_view key) {
  TomlValue required, schema;
  required.type = TomlValue::Type::array;
  required.items.push_back(detail::text_toml(key));
  detail::put(schema, "required", std::move(required));
  return schema;
}

// One of the keys has to be there.
TomlValue table_with_components(TomlValue properties, std::initializer_list<std::string_view> required) {
  detail::put(properties, "tags", schema_of<std::vector<std::string>>(items(most_tags)));
  std::vector<TomlValue> choices;
  for (const std::string_view key : required) choices.push_back(with_key(key));
  TomlValue schema = detail::either_schema(std::move(choices));
  detail::put(schema, "type", detail::text_toml("object"));
  detail::put(schema, "properties", std::move(properties));
  detail::put(schema, "additionalProperties", detail::type_schema("object"));
  return schema;
}

const FieldRule scatter_count = within(1, 10'000);
const FieldRule scatter_apart = within(0, 4096);

}  // namespace

void read_field(const TomlValue& toml, TilesetNames& names, const FieldRule&, Report& report) {
  if (toml.type == TomlValue::Type::array) return read_value(toml, names.all, items(64), report);
  names.all.resize(1);
  read_value(toml, names.all[0], {}, report);
}

TomlValue schema_field(const TilesetNames&, const FieldRule&) {
  return detail::either_schema({schema_of<std::string>(), schema_of<std::vector<std::string>>(items(64))});
}

void read_field(const TomlValue& toml, PlaceText& place, const FieldRule&, Report& report) {
  if (!detail::expect(toml, TomlValue::Type::table, "a table", report)) return;
  place.where = toml.where;
  read_with_components(toml, place.overrides, place_keys, report, [&](const TomlValue::Entry& entry) {
    const auto read = [&](std::string_view key, auto& field, const FieldRule& rule = {}) {
      if (entry.key != key) return false;
      read_value(entry.value, field, rule, report);
      return true;
    };
    return read("kind", place.kind) || read("cell", place.cell, level_pixels) ||
           read("at", place.at, level_pixels) || read("pivot", place.pivot) ||
           read("offset", place.offset, level_pixels) || read("mirrored", place.mirrored) ||
           read("name", place.name) || read("keep", place.keep);
  });
  if (place.kind.value.empty() && place.name.value.empty())
    report.error(toml.where, "\"kind\" is missing here", "a place without a kind has a name to be found by");
  else if (place.kind.value.empty() && !place.overrides.entries.empty())
    report.error(
        place.overrides.entries.front().where,
        fmt::format("\"{}\" is for a thing, and this place has no kind", place.overrides.entries.front().key),
        "say kind = \"...\"");
  if (place.cell.has_value() == place.at.has_value())
    report.error(toml.where, "a place has either \"cell\" or \"at\"");
}

TomlValue schema_field(const PlaceText&, const FieldRule&) {
  TomlValue properties;
  detail::put(properties, "kind", detail::type_schema("string"));
  detail::put(properties, "cell", schema_of<IVec2>());
  detail::put(properties, "at", schema_of<Vec2>());
  detail::put(properties, "pivot", schema_of<Anchor>());
  detail::put(properties, "offset", schema_of<Vec2>());
  detail::put(properties, "mirrored", schema_of<bool>());
  detail::put(properties, "name", detail::type_schema("string"));
  detail::put(properties, "keep", schema_of<bool>());
  return table_with_components(std::move(properties), {"kind", "name"});
}

void read_field(const TomlValue& toml, ScatterText& scatter, const FieldRule&, Report& report) {
  if (!detail::expect(toml, TomlValue::Type::table, "a table", report)) return;
  scatter.where = toml.where;
  read_with_components(toml, scatter.overrides, scatter_keys, report, [&](const TomlValue::Entry& entry) {
    const auto read = [&](std::string_view key, auto& field, const FieldRule& rule = {}) {
      if (entry.key != key) return false;
      read_value(entry.value, field, rule, report);
      return true;
    };
    return read("kind", scatter.kind) || read("count", scatter.count, scatter_count) ||
           read("zone", scatter.zone) || read("on", scatter.on, items(100)) || read("seed", scatter.seed) ||
           read("apart", scatter.apart, scatter_apart);
  });
  if (scatter.kind.value.empty()) report.error(toml.where, "\"kind\" is missing here");
}

TomlValue schema_field(const ScatterText&, const FieldRule&) {
  TomlValue properties;
  detail::put(properties, "kind", detail::type_schema("string"));
  detail::put(properties, "count", schema_of<int>(scatter_count));
  detail::put(properties, "zone", detail::type_schema("string"));
  detail::put(properties, "on", schema_of<std::vector<std::string>>(items(100)));
  detail::put(properties, "seed", schema_of<std::int64_t>());
  detail::put(properties, "apart", schema_of<float>(scatter_apart));
  return table_with_components(std::move(properties), {"kind"});
}

void read_field(const TomlValue& toml, PieceText& piece, const FieldRule&, Report& report) {
  read_weighted_name(toml, "piece", "level", piece.piece, piece.weight, report);
}

TomlValue schema_field(const PieceText&, const FieldRule&) {
  return weighted_name_schema("piece");
}

}  // namespace vole
