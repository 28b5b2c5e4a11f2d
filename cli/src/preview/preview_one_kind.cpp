#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "preview_kinds.hpp"
#include "preview_page.hpp"
#include "vole/base/files.hpp"
#include "vole/base/paths.hpp"
#include "vole/draw/mark_colours.hpp"
#include "vole/world/sprite.hpp"
#include "written_things.hpp"

namespace {

using namespace paper;

// A value of a kind, and where it was written.
struct Field {
  std::string text, where;
};

std::string file_name(const std::string& path) {
  return path.substr(path.find_last_of('/') + 1);
}

void add_value(const vole::TomlValue& value, const std::string& path, std::vector<Field>& fields);

// Every value of the table that is no table itself, by its path: "body.size = [10, 10]", "shapes[0].radius = 4".
void add_fields(const vole::TomlValue& table, const std::string& before, std::vector<Field>& fields) {
  for (const vole::TomlValue::Entry& entry : table.entries)
    add_value(entry.value, before + entry.key, fields);
}

void add_value(const vole::TomlValue& value, const std::string& path, std::vector<Field>& fields) {
  constexpr std::size_t longest = 48;
  const bool is_table = value.type == vole::TomlValue::Type::table;
  if (is_table && !value.entries.empty()) return add_fields(value, path + ".", fields);
  if (!value.items.empty() && value.items[0].type == vole::TomlValue::Type::table) {
    for (std::size_t i = 0; i < value.items.size(); ++i)
      add_value(value.items[i], fmt::format("{}[{}]", path, i), fields);
    return;
  }
  std::string text = is_table ? path : path + " = " + to_toml(value);
  if (text.size() > longest) text = text.substr(0, longest) + "...";
  const vole::FilePosition& where = value.where;
  fields.push_back(
      {text, where.file ? fmt::format("{}:{}", file_name(*where.file), where.line) : std::string()});
}

void name_points(Page& page, const WrittenThing& thing, const vole::Frame& frame, IVec2 at, int scale) {
  const vole::Sheet& sheet = *thing.kind->sprite->sheet();
  const int shown = thing.kind->sprite->frame(60);
  for (std::size_t i = 0; i < sheet.points.size(); ++i) {
    const IVec2 point = at + (sheet.points[i].at(shown) - frame.pivot) * scale;
    page.cross(point, 4, point_mark(i));
    page.text(point + IVec2{6, -6}, sheet.points[i].name, {.colour = point_mark(i)});
  }
}

// Of what it shows first, around its position.
Vec2 lamp_at(const WrittenThing& thing) {
  const vole::Lamp& lamp = *thing.lamp;
  if (lamp.point.value.empty() || !thing.frame()) return lamp.offset;
  const vole::Sheet& sheet = *thing.kind->sprite->sheet();
  for (const auto& point : sheet.points)
    if (point.name == lamp.point.value)
      return Vec2(point.at(thing.kind->sprite->frame(60)) - thing.frame()->pivot) + lamp.offset;
  return lamp.offset;
}

void name_probes(Page& page, const vole::Probes& probes, IVec2 at, int scale) {
  for (const auto& item : probes.all) {
    const Vec2 corner = item.value.is_ray() ? *item.value.to : item.value.area.at;
    page.text(at + IVec2(corner * static_cast<float>(scale)) + IVec2{2, -12}, item.name,
              {.colour = vole::mark_colours::probe_found});
  }
}

}  // namespace

void preview_kind(vole::Catalog& catalog, const std::string& kind, const std::string& output) {
  constexpr int half = page_size.x / 2;
  const WrittenThings things(catalog);
  const WrittenThing thing = things.of_kind(kind);
  Page page;
  page.text({margin, 16}, kind);
  draw_kind_legend(page, {half, 16});
  const ShownKind shown{kind, {}, thing.frame(), thing};
  vole::Rect reach = reach_of(shown);
  if (thing.lamp)
    reach = reach.joined_with({lamp_at(thing) - Vec2(thing.lamp->radius), Vec2(2 * thing.lamp->radius)});
  const float largest = std::max({reach.size.x, reach.size.y, 1.0f});
  const IVec2 room{half - 2 * margin, page_size.y - 120};
  const int scale =
      std::clamp(static_cast<int>(static_cast<float>(std::min(room.x, room.y)) / largest), 1, 24);
  const IVec2 middle((reach.at + reach.size * 0.5f) * static_cast<float>(scale));
  const IVec2 at = IVec2{margin, 72} + room / 2 - middle;
  page.squares({{margin, 72}, room}, 4 * scale);
  draw_shown(page, shown, at, scale);
  if (thing.lamp && thing.lamp->radius >= 1) {
    page.shape(vole::Shape::circle(lamp_at(thing), thing.lamp->radius), at, scale, vole::mark_colours::lamp);
    page.text({half - 2 * margin - 60, 16}, "lamp", vole::mark_colours::lamp);
  }
  if (shown.frame) name_points(page, thing, *shown.frame, at, scale);
  if (thing.probes) name_probes(page, *thing.probes, at, scale);

  std::vector<Field> fields;
  add_fields(things.kinds().kind(kind), "", fields);
  const int text_scale = fields.size() * 22 <= static_cast<std::size_t>(room.y) ? 2 : 1;
  int y = 72;
  for (const Field& field : fields) {
    fmt::print("{:<56} {}\n", field.text, field.where);
    if (y > page_size.y - 24) continue;
    page.text({half, y}, field.text, {.colour = ink, .scale = text_scale});
    const int width = vole::plain_font().measure(field.where).x * text_scale;
    page.text({page_size.x - margin - width, y}, field.where, {.colour = faint, .scale = text_scale});
    y += 11 * text_scale;
  }
  page.save(output);
}
