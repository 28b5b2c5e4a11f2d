#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "preview_kinds.hpp"
#include "preview_page.hpp"
#include "vole/draw/mark_colours.hpp"
#include "vole/world/sprite.hpp"
#include "written_things.hpp"

using namespace paper;
using vole::BodyUse;
using vole::Rect;

Rect reach_of(const ShownKind& shown) {
  Rect reach{{-4, -4}, {8, 8}};
  if (shown.frame) reach = reach.joined_with({-Vec2(shown.frame->pivot), Vec2(shown.frame->size)});
  if (shown.body()) reach = reach.joined_with(shown.body()->bounds());
  if (!shown.probes()) return reach;
  for (const auto& item : shown.probes()->all) {
    const vole::Probe& probe = item.value;
    if (!probe.is_ray()) reach = reach.joined_with(probe.box({}));
    for (const auto& end : {probe.from, probe.to})
      if (end) reach = reach.joined_with({*end, {0, 0}});
  }
  return reach;
}

static vole::Shape thin(Vec2 from, Vec2 to) {
  return vole::Shape::capsule(from, to, 0.01f);
}

void draw_shown(Page& page, const ShownKind& shown, IVec2 at, int scale) {
  if (shown.frame) page.posed(*shown.frame, at, scale, {});
  if (shown.probes())
    for (const auto& item : shown.probes()->all) {
      const vole::Probe& probe = item.value;
      page.shape(probe.is_ray() ? thin(*probe.from, *probe.to) : vole::Shape::box(probe.box({})),
                 at, scale, vole::mark_colours::probe_found);
    }
  if (shown.body())
    shown.body()->visit_shapes([&](const vole::Shape& shape, std::uint32_t place) {
      page.shape(shape, at, scale, mark_of(*shown.body(), place));
    });
  if (shown.body() && shown.body()->shapes)
    for (std::uint32_t i = 0; i < shown.body()->shapes->size(); ++i)
      if (shown.body()->use_of(i) == BodyUse::off)
        page.shape((*shown.body()->shapes)[i], at, scale, vole::mark_colours::off);
  page.cross(at, 4, vole::mark_colours::position);
}

void draw_kind_legend(Page& page, IVec2 at) {
  page.legend(at, {{"solid", vole::mark_colours::solid_body},
                   {"one-way", vole::mark_colours::one_way},
                   {"sensor", vole::mark_colours::sensor},
                   {"off", vole::mark_colours::off},
                   {"probe", vole::mark_colours::probe_found},
                   {"+ position", vole::mark_colours::position}});
}

namespace {

// Of square cells, so many of which fit on a page.
int largest_side(int count, IVec2 extra) {
  const auto fit = [&](int side) {
    return (page_size.x - 2 * margin) / (side + extra.x) * ((page_size.y - 60) / (side + extra.y));
  };
  int side = 240;
  while (side > 40 && fit(side) < count) --side;
  return side;
}

// In cells of one size, each as large as it fits into its own.
void draw_all(const std::vector<ShownKind>& all, const std::string& headline, const std::string& output) {
  constexpr std::size_t most = 400;
  constexpr IVec2 extra{20, 44};
  Page page;
  page.text({margin, 16}, headline);
  draw_kind_legend(page, {page_size.x / 2, 16});
  const int count = static_cast<int>(std::min(all.size(), most));
  const int side = largest_side(count, extra);
  Flow cells({margin, 56}, page_size.x - margin, IVec2{side, side} + extra);
  for (std::size_t i = 0; i < all.size() && i < most; ++i) {
    const IVec2 at = cells.next();
    if (at.y > page_size.y) break;
    const Rect reach = reach_of(all[i]);
    const float largest = std::max({reach.size.x, reach.size.y, 1.0f});
    const int scale = std::clamp(side / static_cast<int>(std::ceil(largest)), 1, 8);
    const Vec2 middle = reach.at + reach.size * 0.5f;
    page.squares({at, {side, side}}, 4 * scale);
    draw_shown(page, all[i], at + IVec2{side, side} / 2 - IVec2(middle * static_cast<float>(scale)), scale);
    page.text({at.x, at.y + side + 6}, all[i].name, {.colour = ink, .width = side + extra.x});
    page.text({at.x, at.y + side + 20}, all[i].below, {.colour = faint, .width = side + extra.x});
  }
  page.save(output);
}

std::string told_of(const WrittenThing& thing) {
  if (!thing.body) return "no body";
  const Vec2 size = thing.body->bounds().size;
  return fmt::format("body {:g} x {:g}", size.x, size.y);
}

}  // namespace

vole::Colour mark_of(const vole::CollisionBody& body, std::uint32_t place) {
  if (body.use_of(place) == BodyUse::off) return vole::mark_colours::off;
  if (body.use_of(place) == BodyUse::sensor) return vole::mark_colours::sensor;
  return body.one_way == vole::OneWay::no ? vole::mark_colours::solid_body : vole::mark_colours::one_way;
}

void preview_kinds(vole::Catalog& catalog, const std::string& file, const std::string& output) {
  const WrittenThings things(catalog);
  std::vector<ShownKind> all;
  for (const auto& kind : things.kinds().all) {
    std::error_code none;
    if (!kind.where.file || !std::filesystem::equivalent(*kind.where.file, file, none)) continue;
    const WrittenThing thing = things.of_kind(kind.name);
    all.push_back({kind.name, told_of(thing), thing.frame(), thing});
  }
  if (all.empty()) throw vole::Error(vole::FilePosition::whole_file(file), "has no kinds to show");
  draw_all(all, fmt::format("{} kind{}", all.size(), all.size() == 1 ? "" : "s"), output);
}

void preview_sheet_shapes(vole::Catalog& catalog, const vole::Sheet& sheet, const std::string& file,
                          const std::string& output) {
  const WrittenThings things(catalog);
  std::vector<ShownKind> all;
  std::string names;
  for (const auto& kind : things.kinds().all) {
    const WrittenThing thing = things.of_kind(kind.name);
    if (!thing.kind->sprite || !thing.body || thing.kind->sprite->sheet_name.value != sheet.name) continue;
    names += (names.empty() ? "" : ", ") + kind.name;
    for (std::size_t i = 0; i < sheet.frames.size(); ++i)
      all.push_back({kind.name, fmt::format("frame {}", i), sheet.posed(static_cast<int>(i)), thing});
  }
  if (all.empty())
    throw vole::Error(vole::FilePosition::whole_file(file),
                      "no kind with a body shows this sheet, so it has no shapes to show",
                      "preview kinds.toml, a level or a tileset");
  draw_all(all, fmt::format("{}: {} frames with the body of {}", sheet.name, sheet.frames.size(), names),
           output);
}
