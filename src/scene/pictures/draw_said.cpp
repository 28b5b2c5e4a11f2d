#include "draw_said.hpp"

#include <algorithm>
#include <cmath>

#include "placement.hpp"
#include "scene/sequences/said.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/draw/text.hpp"
#include "vole/world/sprite.hpp"

namespace vole {
namespace {

constexpr Colour paper{0x1d, 0x1a, 0x16, 0xd8}, ink{0xf2, 0xe6, 0xc8, 0xff};
constexpr int said_rim = 3, said_gap = 4;

// Its upper edge, as it is drawn.
float height_of(const Sprite* sprite, int ticks_per_second) {
  const int frame = sprite ? sprite->frame(ticks_per_second) : -1;
  if (frame < 0) return 0;
  const Frame posed = sprite->sheet()->posed(frame, sprite->playhead().clip());
  return static_cast<float>(posed.pivot.y) * sprite->scale.y;
}

}  // namespace

void draw_said(DrawList& list, LayerId layer, const World& world, float share, int ticks_per_second) {
  const Font& font = plain_font();
  const Vec2 canvas(list.canvas());
  visit_said(world, ticks_per_second, [&](const Said& said) {
    // As large as all of it will be, so that it does not grow with each letter.
    const int widest = std::max(list.canvas().x * 2 / 3 - 2 * said_rim, 16);
    const Vec2 size = Vec2(measure_text(font, said.all, widest)) + Vec2(2 * said_rim);
    Vec2 at{(canvas.x - size.x) / 2, canvas.y - size.y - said_gap};
    if (said.by && world.entities.has<Pose>(said.by)) {
      const Vec2 feet =
          world.camera.to_canvas(placement(world, said.by, share, Tracks::left_out, ticks_per_second).at);
      const float height = height_of(world.entities.find<Sprite>(said.by), ticks_per_second);
      at = {feet.x - size.x / 2, feet.y - height - size.y - said_gap};
    }
    at = {std::clamp(at.x, 0.0f, std::max(canvas.x - size.x, 0.0f)),
          std::clamp(at.y, 0.0f, std::max(canvas.y - size.y, 0.0f))};
    at = {std::floor(at.x), std::floor(at.y)};
    list.fill(layer, {at, size}, paper);
    draw_text(list, layer, font, said.text, at + Vec2(said_rim), {.colour = ink, .width = widest});
  });
}

}  // namespace vole
