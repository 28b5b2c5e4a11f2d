// What a jump reaches: the shortest hop and the fullest jump, from standing and from running, in tiles; played by the mover itself.
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "preview_kinds.hpp"
#include "vole/app/project.hpp"
#include "vole/draw/mark_colours.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/movers/side_motion.hpp"

namespace {

using namespace paper;

constexpr Colour light_leaf{0xa9, 0xbb, 0x5c, 0xff}, water{0x7f, 0xb8, 0xb0, 0xff};
using vole::Level;

constexpr float floor_at = 4096;

struct Jump {
  const char* name;
  bool runs, full;
  Colour colour;
  int aside = 0;                     // pixels of the page, where another lies over it
  std::vector<vole::Vec2> way = {};  // from where it left the ground
  float highest = 0, length = 0, seconds = 0;
};

// One that jumps on an endless floor.
class Jumper {
 public:
  Jumper(const vole::SideMover& mover, const vole::Body& body, int ticks_per_second)
      : mover_(mover), body_(body), seconds_(1.0f / static_cast<float>(ticks_per_second)) {
    for (int x = 0; x < grid_.cells().x; ++x) grid_.set({x, 256}, true);
    world_.set_tiles(&grid_);
    for (int i = 0; i < 10; ++i) tick({});
  }

  void play(Jump& jump) {
    vole::Intent intent;
    intent.direction.x = jump.runs ? 1.0f : 0.0f;
    // Until it is as fast as it gets, or for so long.
    for (int i = 0; jump.runs && i < 240; ++i) tick(intent);
    const vole::Vec2 start = pose_.at;
    jump.way.push_back({0, 0});
    constexpr int longest = 1200;
    for (int i = 0; i < longest; ++i) {
      intent.jump_pressed = i == 0;
      intent.jump_held = i == 0 || jump.full;
      tick(intent);
      jump.way.push_back(pose_.at - start);
      jump.highest = std::max(jump.highest, start.y - pose_.at.y);
      if (i > 0 && touching_.ground) break;
    }
    jump.length = jump.way.back().x;
    jump.seconds = static_cast<float>(jump.way.size() - 1) * seconds_;
  }

 private:
  void tick(const vole::Intent& intent) {
    vole::CollisionBody body{
        pose_.at, body_.box({0, 0}), nullptr, 0, vole::BodyUse::solid, vole::OneWay::no, 0, 0};
    vole::Moving moving{world_, body, {}, nullptr};
    vole::MoverTurn turn{intent, seconds_, moving, motion_, touching_, pose_};
    turn.body = &body_;
    vole::move_sideways(turn, mover_);
  }

  vole::SideMover mover_;
  vole::Body body_;
  float seconds_;
  vole::SolidGrid grid_{{4096, 260}, 16};
  vole::CollisionWorld world_;
  vole::Pose pose_{{512, floor_at}, {512, floor_at}};
  vole::Motion motion_;
  vole::Touching touching_;
};

// Of the game's first level that has tiles; 16 for a game without one.
vole::IVec2 tile_of(vole::Catalog& catalog) {
  for (const std::string& name : catalog.names<Level>()) {
    const auto level = catalog.get<Level>(name);
    if (level->cells.x > 0) return level->tile_size();
  }
  return {16, 16};
}

void draw_tiles(Page& page, IVec2 origin, IVec2 count, vole::Vec2 tile) {
  for (int x = 0; x <= count.x; ++x) {
    const int at = origin.x + static_cast<int>(static_cast<float>(x) * tile.x);
    page.fill({{at, origin.y - static_cast<int>(static_cast<float>(count.y) * tile.y)},
               {1, static_cast<int>(static_cast<float>(count.y) * tile.y)}},
              light_square);
    page.text({at + 2, origin.y + 6}, fmt::format("{}", x), faint);
  }
  for (int y = 0; y <= count.y; ++y) {
    const int at = origin.y - static_cast<int>(static_cast<float>(y) * tile.y);
    page.fill({{origin.x, at}, {static_cast<int>(static_cast<float>(count.x) * tile.x), 1}}, light_square);
    page.text({origin.x - 16, at - 8}, fmt::format("{}", y), faint);
  }
}

}  // namespace

void preview_jump(vole::Catalog& catalog, const std::string& name, const std::string& output) {
  const vole::Project project = vole::read_project(vole::join_path(catalog.root(), "game.toml"));
  const WrittenThings things(catalog);
  const WrittenThing thing = things.of_kind(name);
  const auto* const mover = thing.kind->find<vole::SideMover>();
  const auto* const body = thing.kind->find<vole::Body>();
  if (!mover || !body)
    throw vole::Error(vole::FilePosition::whole_file("kinds.toml"),
                      fmt::format("kind \"{}\" has no side_mover: it does not jump", name));
  std::array<Jump, 4> jumps{
      Jump{"standing, hop", false, false, ink, -8}, Jump{"standing, full", false, true, light_leaf},
      Jump{"running, hop", true, false, water}, Jump{"running, full", true, true, mark}};
  vole::Vec2 most{1, 1};
  for (Jump& jump : jumps) {
    Jumper(*mover, *body, project.ticks_per_second).play(jump);
    most = {std::max(most.x, jump.length), std::max(most.y, jump.highest)};
  }
  const vole::Vec2 tile(tile_of(catalog));
  const IVec2 count{static_cast<int>(std::ceil(most.x / tile.x)) + 1,
                    static_cast<int>(std::ceil((most.y + body->size.y) / tile.y)) + 1};
  Page page;
  page.text({margin, 16},
            fmt::format("what a jump of \"{}\" reaches, in tiles of {} x {} pixels", name, tile.x, tile.y));
  int line = 48;
  for (const Jump& jump : jumps) {
    const std::array<std::string, 3> numbers{fmt::format("{:.2f} high", jump.highest / tile.y),
                                             fmt::format("{:.2f} long", jump.length / tile.x),
                                             fmt::format("{:.2f} seconds", jump.seconds)};
    page.text({margin, line}, jump.name, jump.colour);
    for (int column = 0; column < 3; ++column)
      page.text({margin + 180 + column * 130, line}, numbers[static_cast<std::size_t>(column)], jump.colour);
    fmt::print("{:<15} {:>10}  {:>10}  {:>12}\n", jump.name, numbers[0], numbers[1], numbers[2]);
    line += 24;
  }
  const IVec2 room{page_size.x - 3 * margin, page_size.y - line - 64};
  const float scale = std::min(static_cast<float>(room.x) / (static_cast<float>(count.x) * tile.x),
                               static_cast<float>(room.y) / (static_cast<float>(count.y) * tile.y));
  const IVec2 origin{2 * margin, page_size.y - 40};
  draw_tiles(page, origin, count, tile * scale);
  const auto on_page = [&](vole::Vec2 at) { return origin + IVec2(at * scale); };
  for (const Jump& jump : jumps)
    for (std::size_t i = 0; i < jump.way.size(); ++i) {
      const int size = i + 1 == jump.way.size() ? 8 : 4;
      page.fill({on_page(jump.way[i]) + IVec2{jump.aside, 0} - IVec2{size / 2, size / 2}, {size, size}},
                jump.colour);
    }
  // How large it is, at its start and at the top of its fullest jump.
  const auto highest = std::min_element(jumps[3].way.begin(), jumps[3].way.end(),
                                        [](vole::Vec2 a, vole::Vec2 b) { return a.y < b.y; });
  for (const vole::Vec2 at : {vole::Vec2{0, 0}, *highest}) {
    const vole::Rect box = body->box(at);
    page.outline({on_page(box.at), IVec2(box.size * scale)}, vole::mark_colours::solid_body);
  }
  page.save(output);
}
