// Where a thing gets to in a level: ledges that it reaches, and the ways it takes; found by playing its mover.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "preview_level.hpp"
#include "preview_page.hpp"
#include "staged_level.hpp"
#include "vole/scene/bodies/solid_things.hpp"
#include "vole/scene/minds/reach.hpp"
#include "vole/scene/pictures/shape_drawing.hpp"

namespace {

using namespace paper;
using vole::Entity;
using vole::Ledge;
using vole::Reach;

constexpr Colour not_reached{0xff, 0x4a, 0x6a, 0xff};
constexpr Colour reached{0x4f, 0xe0, 0xd0, 0xff};

void draw_ledge(DrawList& list, LayerId layer, const Ledge& ledge) {
  const Colour colour = ledge.reached ? reached : not_reached;
  const vole::Vec2 first = ledge.spots.front();
  if (ledge.spots.size() == 1) list.fill(layer, {{first.x - 4, first.y}, {8, 3}}, colour);
  for (std::size_t i = 1; i < ledge.spots.size(); ++i)
    for (const float below : {0.0f, 1.0f, 2.0f})
      vole::draw_line(list, layer, ledge.spots[i - 1] + vole::Vec2{0, below},
                      ledge.spots[i] + vole::Vec2{0, below}, colour);
}

// The last part of the way there, a dot for every third tick.
void draw_way(DrawList& list, LayerId layer, const std::vector<vole::Vec2>& way) {
  for (std::size_t i = 1; i < way.size(); ++i) {
    vole::draw_line(list, layer, way[i - 1], way[i], mark);
    if (i % 3 == 0) list.fill(layer, {way[i] - vole::Vec2{1, 1}, {2, 2}}, ink);
  }
}

bool is_touched(const Reach& reach, Entity thing) {
  return std::find(reach.touched().begin(), reach.touched().end(), thing) != reach.touched().end();
}

// Steps in a row, as a person says them; of many the last.
std::string said(const std::vector<vole::Located<std::string>>& steps) {
  constexpr std::size_t most = 4;
  std::string text = steps.size() > most ? "..." : "";
  for (std::size_t i = steps.size() > most ? steps.size() - most : 0; i < steps.size(); ++i)
    text += (text.empty() ? "" : ", ") + steps[i].value;
  return text.empty() ? "it begins there" : text;
}

void print_ledges(const Reach& reach, const std::string& kind, int ticks_per_second) {
  const auto& ledges = reach.ledges();
  const auto count =
      std::count_if(ledges.begin(), ledges.end(), [](const Ledge& ledge) { return ledge.reached; });
  fmt::print("{} of {} ledges are reached by \"{}\", by playing {} ticks{}\n", count, ledges.size(), kind,
             reach.ticks(), reach.complete() ? "" : " (it was not tried to the end)");
  for (const Ledge& ledge : ledges) {
    const vole::Vec2 first = ledge.spots.front(), last = ledge.spots.back();
    const std::string where =
        fmt::format("ledge from [{}, {}] to [{}, {}]", first.x, first.y, last.x, last.y);
    if (!ledge.reached)
      fmt::print("  not reached: {}\n", where);
    else
      fmt::print("  {}: after {:.1f} seconds, {}\n", where,
                 static_cast<double>(reach.way_to(ledge.first, Reach::Part::all).size()) / ticks_per_second,
                 said(reach.steps_to(ledge.first)));
  }
}

}  // namespace

void preview_reach(vole::Catalog& catalog, const vole::Level& level, const std::string& kind,
                   const std::string& output) {
  if (kind.empty())
    throw vole::Error(vole::FilePosition::whole_file("levels/" + level.name + ".level.toml"), "which kind is to get there is missing",
                      "name its kind: --kind vole");
  const vole::Image image =
      picture_of(catalog, level, [&](StagedLevel& staged, DrawList& list, LayerId layer) {
        const Entity thing = staged.first(kind);
        vole::Stage& stage = staged.stage();
        const Reach reach(stage, thing);
        for (const Ledge& ledge : reach.ledges()) draw_ledge(list, layer, ledge);
        for (const Ledge& ledge : reach.ledges())
          if (ledge.reached) draw_way(list, layer, reach.way_to(ledge.first));
        std::as_const(stage.entities())
            .visit<vole::Body, vole::Pose>([&](Entity other, const vole::Body&, const vole::Pose&) {
              if (other == thing || is_touched(reach, other)) return;
              list.fill(layer, stage.solids().body(other).bounds(),
                        {not_reached.r, not_reached.g, not_reached.b, 120});
            });
        const vole::Vec2 start = stage.get<vole::Pose>(thing).at;
        list.fill(layer, {start - vole::Vec2{3, 3}, {6, 6}}, mark);
        print_ledges(reach, kind, stage.ticks_per_second());
      });
  save_level(image, output,
             {{"ledge: reached", reached},
              {"ledge or thing: not reached", not_reached},
              {"the last part of the way there, a dot for each third tick; and where it begins", mark}});
}
