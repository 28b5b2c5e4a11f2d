#include "vole/draw/light.hpp"

#include <algorithm>
#include <cmath>

#include "blend.hpp"

namespace vole {
namespace {

constexpr std::size_t most_glow_pixels = std::size_t{8} << 20;

Colour opaque(Colour colour) {
  colour.a = 255;
  return colour;
}

std::uint8_t faded(std::uint8_t from, std::uint8_t to, int step, int steps) {
  return static_cast<std::uint8_t>(from + (to - from) * step / steps);
}

// In whole steps, by the pattern.
int step_of(float share, int steps, bool dithered, int x, int y) {
  const float off = dithered ? (static_cast<float>(dither_at(x, y)) + 0.5f) / 16 : 0.5f;
  return std::min(static_cast<int>(share * static_cast<float>(steps) + off), steps);
}

// The first pixel whose middle is not before it. By whole numbers: rounding up is a call where processors have no instruction
// for it.
int first_pixel(double border) {
  const double from = std::clamp(border, -1e6, 1e6) - 0.5;
  const int whole = static_cast<int>(from);
  return whole + (static_cast<double>(whole) < from);
}

// Calls visit(from, to) for the pixels between two crossings of a row, and two, within the clip.
template <class Visit>
void visit_spans(const std::vector<int>& crossings, int left, int right, const Visit& visit) {
  for (std::size_t i = 0; i + 1 < crossings.size(); i += 2) {
    const int from = std::max(crossings[i], left);
    const int to = std::min(crossings[i + 1], right);
    if (from < to) visit(from, to);
  }
}

void insert_sorted(std::vector<int>& crossings, int x) {
  crossings.push_back(x);
  for (std::size_t i = crossings.size() - 1; i > 0 && crossings[i - 1] > crossings[i]; --i)
    std::swap(crossings[i - 1], crossings[i]);
}

void add_row(Colour* to, const Colour* light, int count) {
  int i = 0;
#if defined(__SSE2__)
  for (; i + 4 <= count; i += 4) sse::store(to + i, _mm_adds_epu8(sse::load(to + i), sse::load(light + i)));
#endif
  for (; i < count; ++i) to[i] = added(light[i], to[i]);
}

void multiply_row(Colour* to, const Colour* light, int count) {
  int i = 0;
#if defined(__SSE2__)
  const __m128i zero = _mm_setzero_si128();
  for (; i + 4 <= count; i += 4) {
    const __m128i a = sse::load(to + i), b = sse::load(light + i);
    const __m128i low = sse::multiply_lanes(_mm_unpacklo_epi8(a, zero), _mm_unpacklo_epi8(b, zero));
    const __m128i high = sse::multiply_lanes(_mm_unpackhi_epi8(a, zero), _mm_unpackhi_epi8(b, zero));
    sse::store(to + i, _mm_packus_epi16(low, high));
  }
#endif
  for (; i < count; ++i) to[i] = tinted(to[i], light[i]);
}

}  // namespace

void Lighting::clear() {
  areas.clear();
  lamps.clear();
  corners.clear();
}

void light_up(const LampItem& lamp, std::span<const LightCorner> area, Lighting& lighting) {
  LampItem& added = lighting.lamps.emplace_back(lamp);
  added.bounded = true;
  added.first = lighting.corners.size();
  added.corners = area.size();
  for (const LightCorner corner : area)
    lighting.corners.push_back(corner + LightCorner{lamp.at.x + 0.5, lamp.at.y + 0.5});
}

std::uint8_t brightness(const LampGlow& glow, IVec2 off) {
  const auto square = static_cast<float>(off.x * off.x + off.y * off.y);
  const float left = 1 - std::sqrt(square) / (static_cast<float>(glow.radius) + 0.5f);
  if (left <= 0) return 0;
  float share = 1;
  for (int i = 0; i < glow.falloff; ++i) share *= left;
  if (glow.steps <= 0) return static_cast<std::uint8_t>(share * 255 + 0.5f);
  return static_cast<std::uint8_t>(step_of(share, glow.steps, glow.dithered, off.x, off.y) * 255 /
                                   glow.steps);
}

// What a lamp looks like is painted once.
std::size_t LightRaster::glow_of(const LampGlow& glow) {
  for (std::size_t i = 0; i < glows_.size(); ++i)
    if (glows_[i].of == glow) {
      glows_[i].used = times_;
      return i;
    }
  Glow& painted = glows_.emplace_back();
  painted.of = glow;
  painted.used = times_;
  painted.pixels.clear();
  for (int y = -glow.radius; y <= glow.radius; ++y)
    for (int x = -glow.radius; x <= glow.radius; ++x) {
      const std::uint8_t bright = brightness(glow, {x, y});
      painted.pixels.push_back({multiply(glow.colour.r, bright), multiply(glow.colour.g, bright),
                                multiply(glow.colour.b, bright), 255});
    }
  glow_pixels_ += painted.pixels.size();
  for (int y = 0, half = glow.radius; y <= glow.radius; ++y) {
    while (half > 0 && half * half + y * y > glow.radius * (glow.radius + 1)) --half;
    painted.halves.push_back(half);
  }
  return glows_.size() - 1;
}

// When there are too many, those that this picture does not need.
void LightRaster::forget_glows() {
  if (glow_pixels_ <= most_glow_pixels) return;
  std::erase_if(glows_, [this](const Glow& glow) { return glow.used != times_; });
  glow_pixels_ = 0;
  for (const Glow& glow : glows_) glow_pixels_ += glow.pixels.size();
}

// Where the sides of a polygon cross the middles of rows of pixels, from left to right, for each row from `top` on.
void LightRaster::find_crossings(const Lighting& lighting, std::size_t first, std::size_t corners, int top,
                                 int bottom, std::size_t into) {
  const std::size_t rows = into + static_cast<std::size_t>(std::max(bottom - top, 0));
  if (crossings_.size() < rows) crossings_.resize(rows);
  for (std::size_t i = into; i < rows; ++i) crossings_[i].clear();
  for (std::size_t i = 0; i < corners; ++i) {
    LightCorner a = lighting.corners[first + i], b = lighting.corners[first + (i + 1) % corners];
    if (a.y > b.y) std::swap(a, b);
    const int low = std::max(first_pixel(a.y), top), high = std::min(first_pixel(b.y), bottom);
    if (low >= high) continue;
    const double slope = (b.x - a.x) / (b.y - a.y);
    for (int y = low; y < high; ++y)
      insert_sorted(crossings_[into + static_cast<std::size_t>(y - top)],
                    first_pixel(a.x + (y + 0.5 - a.y) * slope));
  }
}

// What a row of pixels gets of the dark itself.
void LightRaster::darken(const Lighting& lighting, int y, Colour* row, const IRect& clip) {
  copy_row(row + clip.left(), dark_row_.data() + clip.left(), clip.size.x);
  for (std::size_t i = 0; i < lighting.areas.size(); ++i) {
    const DarkArea& area = lighting.areas[i];
    const IVec2 start{first_pixel(area.box.left()), first_pixel(area.box.top())};
    const IVec2 end{first_pixel(area.box.right()), first_pixel(area.box.bottom())};
    if (y < start.y || y >= end.y) continue;
    if (area.corners > 0) {
      const int top = std::max(start.y, clip.top());
      visit_spans(crossings_[areas_[i] + static_cast<std::size_t>(y - top)], clip.left(), clip.right(),
                  [&](int from, int to) { fill_row(row + from, to - from, opaque(area.dark)); });
      continue;
    }
    const int down = std::min(y - start.y, end.y - 1 - y);
    for (int x = std::max(start.x, clip.left()); x < std::min(end.x, clip.right()); ++x) {
      const int inside = std::min({down, x - start.x, end.x - 1 - x});
      if (inside >= area.fade) {
        const int flat = down >= area.fade ? std::min(end.x - area.fade, clip.right()) - x : 1;
        fill_row(row + x, std::max(flat, 1), opaque(area.dark));
        x += std::max(flat, 1) - 1;
        continue;
      }
      const float share = (static_cast<float>(inside) + 0.5f) / static_cast<float>(area.fade);
      const int steps = lighting.steps > 0 ? lighting.steps : 255;
      const int step = step_of(share, steps, lighting.dithered, x - start.x, y - start.y);
      Colour& its = row[x];
      its = {faded(its.r, area.dark.r, step, steps), faded(its.g, area.dark.g, step, steps),
             faded(its.b, area.dark.b, step, steps), 255};
    }
  }
}

// And what it gets of a lamp.
void LightRaster::add_lamp(const Lamp& lamp, int y, Colour* row, const IRect& clip) {
  const LampItem& item = *lamp.item;
  const Glow& glow = glows_[lamp.glow];
  const int radius = item.glow.radius;
  const Colour* const light = glow.pixels.data() +
                              static_cast<std::ptrdiff_t>(y - item.at.y + radius) * (2 * radius + 1) +
                              (radius - item.at.x);
  const int half = glow.halves[static_cast<std::size_t>(std::abs(y - item.at.y))];
  const int left = std::max(item.at.x - half, clip.left());
  const int right = std::min(item.at.x + half + 1, clip.right());
  const auto add = [&](int from, int to) { add_row(row + from, light + from, to - from); };
  if (item.bounded)
    visit_spans(crossings_[lamp.crossings + static_cast<std::size_t>(y - lamp.box.top())], left, right, add);
  else if (left < right)
    add(left, right);
}

void LightRaster::find_borders(const Lighting& lighting, const IRect& clip) {
  lamps_.clear();
  areas_.clear();
  std::size_t used = 0;
  const auto find = [&](std::size_t first, std::size_t corners, int top, int bottom) {
    find_crossings(lighting, first, corners, top, bottom, used);
    used += static_cast<std::size_t>(std::max(bottom - top, 0));
  };
  for (const DarkArea& area : lighting.areas) {
    areas_.push_back(used);
    if (area.corners > 0)
      find(area.first, area.corners, std::max(first_pixel(area.box.top()), clip.top()),
           std::min(first_pixel(area.box.bottom()), clip.bottom()));
  }
  for (const LampItem& item : lighting.lamps) {
    const int radius = item.glow.radius;
    const IRect box = IRect{item.at - IVec2(radius), IVec2(2 * radius + 1)}.shared_with(clip);
    if (radius <= 0 || radius > largest_lamp || box.empty()) continue;
    lamps_.push_back({&item, glow_of(item.glow), box, used});
    if (item.bounded) find(item.first, item.corners, box.top(), box.bottom());
  }
}

// In bands of rows: what was just written is not read again at once, which a processor would have to wait for.
void LightRaster::draw(const Lighting& lighting, const IRect& clip, Image& canvas) {
  constexpr int band = 8;
  const IRect area = clip.shared_with(canvas.area());
  if (area.empty() || (lighting.dark == white && lighting.areas.empty())) return;
  ++times_;
  find_borders(lighting, area);
  const auto width = static_cast<std::size_t>(canvas.size().x);
  dark_row_.assign(width, opaque(lighting.dark));
  rows_.resize(width * band);
  for (int top = area.top(); top < area.bottom(); top += band) {
    const int bottom = std::min(top + band, area.bottom());
    const auto row = [&](int y) { return rows_.data() + static_cast<std::size_t>(y - top) * width; };
    for (int y = top; y < bottom; ++y) darken(lighting, y, row(y), area);
    for (const Lamp& lamp : lamps_)
      for (int y = std::max(top, lamp.box.top()); y < std::min(bottom, lamp.box.bottom()); ++y)
        add_lamp(lamp, y, row(y), area);
    for (int y = top; y < bottom; ++y)
      multiply_row(canvas.row(y) + area.left(), row(y) + area.left(), area.size.x);
  }
  forget_glows();
}

}  // namespace vole
