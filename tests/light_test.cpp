// Darkness, lamps, and the shadows of walls.
#include "vole/draw/light.hpp"

#include <fmt/core.h>

#include <cmath>
#include <utility>

#include "test_stage.hpp"
#include "vole/draw/raster.hpp"
#include "vole/physics/shape.hpp"
#include "vole/world/lamp.hpp"

using Catch::Contains;
using vole::Colour;
using vole::IVec2;
using vole::LightCorner;
using vole::Vec2;
using vole::Wall;

namespace {

double cross(LightCorner a, LightCorner b) {
  return a.x * b.y - a.y * b.x;
}

// What a point gets of a lamp, by looking along the ray to it alone. `doubtful`: it lies so near to a border that rounding
// decides.
struct Looked {
  bool lit = true;
  bool doubtful = false;
};
Looked look(LightCorner lamp, LightCorner point, const std::vector<Wall>& walls, const vole::Beam& beam) {
  Looked seen;
  const LightCorner ray = point - lamp;
  const double length = std::sqrt(ray.x * ray.x + ray.y * ray.y);
  if (length == 0) return {true, beam.cone < 360};
  const auto doubt = [&](double off) { seen.doubtful = seen.doubtful || std::abs(off) < 1e-4; };
  if (beam.cone < 360) {
    double turn = std::atan2(ray.y, ray.x) * 180 / 3.14159265358979 - static_cast<double>(beam.direction);
    turn = std::remainder(turn, 360);
    doubt((std::abs(turn) - static_cast<double>(beam.cone) / 2) * length / 60);
    if (std::abs(turn) > static_cast<double>(beam.cone) / 2) seen.lit = false;
  }
  double nearest = 1e18, behind = 0;
  for (const Wall& wall : walls) {
    const LightCorner from = wall.from - lamp, to = wall.to - lamp, along = to - from;
    if (!(cross(from, to) < 0)) continue;  // it is seen from behind
    const double size = std::sqrt(along.x * along.x + along.y * along.y);
    // The ends as seen from the lamp.
    const double start = cross(to, ray), end = cross(ray, from);
    if (cross(to, from) > 0 && start > -1e-4 * length && end > -1e-4 * length) {
      doubt(start / length);
      doubt(end / length);
    }
    if (start < 0 || end < 0) continue;
    const double share = cross(from, along) / cross(ray, along);
    if (!(share > 0)) continue;
    doubt((share - nearest) * length);
    if (share >= nearest) continue;
    nearest = share;
    behind = cross(along, LightCorner{ray.x - from.x, ray.y - from.y}) / size;  // into the wall
  }
  doubt(behind - static_cast<double>(beam.depth));
  if (nearest < 1e17 && behind > static_cast<double>(beam.depth)) seen.lit = false;
  return seen;
}

struct LampIn {
  vole::LampItem item;
  vole::Beam beam;
};

// Every pixel by itself.
Colour lit(Colour pixel, IVec2 at, Colour dark, const std::vector<LampIn>& lamps,
           const std::vector<Wall>& walls, bool& doubtful) {
  int r = dark.r, g = dark.g, b = dark.b;
  for (const LampIn& lamp : lamps) {
    const LightCorner middle{lamp.item.at.x + 0.5, lamp.item.at.y + 0.5};
    const Looked seen = look(middle, {at.x + 0.5, at.y + 0.5}, walls, lamp.beam);
    const int bright = vole::brightness(lamp.item.glow, at - lamp.item.at);
    doubtful = doubtful || (seen.doubtful && bright > 0);
    if (!seen.lit) continue;
    r += vole::multiply(lamp.item.glow.colour.r, static_cast<std::uint8_t>(bright));
    g += vole::multiply(lamp.item.glow.colour.g, static_cast<std::uint8_t>(bright));
    b += vole::multiply(lamp.item.glow.colour.b, static_cast<std::uint8_t>(bright));
  }
  const auto by = [](std::uint8_t value, int light) {
    return vole::multiply(value, static_cast<std::uint8_t>(std::min(light, 255)));
  };
  return {by(pixel.r, r), by(pixel.g, g), by(pixel.b, b), 255};
}

vole::Image noise(IVec2 size, vole::Random& chance) {
  vole::Image image(size);
  for (int y = 0; y < size.y; ++y)
    for (int x = 0; x < size.x; ++x)
      image.row(y)[x] = {static_cast<std::uint8_t>(below(chance, 256)),
                         static_cast<std::uint8_t>(below(chance, 256)),
                         static_cast<std::uint8_t>(below(chance, 256)), 255};
  return image;
}

void add_polygon(const std::vector<LightCorner>& corners, std::vector<Wall>& walls) {
  for (std::size_t i = 0; i < corners.size(); ++i)
    walls.push_back({corners[i], corners[(i + 1) % corners.size()]});
}

// Boxes, triangles and thin walls, which may cross each other.
std::vector<Wall> some_walls(vole::Random& chance, bool on_grid) {
  std::vector<Wall> walls;
  const auto spot = [&](int most) {
    return on_grid ? 8.0 * below(chance, most / 8 + 1)
                   : static_cast<double>(chance.within(0, static_cast<float>(most)));
  };
  const int count = below(chance, 14);
  for (int i = 0; i < count; ++i) {
    const LightCorner at{spot(96), spot(64)};
    const double w = 8 + spot(24), h = 8 + spot(24);
    if (below(chance, 3) > 0)
      add_polygon({at, {at.x + w, at.y}, {at.x + w, at.y + h}, {at.x, at.y + h}}, walls);
    else
      add_polygon({{at.x, at.y + h}, {at.x + w, at.y}, {at.x + w, at.y + h}}, walls);
  }
  return walls;
}

struct DarkYard : TestStage {
  TempFolder folder;
  DarkYard() {
    write_small_game(folder);
    folder.write("kinds.toml",
                 "[lantern]\nlamp = { radius = 20, colour = \"#ffffff\" }\n"
                 "[mouse]\nsprite = { sheet = \"mouse\", clip = \"run\", layer = \"things\" }\n"
                 "lamp = { radius = 12, point = \"paw\", cone = 90, direction = 0 }\n"
                 "[crate]\nbody = { size = [8, 8], shadow = true }\n"
                 "[ball]\nshapes = [{ at = [0, -4], radius = 4 }]\nbody = { shadow = true }\n");
    folder.write("assets/mouse.sheet.toml",
                 "frame = { size = [8, 8] }\npivot = \"bottom\"\n[clips.run]\nframes = [0, 1, 2]\nfps = 12\n"
                 "[points.paw]\nat = [7, 3]\n");
    level("[light]\ndarkness = 1\ndither = false\nsteps = 0\nwall_depth = 0\n");
  }
  void level(const std::string& more, const std::string& layers = {}) {
    folder.write("levels/patch.level.toml",
                 "sky = \"#ffffff\"\ntileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\", \"-\" = "
                 "\"board\" }\n" +
                     more +
                     "[[layers]]\nname = \"ground\"\nrows = "
                     "[\n\"........\",\n\"........\",\n\"....#...\",\n\"..-.....\"]\n"
                     "[[layers]]\nname = \"things\"\n" +
                     layers);
    folder.write("assets/soil.tileset.toml",
                 "frame = { size = [8, 8] }\n[tiles]\nsoil = { cell = [0, 0], solid = true }\n"
                 "board = { cell = [0, 0], shape = \"upper half\", one_way = \"up\" }\n");
  }
  vole::Image picture() {
    vole::DrawList list;
    list.start({64, 32});
    running->draw(list, 1);
    list.sort();
    vole::Image canvas({64, 32}, vole::white);
    raster.draw(list, canvas);
    return canvas;
  }
  // How bright a pixel of the white sky is.
  int at(int x, int y) { return picture().row(y)[x].g; }
  vole::Raster raster;
};

}  // namespace

TEST_CASE("what a lamp lights between walls is, pixel by pixel, what a ray to each pixel meets first") {
  vole::Random chance(5);
  std::int64_t pixels = 0, doubtful_pixels = 0;
  vole::Raster raster;
  for (int round = 0; round < cases(150); ++round) {
    const IVec2 size{96, 64};
    const std::vector<Wall> walls = some_walls(chance, round % 2 == 0);
    vole::Lighting lighting;
    lighting.dark = {static_cast<std::uint8_t>(below(chance, 200)),
                     static_cast<std::uint8_t>(below(chance, 200)), 30, 255};
    std::vector<LampIn> lamps;
    const int count = 1 + below(chance, 4);
    vole::LitArea area;
    for (int i = 0; i < count; ++i) {
      LampIn lamp;
      lamp.item.at = {below(chance, 130) - 15, below(chance, 100) - 15};
      lamp.item.glow = {
          1 + below(chance, 60),
          {static_cast<std::uint8_t>(below(chance, 256)), static_cast<std::uint8_t>(below(chance, 256)),
           static_cast<std::uint8_t>(below(chance, 256)), 255},
          below(chance, 5),
          below(chance, 7),
          below(chance, 2) == 0};
      lamp.beam.depth = static_cast<float>(below(chance, 9));
      if (below(chance, 3) == 0)
        lamp.beam = {lamp.beam.depth, chance.within(1, 359), chance.within(-360, 360)};
      const LightCorner middle{lamp.item.at.x + 0.5, lamp.item.at.y + 0.5};
      std::vector<Wall> around = walls;
      for (Wall& wall : around) wall = {wall.from - middle, wall.to - middle};
      area.find({0, 0}, static_cast<float>(lamp.item.glow.radius + 1), around, lamp.beam);
      vole::light_up(lamp.item, area.corners(), lighting);
      lamps.push_back(lamp);
    }
    const vole::Image before = noise(size, chance);
    vole::Image canvas = before;
    vole::DrawList list;
    list.start(size);
    list.add(list.add_layer({0, 0}), lighting);
    list.sort();
    raster.draw(list, canvas);
    for (int y = 0; y < size.y; ++y)
      for (int x = 0; x < size.x; ++x) {
        bool doubtful = false;
        const Colour wanted = lit(before.row(y)[x], {x, y}, lighting.dark, lamps, walls, doubtful);
        ++pixels;
        doubtful_pixels += doubtful;
        if (doubtful || canvas.row(y)[x] == wanted) continue;
        CAPTURE(round, x, y, count, walls.size());
        FAIL("another colour");
      }
  }
  CHECK(doubtful_pixels * 25 < pixels);
}

TEST_CASE("areas are as dark as they say, and fade towards their border") {
  vole::Random chance(8);
  vole::Raster raster;
  for (int round = 0; round < cases(100); ++round) {
    const IVec2 size{48, 40};
    vole::Lighting lighting;
    lighting.dark = round % 5 == 0 ? vole::white : Colour{90, 80, 70, 255};
    lighting.steps = below(chance, 6);
    lighting.dithered = below(chance, 2) == 0;
    std::vector<std::vector<Vec2>> polygons;
    for (int i = 0; i < 3; ++i) {
      vole::DarkArea area;
      area.dark = {static_cast<std::uint8_t>(below(chance, 256)), 10, 20, 255};
      std::vector<Vec2> corners;
      if (below(chance, 3) == 0) {
        const Vec2 at{chance.within(-10, 40), chance.within(-10, 30)};
        corners = {at, at + Vec2{chance.within(5, 30), chance.within(0, 9)},
                   at + Vec2{chance.within(3, 20), chance.within(12, 30)}};
        Vec2 low = corners[0], high = corners[0];
        for (const Vec2 corner : corners) {
          low = {std::min(low.x, corner.x), std::min(low.y, corner.y)};
          high = {std::max(high.x, corner.x), std::max(high.y, corner.y)};
        }
        area.box = {low, high - low};
        area.first = lighting.corners.size();
        area.corners = corners.size();
        for (const Vec2 corner : corners)
          lighting.corners.push_back({static_cast<double>(corner.x), static_cast<double>(corner.y)});
      } else {
        area.box = {{static_cast<float>(below(chance, 50) - 10), static_cast<float>(below(chance, 40) - 10)},
                    {static_cast<float>(1 + below(chance, 40)), static_cast<float>(1 + below(chance, 40))}};
        area.fade = below(chance, 12);
      }
      polygons.push_back(corners);
      lighting.areas.push_back(area);
    }
    const vole::Image before = noise(size, chance);
    vole::Image canvas = before;
    vole::LightRaster().draw(lighting, {{0, 0}, size}, canvas);
    for (int y = 0; y < size.y; ++y)
      for (int x = 0; x < size.x; ++x) {
        Colour dark = lighting.dark;
        bool doubtful = false;
        for (std::size_t i = 0; i < 3; ++i) {
          const vole::DarkArea& area = lighting.areas[i];
          const Vec2 middle = Vec2{static_cast<float>(x), static_cast<float>(y)} + Vec2(0.5f);
          if (!polygons[i].empty()) {
            vole::LevelZone zone;
            zone.area = area.box;
            zone.corners = polygons[i];
            for (const Vec2 off : {Vec2{0.01f, 0}, Vec2{-0.01f, 0}, Vec2{0, 0.01f}, Vec2{0, -0.01f}})
              doubtful = doubtful || zone.contains(middle + off) != zone.contains(middle);
            if (zone.contains(middle)) dark = area.dark;
            continue;
          }
          if (!area.box.contains(middle)) continue;
          const float inside = std::min({middle.x - area.box.left(), area.box.right() - middle.x,
                                         middle.y - area.box.top(), area.box.bottom() - middle.y});
          const int steps = lighting.steps > 0 ? lighting.steps : 255;
          const IVec2 off = IVec2{x, y} - IVec2(area.box.at);
          const float share = area.fade > 0 ? inside / static_cast<float>(area.fade) : 1;
          const float by =
              lighting.dithered ? (static_cast<float>(vole::dither_at(off.x, off.y)) + 0.5f) / 16 : 0.5f;
          const int step =
              share >= 1 ? steps : std::min(steps, static_cast<int>(share * static_cast<float>(steps) + by));
          const auto part = [&](std::uint8_t a, std::uint8_t b) {
            return static_cast<std::uint8_t>(a + (b - a) * step / steps);
          };
          dark = {part(dark.r, area.dark.r), part(dark.g, area.dark.g), part(dark.b, area.dark.b), 255};
        }
        const Colour pixel = before.row(y)[x];
        const Colour wanted{vole::multiply(pixel.r, dark.r), vole::multiply(pixel.g, dark.g),
                            vole::multiply(pixel.b, dark.b), 255};
        if (doubtful || canvas.row(y)[x] == wanted) continue;
        CAPTURE(round, x, y);
        FAIL("another darkness");
      }
  }
}

TEST_CASE("a lamp shines in so many steps, and is remembered however many others there were") {
  const vole::LampGlow glow{20, vole::white, 1, 3, true};
  std::set<int> steps;
  int last = 255;
  for (int x = 0; x <= 21; ++x) steps.insert(vole::brightness(glow, {x, 0}));
  CHECK(steps == std::set<int>{0, 85, 170, 255});
  for (int x = 0; x <= 21; ++x) {
    const int smooth = vole::brightness({20, vole::white, 2, 0, true}, {x, 0});
    CHECK(smooth <= last);
    last = smooth;
  }
  CHECK(vole::brightness({20, vole::white, 0, 1, false}, {20, 0}) == 255);
  CHECK(vole::brightness({20, vole::white, 0, 1, false}, {15, 15}) == 0);
  // Over and over other lamps, so that most are forgotten again.
  vole::LightRaster raster;
  vole::Random chance(2);
  for (int i = 0; i < 40; ++i) {
    vole::Lighting lighting;
    lighting.dark = {0, 0, 0, 255};
    for (int k = 0; k < 3; ++k)
      lighting.lamps.push_back(
          {{32, 16},
           {300 + below(chance, 200), {static_cast<std::uint8_t>(below(chance, 80)), 9, 9, 255}, 0, 4, true},
           false,
           0,
           0});
    vole::Image canvas({64, 32}, vole::white);
    raster.draw(lighting, {{0, 0}, {64, 32}}, canvas);
    int red = 0;
    for (const vole::LampItem& lamp : lighting.lamps) red += lamp.glow.colour.r;
    REQUIRE(canvas.row(5)[5].r == std::min(red, 255));
  }
}

TEST_CASE("a dark level is lit by its lamps, behind whose walls it stays dark") {
  DarkYard yard;
  vole::Stage& stage = yard.start(yard.folder);
  stage.load_level("patch");
  CHECK(yard.at(20, 20) == 0);
  const vole::Entity lantern = stage.spawn("lantern", {26, 20});
  CHECK(yard.at(26, 20) == 255);
  CHECK(yard.at(28, 20) > 200);
  CHECK(yard.at(44, 20) == 0);  // behind the wall from 32 to 40
  CHECK(yard.at(26, 30) > 0);   // a board that things jump through lets light through
  // A crate in the way, and out of it.
  const vole::Entity crate = stage.spawn("crate", {20, 24});
  CHECK(yard.at(12, 20) == 0);
  stage.get<vole::Body>(crate).use = vole::BodyUse::off;
  CHECK(yard.at(12, 20) > 0);
  stage.remove(crate);
  yard.tick();
  const vole::Entity ball = stage.spawn("ball", {20, 24});
  CHECK(yard.at(12, 20) == 0);
  CHECK(yard.at(18, 6) > 0);
  stage.remove(ball);
  yard.tick();
  stage.get<vole::Lamp>(lantern).shadows = false;
  CHECK(yard.at(44, 20) > 0);
  stage.get<vole::Lamp>(lantern).shines = false;
  CHECK(yard.at(26, 20) == 0);
  // On a point of a sprite, and round with it.
  const vole::Entity mouse = stage.spawn("mouse", {20, 16});
  CHECK(yard.at(27, 11) > 0);
  CHECK(yard.at(16, 11) == 0);
  stage.get<vole::Pose>(mouse).mirrored = true;
  CHECK(yard.at(27, 11) == 0);
  CHECK(yard.at(13, 11) > 0);
  stage.get<vole::Lamp>(mouse).flicker = 1;
  std::set<int> seen;
  for (int i = 0; i < 120; ++i) {
    yard.tick();
    seen.insert(yard.at(10, 11));
  }
  CHECK(seen.size() > 3);
  // Lighter by code, which is a part of the state.
  const vole::StateBytes before = yard.state();
  stage.level().darken(0.5f);
  CHECK(yard.at(60, 2) == 128);
  CHECK(yard.state() != before);
  stage.level().darken(0);
  CHECK(yard.at(60, 2) == 255);
}

TEST_CASE(
    "lamps light the same in a scene that is restored or entered anew as in one that remembers nothing") {
  DarkYard yard;
  yard.start(yard.folder).load_level("patch");
  yard.running->stage().spawn("lantern", {26, 20});
  yard.running->stage().spawn("lantern", {50, 8});
  vole::Random chance(3);
  std::vector<vole::StateBytes> kept{yard.state()};
  const auto restore = [&](const vole::StateBytes& state) {
    yard.running = std::make_unique<vole::RunningScene>(
        *yard.setting, yard.game.steps(), yard.game.scenes().get("cues"), vole::SceneArgument(), 1);
    vole::StateReader in(state);
    yard.running->read(in);
    yard.running->bind();
  };
  for (int i = 0; i < cases(300); ++i) {
    vole::LevelNow& level = yard.running->stage().level();
    level.put("ground", {below(chance, 8), below(chance, 4)}, chance.chance(0.5f) ? "soil" : "");
    if (chance.chance(0.3f)) restore(kept[chance.below(static_cast<std::uint32_t>(kept.size()))]);
    if (chance.chance(0.2f)) kept.push_back(yard.state());
    const vole::Image picture = yard.picture();
    // Nothing that was found for another scene.
    const auto caches = std::exchange(yard.setting->caches, vole::make_scene_caches());
    const vole::StateBytes state = yard.state();
    restore(state);
    const vole::Image anew = yard.picture();
    yard.setting->caches = caches;
    restore(state);
    for (int y = 0; y < 32; ++y) REQUIRE(std::equal(picture.row(y), picture.row(y) + 64, anew.row(y)));
  }
}

TEST_CASE("zones are darker than the level, and the last layers are drawn over the dark") {
  DarkYard yard;
  yard.level("[light]\ncolour = \"#102030\"\ndither = false\n",
             "[[layers]]\nname = \"signs\"\nlit = false\n"
             "[[zones]]\nname = \"den\"\narea = [32, 0, 32, 16]\ndarkness = 1\n"
             "[[zones]]\nname = \"nook\"\npoints = [[0, 20], [20, 20], [0, 32]]\ndarkness = 0.5\n");
  vole::Stage& stage = yard.start(yard.folder);
  stage.load_level("patch");
  CHECK(yard.at(10, 4) == 255);
  CHECK(yard.at(40, 4) == 0x20);
  CHECK(yard.at(2, 24) == (255 + 0x20) / 2 + 1);
  CHECK(yard.at(14, 29) == 255);
  stage.spawn("mouse", {50, 12},
              vole::parse_toml("sprite = { layer = \"signs\" }\nlamp = { shines = false }", "test"));
  CHECK(yard.at(50, 8) == 0x4a);
  stage.spawn("mouse", {40, 12}, vole::parse_toml("lamp = { shines = false }", "test"));
  CHECK(yard.at(40, 8) == vole::multiply(0x4a, 0x20));
}

TEST_CASE("what is wrong with light is reported, and lamps of any size harm nobody") {
  DarkYard yard;
  const auto wrong = [&](const std::string& light, const std::string& layers) {
    yard.level(light, layers);
    return error_of([&] { yard.start(yard.folder).load_level("patch"); }, yard.folder);
  };
  CHECK_THAT(wrong("[light]\ndarkness = 2\n", ""),
             Contains("levels/patch.level.toml:5:12") && Contains("2 is too large; the most is 1"));
  CHECK_THAT(wrong("[light]\nsteps = -1\n", ""), Contains("5:9"));
  CHECK_THAT(wrong("[light]\nglow = 1\n", ""), Contains("unknown key \"glow\""));
  CHECK_THAT(wrong("", "lit = false\n[[layers]]\nname = \"more\"\n"),
             Contains("layer \"more\" is lit, and comes after one that is not"));
  CHECK_THAT(
      wrong("", "[[zones]]\nname = \"den\"\npoints = [[0, 0], [9, 0], [0, 9]]\ndarkness = 1\nfade = 4\n"),
      Contains("zone \"den\" cannot fade"));
  yard.level("[light]\ndarkness = 1\n");
  const auto wrong_kind = [&](const std::string& kind) {
    yard.folder.write("kinds.toml", kind);
    return error_of(
        [&] {
          yard.start(yard.folder).spawn(kind.substr(1, kind.find(']') - 1), {0, 0});
        },
        yard.folder);
  };
  CHECK_THAT(wrong_kind("[a]\nlamp = { radius = -1 }\n"),
             Contains("kinds.toml:2:") && Contains("-1 is too small"));
  CHECK_THAT(wrong_kind("[a]\nlamp = { radius = inf }\n"), Contains("kinds.toml:2:"));
  CHECK_THAT(wrong_kind("[a]\nlamp = { radius = nan }\n"), Contains("kinds.toml:2:"));
  CHECK_THAT(wrong_kind("[a]\nlamp = { point = \"paw\" }\n"),
             Contains("a thing without a sprite has no points for a lamp"));
  CHECK_THAT(
      wrong_kind("[a]\nsprite = { sheet = \"mouse\", layer = \"things\" }\nlamp = { point = \"pow\" }\n"),
      Contains("no point \"pow\" in \"mouse\"; did you mean \"paw\"?"));
  yard.folder.write("kinds.toml", "[lantern]\nlamp = {}\n");
  vole::Stage& stage = yard.start(yard.folder);
  stage.load_level("patch");
  const vole::Entity lantern = stage.spawn("lantern", {20, 10});
  for (const float radius : {0.0f, -5.0f, std::nanf(""), INFINITY, -INFINITY, 1e30f, 511.0f})
    for (const float off : {0.0f, 1e9f, std::nanf(""), -INFINITY}) {
      vole::Lamp& lamp = stage.get<vole::Lamp>(lantern);
      lamp.radius = radius;
      lamp.offset = {off, 0};
      lamp.cone = radius;
      lamp.direction = off;
      lamp.flicker = off;
      lamp.brightness = radius;
      lamp.falloff = 1000000;
      yard.picture();
    }
}

TEST_CASE("a dark picture allocates nothing after the first") {
  if (!allocations_are_counted()) return;
  DarkYard yard;
  vole::Stage& stage = yard.start(yard.folder);
  stage.load_level("patch");
  stage.spawn("lantern", {26, 20});
  stage.spawn("lantern", {50, 10});
  stage.spawn("crate", {20, 24});
  vole::DrawList list;
  vole::Image canvas({64, 32}, vole::white);
  const auto draw = [&] {
    list.start({64, 32});
    yard.running->draw(list, 1);
    list.sort();
    yard.raster.draw(list, canvas);
  };
  draw();
  draw();
  const std::int64_t before = allocations_so_far();
  for (int i = 0; i < 10; ++i) draw();
  CHECK(allocations_so_far() == before);
}
