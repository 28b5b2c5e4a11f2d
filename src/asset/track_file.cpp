// Tracks, as a sheet's file has them.
#include <fmt/core.h>

#include "clip_file.hpp"
#include "vole/base/field.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

// Keyframes in the order of their times, no two at one.
template <class T, class Made, class Make>
void add_keyframes(const std::vector<KeyframeText<T>>& text, std::vector<Keyframe<Made>>& keys,
                   const Make& make, Report& report) {
  for (const KeyframeText<T>& key : text) {
    const auto at = static_cast<std::int64_t>(key.at.value * 1e6 + 0.5);
    if (!keys.empty() && at <= keys.back().at)
      report.error(key.at.where,
                   fmt::format("this keyframe is at {} seconds, and the one before it at {}", key.at.value,
                               static_cast<double>(keys.back().at) / 1e6),
                   "write them in the order of their times");
    keys.push_back({at, make(key.value), key.ease});
  }
}

TrackField make_field(const NamedItem<std::vector<KeyframeText<FieldValueText>>>& item, Report& report) {
  const std::size_t dot = item.name.find('.');
  TrackField field{item.name.substr(0, dot), {}, 1, {}, item.where};
  if (dot == std::string::npos || dot == 0 || dot + 1 == item.name.size())
    report.error(item.where, fmt::format("\"{}\" names no field", item.name),
                 "one is \"component.field\", as \"body.size\"");
  else
    field.field = item.name.substr(dot + 1);
  if (!item.value.empty()) field.parts = item.value.front().value.parts;
  for (const auto& key : item.value)
    if (key.value.parts != field.parts)
      report.error(key.value.where,
                   fmt::format("{} wanted here, as for the first keyframe", word_for_parts(field.parts)));
  add_keyframes(
      item.value, field.keys, [](const FieldValueText& value) { return value.value; }, report);
  return field;
}

}  // namespace

Track make_track(const NamedItem<TrackText>& item, Report& report) {
  Track track{.name = item.name, .loop = item.value.loop};
  const auto same = [](const auto& value) { return value; };
  add_keyframes(item.value.offset, track.offset, same, report);
  add_keyframes(item.value.rotation, track.rotation, same, report);
  add_keyframes(item.value.scale, track.scale, same, report);
  add_keyframes(item.value.opacity, track.opacity, same, report);
  add_keyframes(
      item.value.tint, track.tint, [](Colour c) { return Vec4(c.r, c.g, c.b, c.a) / 255.0f; }, report);
  for (const auto& field : item.value.fields) track.fields.push_back(make_field(field, report));
  if (track.length() == 0)
    report.error(item.where, fmt::format("track \"{}\" takes no time", item.name),
                 "its last keyframe must come after 0 seconds");
  return track;
}

void read_field(const TomlValue& toml, FieldValueText& value, const FieldRule& rule, Report& report) {
  value.where = toml.where;
  if (toml.type == TomlValue::Type::text) {
    Colour colour;
    read_value(toml, colour, {}, report);
    value.parts = 4;
    value.value = Vec4(colour.r, colour.g, colour.b, colour.a);
  } else if (toml.type == TomlValue::Type::array) {
    Vec2 pair{0, 0};
    read_value(toml, pair, rule, report);
    value.parts = 2;
    value.value = Vec4(pair.x, pair.y, 0, 0);
  } else {
    value.parts = 1;
    read_value(toml, value.value.x, rule, report);
  }
}

TomlValue schema_field(const FieldValueText&, const FieldRule& rule) {
  return detail::either_schema({schema_of<float>(rule), schema_of<Vec2>(rule), schema_of<Colour>()});
}

}  // namespace vole
