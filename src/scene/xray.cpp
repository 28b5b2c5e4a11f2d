// The shapes over the picture, coloured by what they are.
#include <array>

#include "tick.hpp"
#include "vole/draw/text.hpp"
#include "vole/world/body.hpp"
#include "vole/world/motion.hpp"

namespace vole {
namespace {

struct Role {
  std::string_view name;
  Colour colour;
};
constexpr Role solid_role{"solid tile", {0xd9, 0x72, 0x4a, 0xff}};
constexpr Role mover_role{"body with mover", {0x7f, 0xb8, 0xb0, 0xff}};
constexpr Role body_role{"other body", {0xe6, 0xc7, 0x7d, 0xff}};
constexpr Role pivot_role{"pivot", {0xf7, 0xf3, 0xe3, 0xff}};

void draw_pivot(DrawList& list, LayerId layer, Vec2 at) {
  list.fill(layer, {{at.x - 1, at.y}, {3, 1}}, pivot_role.colour);
  list.fill(layer, {{at.x, at.y - 1}, {1, 3}}, pivot_role.colour);
}

// What the colours mean, in the top left corner, unless that would hide most of what there is to see.
void draw_meanings(DrawList& list) {
  constexpr int line = 11, margin = 3;
  const std::array<Role, 4> roles{solid_role, mover_role, body_role, pivot_role};
  const Font& font = plain_font();
  int width = 0;
  for (const Role& role : roles) width = std::max(width, measure_text(font, role.name, 0).x);
  const Vec2 size(width + 12 + 2 * margin, static_cast<int>(roles.size()) * line + margin);
  if (size.x * 2 > static_cast<float>(list.canvas().x) || size.y * 2 > static_cast<float>(list.canvas().y))
    return;
  const LayerId layer = list.add_layer({0, 0});
  list.fill(layer, {{0, 0}, size}, {0x1b, 0x1a, 0x26, 0xd0});
  for (std::size_t i = 0; i < roles.size(); ++i) {
    const auto top = static_cast<float>(margin + static_cast<int>(i) * line);
    if (roles[i].name == pivot_role.name)
      draw_pivot(list, layer, {margin + 3, top + 3});
    else
      list.outline(layer, {{margin, top}, {7, 7}}, roles[i].colour);
    draw_text(list, layer, font, roles[i].name, {margin + 11, top}, {.colour = roles[i].colour});
  }
}

}  // namespace

void RunningScene::draw_xray(DrawList& list, float share) const {
  const Camera& camera = world_.camera;
  const LevelNow& level = world_.level;
  const IVec2 corner = camera.corner({1, 1}, share);
  const LayerId layer = list.add_layer(corner);
  if (level) {
    const int size = level.tile_size();
    const IVec2 cells = level.cells();
    for (int y = std::max(corner.y / size - 1, 0); y <= (corner.y + camera.canvas.y) / size && y < cells.y;
         ++y)
      for (int x = std::max(corner.x / size - 1, 0); x <= (corner.x + camera.canvas.x) / size && x < cells.x;
           ++x)
        if (level.solid().solid(x, y))
          list.outline(layer, {Vec2(x * size, y * size), Vec2(size, size)}, solid_role.colour);
  }
  world_.entities.visit<Pose>([&](Entity entity, const Pose& pose) {
    const Vec2 at = pose.shown_at(share);
    const bool moves = world_.entities.has<Motion>(entity);
    if (const Body* body = world_.entities.find<Body>(entity))
      list.outline(layer, body->box(at), moves ? mover_role.colour : body_role.colour);
    draw_pivot(list, layer, at);
  });
  draw_meanings(list);
}

}  // namespace vole
