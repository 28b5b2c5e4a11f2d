// Levels that are put together of pieces while the game runs.
#include "vole/level/pieces.hpp"

#include <fmt/core.h>

#include <set>

#include "test_stage.hpp"
#include "vole/base/block_grid.hpp"
#include "vole/draw/raster.hpp"
#include "vole/input/intent.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/place_link.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/zone.hpp"

using Catch::Contains;
using vole::IVec2;
using vole::LevelSide;
using vole::Vec2;

namespace {

// A component of a game's own that holds places in the level.
struct Nest {
  Vec2 at{0, 0};
  std::vector<vole::Rect> branches;
  IVec2 cell{0, 0};
  Vec2 size{3, 3};  // and what is none
};
template <class V>
void describe(V& v, Nest& nest) {
  v.state("at", nest.at, vole::position());
  v.state("branches", nest.branches, vole::position());
  v.state("cell", nest.cell, vole::position());
  v.state("size", nest.size);
}
struct Rope {
  vole::PlaceLink post;
};
template <class V>
void describe(V& v, Rope& rope) {
  v("post", rope.post);
}
// A scene that remembers places.
class Tower : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override { stage.load_level("way"); }
  void tick(vole::Stage& stage) override { stage.camera().jump_to(stage.camera().middle() + step); }
  Vec2 goal{100, 50}, step{4, 0};
};
template <class V>
void describe(V& v, Tower& tower) {
  v.state("goal", tower.goal, vole::position());
  v.state("step", tower.step);
}

using Rows = std::vector<std::string>;

std::string quoted(const Rows& rows) {
  std::string text;
  for (const std::string& row : rows) text += fmt::format("\"{}\",\n", row);
  return text;
}

constexpr IVec2 canvas{64, 32};

// Pieces by chance, of ground whose edges follow from its neighbours, with things in them, and a level that goes on by them.
struct Way : TestStage {
  TempFolder folder;
  LevelSide side = LevelSide::right;
  vole::Random chance{3};
  std::map<std::string, Rows> rows;  // of each level
  std::map<std::string, int> crumbs;

  explicit Way(LevelSide its = LevelSide::right, std::uint64_t seed = 3) : side(its), chance(seed) {
    game.knows<Nest>("nest").knows<Rope>("rope").scene<Tower>("tower");
    write_small_game(folder);
    write_art();
    folder.write("kinds.toml",
                 "[mouse]\nsprite = { sheet = \"mouse\", layer = \"ground\" }\nbody = { size = [6, 6] }\n"
                 "side_mover = { speed = 200 }\n"
                 "[crumb]\nsprite = { sheet = \"mouse\", layer = \"ground\" }\nbody = { size = [4, 4] }\n"
                 "[post]\nbody = { size = [4, 4] }\n[rope]\nrope = {}\n"
                 "[cart]\nbody = { size = [8, 4] }\nalong_path = { speed = 30 }\n");
    folder.write("assets/sand.tileset.toml", "size = 8\n[tiles]\nsand = { colour = \"#c8b68e\" }\n");
    write_pieces();
  }

  // Each tile another colour, and not the same all over, so that pictures tell.
  void write_art(const std::string& variants =
                     "variants = [{ case = 15, cells = [[4, 0], [5, 0], [6, 0]], weight = 0.7 }]\n") {
    vole::Image art({64, 40});
    for (int y = 0; y < 40; ++y)
      for (int x = 0; x < 64; ++x)
        art.row(y)[x] = {static_cast<std::uint8_t>(x * 4), static_cast<std::uint8_t>(y * 6),
                         static_cast<std::uint8_t>((x ^ y) * 3), 255};
    vole::write_png(folder.path("assets/earth.png"), art);
    vole::write_png(folder.path("assets/hills.png"), art);
    folder.write(
        "assets/earth.tileset.toml",
        "frame = { size = [8, 8] }\n[tiles]\nramp = { cell = [7, 4], shape = \"rise\" }\n"
        "leaf = { cell = [6, 4] }\n[materials.soil]\nneighbours = \"four\"\nfirst = [0, 0]\nsolid = true\n"
        "columns = 4\n" +
            variants);
  }

  bool across() const { return vole::is_across(side); }

  // Ground that goes up and down by a cell, with holes that no two columns in a row have.
  Rows some_rows(int length, int width, int& height) {
    Rows its(static_cast<std::size_t>(width), std::string(static_cast<std::size_t>(length), '.'));
    for (int x = 0; x < length; ++x) {
      if (x > 0 && x + 1 < length) height = std::clamp(height + below(chance, 3) - 1, 3, width - 2);
      for (int y = height; y < width; ++y)
        its[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)] =
            below(chance, 9) == 0 && y > height ? '.' : '#';
      if (below(chance, 5) == 0) its[static_cast<std::size_t>(height - 2)][static_cast<std::size_t>(x)] = '*';
    }
    return its;
  }

  // Turned so that they go on at the side that is wanted.
  Rows turned(const Rows& its) const {
    if (across()) return its;
    Rows turned(its[0].size(), std::string(its.size(), '.'));
    for (std::size_t y = 0; y < its.size(); ++y)
      for (std::size_t x = 0; x < its[0].size(); ++x) turned[x][y] = its[y][x];
    return turned;
  }

  void write_level(const std::string& name, const Rows& its, const std::string& more) {
    rows[name] = its;
    folder.write(
        "levels/" + name + ".level.toml",
        fmt::format("tileset = \"earth\"\nletters = {{ \".\" = \"\", \"#\" = \"soil\", \"*\" = \"leaf\" }}\n"
                    "sides = {{ left = \"open\", right = \"open\" }}\n{}"
                    "[[layers]]\nname = \"hills\"\npicture = \"hills\"\nparallax = [0.5, 0.25]\nrepeat = "
                    "\"both\"\nedge = \"top\"\n"
                    "[[layers]]\nname = \"ground\"\nrows = [\n{}]\n",
                    more, quoted(its)));
  }

  static std::string side_word(LevelSide which) {
    return std::string(vole::enum_names(which)[static_cast<std::size_t>(which)]);
  }
  std::string openings(int in, int out) const {
    const LevelSide first = vole::is_forward(side) ? vole::opposite(side) : side;
    return fmt::format(
        "openings = [{{ name = \"way\", side = \"{}\", at = {} }}, {{ name = \"way\", side = \"{}\", at = {} "
        "}}]\n",
        side_word(first), in, side_word(vole::opposite(first)), out);
  }

  virtual void write_pieces() {
    std::string names;
    for (int i = 0; i < 6; ++i) {
      const std::string name = fmt::format("piece{}", i);
      const int length = 5 + below(chance, 30);
      // From each row on there are two that go on, wherever the level has come to.
      const int first = 7 + i % 3;
      int height = first;
      const Rows its = some_rows(length, 12, height);
      write_level(name, turned(its), openings(first, std::clamp(height, 7, 9)));
      crumbs[name] = 1 + below(chance, 3);
      add_places(name);
      names += fmt::format("\"{}\", ", name);
    }
    int height = 12;
    const Rows first = turned(some_rows(17, 20, height));
    const int out = std::clamp(height, 10, 14);
    write_level(
        "way", first,
        openings(out, out) +
            fmt::format("pieces.some = [{}]\nendless = {{ side = \"{}\", pieces = \"some\", seed = 5 }}\n",
                        names, side_word(side)));
  }
  void add_places(const std::string& name) {
    std::string text = vole::read_text(folder.path("levels/" + name + ".level.toml"), 1 << 20);
    for (int i = 0; i < crumbs[name]; ++i)
      text += fmt::format("[[places]]\nkind = \"crumb\"\ncell = [{}, {}]\n", i, i + 1);
    text += "[[zones]]\nname = \"" + name + "\"\narea = [2, 2, 20, 30]\n";
    folder.write("levels/" + name + ".level.toml", text);
  }
  void write_file(const std::string& name, const std::string& what, const std::string& by) {
    std::string text = vole::read_text(folder.path("levels/" + name + ".level.toml"), 1 << 20);
    REQUIRE(text.find(what) != std::string::npos);
    folder.write("levels/" + name + ".level.toml", text.replace(text.find(what), what.size(), by));
  }

  vole::Image picture() {
    vole::DrawList list;
    list.start(canvas);
    running->draw(list, 1);
    list.sort();
    vole::Image shown(canvas, {0, 0, 0, 255});
    vole::Raster().draw(list, shown);
    return shown;
  }

  // One plain level of all that was laid, `first` of its cells where the endless one began; from pieces at cells as the origin
  // was at first.
  void write_whole_level(const std::map<int, std::pair<std::string, IVec2>>& pieces) {
    vole::IRect all{{0, 0}, size_of("way")};
    for (const auto& [number, piece] : pieces) all = all.joined_with({piece.second, size_of(piece.first)});
    Rows its(static_cast<std::size_t>(all.size.y), std::string(static_cast<std::size_t>(all.size.x), '.'));
    std::string places;
    const auto put = [&](const std::string& name, IVec2 cell) {
      const IVec2 size = size_of(name);
      for (int y = 0; y < size.y; ++y)
        for (int x = 0; x < size.x; ++x)
          its[static_cast<std::size_t>(cell.y - all.at.y + y)]
             [static_cast<std::size_t>(cell.x - all.at.x + x)] =
                 rows[name][static_cast<std::size_t>(y)][static_cast<std::size_t>(x)];
      for (int i = 0; i < crumbs[name]; ++i)
        places += fmt::format("[[places]]\nkind = \"crumb\"\ncell = [{}, {}]\n", cell.x - all.at.x + i,
                              cell.y - all.at.y + i + 1);
    };
    put("way", {0, 0});
    for (const auto& [number, piece] : pieces) put(piece.first, piece.second);
    write_level("whole", its, "");
    const std::string text = vole::read_text(folder.path("levels/whole.level.toml"), 1 << 26);
    folder.write("levels/whole.level.toml", text + places);
    whole_at = all.at;
  }
  IVec2 size_of(const std::string& name) const {
    return {static_cast<int>(rows.at(name)[0].size()), static_cast<int>(rows.at(name).size())};
  }
  IVec2 whole_at{0, 0};
};

}  // namespace

TEST_CASE("an endless level is drawn as one level made of its pieces is, at each of its sides") {
  const auto which = GENERATE(LevelSide::right, LevelSide::left, LevelSide::bottom, LevelSide::top);
  for (int round = 0; round < cases(2); ++round) {
    Way way(which, 7 + static_cast<std::uint64_t>(round));
    // Which variant stands in a cell follows from where it is; the one level begins elsewhere.
    if (!vole::is_forward(which)) way.write_art("");
    const float sign = vole::is_forward(which) ? 1.0f : -1.0f;
    const Vec2 step = (way.across() ? Vec2{1, 0} : Vec2{0, 1}) * (sign * 5.0f);
    constexpr int ticks = 900;
    CAPTURE(Way::side_word(which), round);

    // Where the middle is, from where the level began.
    std::vector<Vec2> middles;
    std::vector<vole::Image> pictures;
    std::map<int, std::pair<std::string, IVec2>> pieces;
    vole::Stage& stage = way.start(way.folder);
    stage.load_level("way");
    const IVec2 first_origin = stage.level().origin();
    bool moved = false;
    for (int i = 0; i < ticks; ++i) {
      stage.camera().jump_to(stage.camera().middle() + step);
      way.tick();
      for (const vole::PutPiece& piece : stage.level().pieces())
        pieces[static_cast<int>(piece.number)] = {piece.level, piece.cell + stage.level().origin()};
      moved = moved || stage.level().origin() != first_origin;
      middles.push_back(stage.camera().middle() - stage.level().offset());
      pictures.push_back(way.picture());
    }
    CHECK(moved);
    CHECK(pieces.size() > 10);

    way.write_whole_level(pieces);
    vole::Stage& whole = way.start(way.folder);
    whole.load_level("whole");
    whole.camera().bounds = {};
    int different = 0;
    for (std::size_t i = 0; i < middles.size(); ++i) {
      whole.camera().jump_to(middles[i] - Vec2(way.whole_at * 8));
      // What does not go along with the level lies elsewhere when the level begins elsewhere.
      if (way.whole_at != IVec2{0, 0}) whole.level().set_look("hills", {.visible = false});
      way.tick();
      const vole::Image now = way.picture();
      if (way.whole_at == IVec2{0, 0} && now != pictures[i]) ++different;
      if (way.whole_at != IVec2{0, 0}) {
        // Compared where there is ground in front.
        for (int y = 0; y < canvas.y; ++y)
          for (int x = 0; x < canvas.x; ++x)
            if (now.row(y)[x] != vole::Colour{0, 0, 0, 255} && now.row(y)[x] != pictures[i].row(y)[x]) {
              ++different;
              y = x = 1000;
            }
      }
    }
    CHECK(different == 0);
  }
}

TEST_CASE("who walks through an endless level moves to the last bit as in one level made of its pieces") {
  for (int round = 0; round < cases(3); ++round) {
    Way way(LevelSide::right, 40 + static_cast<std::uint64_t>(round));
    vole::Random pilot(static_cast<std::uint64_t>(round));
    struct Seen {
      float direction = 0;
      bool jumps = false;
      Vec2 at{0, 0}, velocity{0, 0};
    };
    std::vector<Seen> seen;
    std::map<int, std::pair<std::string, IVec2>> pieces;
    vole::Entity mouse;
    const auto steer = [&](vole::Stage& stage, const Seen& now) {
      vole::Intent& intent = stage.get<vole::Intent>(mouse);
      intent.direction = {now.direction, 0};
      intent.jump_pressed = intent.jump_held = now.jumps;
    };
    const auto begin = [&](const std::string& level) -> vole::Stage& {
      vole::Stage& stage = way.start(way.folder);
      stage.load_level(level);
      mouse = stage.spawn("mouse", Vec2{60, 10} - Vec2(level == "whole" ? way.whole_at * 8 : IVec2{0, 0}));
      stage.follow(mouse);
      return stage;
    };
    vole::Stage& stage = begin("way");
    Seen now{1, false, {0, 0}, {0, 0}};
    for (int i = 0; i < 3000; ++i) {
      // Now and then back, but not as far as to where the level has left.
      now.direction = i % 50 < 8 + below(pilot, 4) ? -1.0f : 1.0f;
      now.jumps = below(pilot, 12) == 0;
      steer(stage, now);
      way.tick();
      now.at = stage.get<vole::Pose>(mouse).at - stage.level().offset();
      now.velocity = stage.get<vole::Motion>(mouse).velocity;
      seen.push_back(now);
      for (const vole::PutPiece& piece : stage.level().pieces())
        pieces[static_cast<int>(piece.number)] = {piece.level, piece.cell + stage.level().origin()};
    }
    CHECK(seen.back().at.x > 900);
    CHECK(stage.level().origin().x > 0);

    way.write_whole_level(pieces);
    vole::Stage& whole = begin("whole");
    const Vec2 off(way.whole_at * 8);
    for (std::size_t i = 0; i < seen.size(); ++i) {
      steer(whole, seen[i]);
      way.tick();
      const Vec2 at = whole.get<vole::Pose>(mouse).at + off;
      if (at == seen[i].at && whole.get<vole::Motion>(mouse).velocity == seen[i].velocity) continue;
      CAPTURE(round, i, at.x, at.y, seen[i].at.x, seen[i].at.y);
      FAIL("elsewhere");
    }
  }
}

TEST_CASE("an endless level goes on to the same end from a snapshot of any tick") {
  Way way;
  vole::Random pilot(4);
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  std::vector<Vec2> steps;
  std::vector<vole::StateBytes> states;
  const auto act = [&](vole::Stage& on, std::size_t i) {
    on.camera().jump_to(on.camera().middle() + steps[i]);
    // What code changes is a part of it too.
    if (i % 7 == 0)
      on.level().put("ground", on.level().cell_at(on.camera().middle()), i % 2 ? "soil" : "leaf");
    if (i % 50 == 0)
      on.level().put("ground", on.level().cell_at(on.camera().middle() + Vec2{100, 0}), "soil");
  };
  for (std::size_t i = 0; i < 600; ++i) {
    steps.push_back({static_cast<float>(below(pilot, 12)) - 2, static_cast<float>(below(pilot, 5)) - 2});
    states.push_back(way.state());
    act(stage, i);
    way.tick();
  }
  const vole::StateBytes end = way.state();
  const vole::Image last = way.picture();
  for (int round = 0; round < cases(6); ++round) {
    const auto from = static_cast<std::size_t>(below(pilot, 600));
    CAPTURE(from);
    vole::Stage& other = way.enter();
    vole::StateReader in(states[from]);
    way.running->read(in);
    way.running->bind();
    REQUIRE(way.state() == states[from]);
    for (std::size_t i = from; i < 600; ++i) {
      act(other, i);
      way.tick();
    }
    CHECK(way.state() == end);
    CHECK(way.picture() == last);
  }
}

TEST_CASE("a long run keeps what it needs, no piece comes twice running, and its seed decides") {
  const auto run = [](Way& way, int ticks, std::vector<std::string>& order) {
    vole::Stage& stage = way.start(way.folder);
    stage.load_level("way");
    std::uint32_t last = 0;
    std::size_t most_things = 0, most_bytes = 0, most_pieces = 0;
    for (int i = 0; i < ticks; ++i) {
      stage.camera().jump_to(stage.camera().middle() + Vec2{9, 0});
      way.tick();
      for (const vole::PutPiece& piece : stage.level().pieces())
        if (piece.number > last) {
          order.push_back(piece.level);
          last = piece.number;
        }
      std::size_t things = 0;
      stage.entities().visit<vole::Pose>([&](vole::Entity, const vole::Pose& pose) {
        ++things;
        REQUIRE(std::abs(pose.at.x) < 4000);
      });
      most_things = std::max(most_things, things);
      most_pieces = std::max(most_pieces, stage.level().pieces().size());
      if (i % 100 == 99) most_bytes = std::max(most_bytes, way.state().size());
    }
    return std::tuple(most_things, most_pieces, most_bytes);
  };
  Way way;
  std::vector<std::string> first, again, other;
  const auto a_while = run(way, 3000, first);
  const auto long_run = run(way, 30'000, again);
  CHECK(std::get<0>(long_run) <= std::get<0>(a_while) + 8);
  CHECK(std::get<1>(long_run) <= std::get<1>(a_while) + 2);
  CHECK(std::get<2>(long_run) <= std::get<2>(a_while) * 5 / 4);
  CHECK(std::equal(first.begin(), first.end(), again.begin()));
  CHECK(std::adjacent_find(again.begin(), again.end()) == again.end());
  CHECK(std::set<std::string>(again.begin(), again.end()).size() >= 5);
  way.write_file("way", "seed = 5", "seed = 6");
  run(way, 3000, other);
  CHECK(first != other);
}

TEST_CASE("between pieces nothing is allocated, and those are built a little at a time") {
  if (!allocations_are_counted()) return;
  Way way;
  way.write_file("way", "seed = 5", "seed = 5, ahead = 400");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  vole::DrawList list;
  std::int64_t quiet = 0, most_lines = 0;
  for (int i = 0; i < 2000; ++i) {
    std::map<std::uint32_t, int> lines;
    for (const vole::PutPiece& piece : stage.level().pieces()) lines[piece.number] = piece.lines;
    const std::size_t pieces = stage.level().pieces().size();
    const IVec2 origin = stage.level().origin();
    const std::int64_t before = allocations_so_far();
    stage.camera().jump_to(stage.camera().middle() + Vec2{3, 0});
    way.tick();
    list.start(canvas);
    way.running->draw(list, 1);
    const std::int64_t allocated = allocations_so_far() - before;
    bool built = stage.level().pieces().size() != pieces || stage.level().origin() != origin;
    for (const vole::PutPiece& piece : stage.level().pieces()) {
      most_lines = std::max<std::int64_t>(most_lines, piece.lines - lines[piece.number]);
      built =
          built || piece.lines != lines[piece.number] || piece.leaves || piece.things < piece.places.size();
    }
    if (built || i < 400) continue;
    ++quiet;
    REQUIRE(allocated == 0);
  }
  CHECK(quiet > 500);
  CHECK(most_lines * 12 <= 512 + 12);
}

TEST_CASE("a piece put by code is drawn and solid at once, and leaves what was there before") {
  Way way;
  way.write_level(
      "hut", {"##.", "#.*"},
      "[[places]]\nkind = \"crumb\"\ncell = [1, 1]\nname = \"bread\"\n"
      "[[places]]\nkind = \"post\"\ncell = [2, 1]\nname = \"post\"\nkeep = true\n"
      "[[places]]\nkind = \"rope\"\ncell = [0, 0]\nrope = { post = \"post\" }\n"
      "[[places]]\nkind = \"cart\"\ncell = [0, 1]\nname = \"cart\"\nalong_path = { path = \"round\" }\n"
      "[[zones]]\nname = \"inside\"\narea = [8, 8, 8, 8]\n"
      "[[paths]]\nname = \"round\"\npoints = [[4, 16], [20, 16]]\n");
  way.write_level("flat", Rows(10, std::string(30, '.')), "pieces.huts = [\"hut\"]\n");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("flat");
  stage.level().put("ground", {6, 4}, "leaf");
  const vole::Image picture = way.picture();

  const std::uint32_t hut = stage.put_piece("hut", {5, 3});
  const std::uint32_t second = stage.put_piece("huts", {12, 3});
  CHECK(hut != second);
  CHECK(stage.level().material("ground", {5, 3}) == "soil");
  CHECK(stage.level().tile("ground", {7, 4}) == "leaf");
  CHECK(stage.level().tile("ground", {6, 4}) == "leaf");  // where the piece has nothing, what was there stays
  CHECK(stage.solid().solid(5, 4));
  CHECK(stage.count("crumb") == 2);
  const vole::Entity bread = stage.named("bread", hut);
  CHECK(stage.get<vole::Pose>(bread).at == Vec2{5 * 8 + 12, 5 * 8});
  CHECK(stage.place("bread", second) == Vec2{12 * 8 + 12, 5 * 8});
  CHECK(stage.piece_of(bread) == hut);
  CHECK(stage.zone("inside", second).area == vole::Rect{{13 * 8, 4 * 8}, {8, 8}});
  CHECK(stage.path("round", hut).at(0) == Vec2{5 * 8 + 4, 3 * 8 + 16});
  CHECK_THROWS_WITH(stage.zone("insde", hut), Contains("did you mean \"inside\"?"));
  CHECK_THROWS_WITH(stage.path("inside", hut), Contains("no path \"inside\""));
  // Each rope is tied to the post of its own piece.
  stage.each("rope", [&](vole::Entity rope) {
    CHECK(stage.get<Rope>(rope).post.thing == stage.named("post", stage.piece_of(rope)));
  });
  int zones = 0;
  stage.entities().visit<vole::Zone, vole::Pose>(
      [&](vole::Entity, const vole::Zone& zone, const vole::Pose& pose) {
        CHECK(zone.name == "inside");
        CHECK(pose.at == Vec2{static_cast<float>(zone.piece == hut ? 5 : 12) * 8 + 12, 5 * 8});
        ++zones;
      });
  CHECK(zones == 2);
  way.tick(40);
  const float along = stage.get<vole::Pose>(stage.named("cart", second)).at.x - 12 * 8;
  CHECK(along > 4);
  CHECK(along <= 20);

  // What was changed in it goes with it; what stays, stays.
  stage.level().put("ground", {5, 3}, "leaf");
  stage.level().put("ground", {7, 3}, "soil");
  const vole::Entity post = stage.named("post", hut);
  stage.remove_piece(hut);
  way.tick();
  CHECK_FALSE(stage.entities().alive(bread));
  CHECK(stage.entities().alive(post));
  CHECK(stage.level().tile("ground", {5, 3}).empty());
  CHECK(stage.level().material("ground", {7, 3}) == "soil");
  CHECK_FALSE(stage.solid().solid(5, 4));
  CHECK_THROWS_WITH(stage.remove_piece(hut), Contains("piece 1 is not in the level any more"));
  stage.keep(stage.named("bread", second));
  stage.remove_piece(second);
  way.tick();
  CHECK(stage.count("crumb") == 1);
  stage.each("crumb", [&](vole::Entity its) { stage.remove(its); });
  stage.each("post", [&](vole::Entity its) { stage.remove(its); });
  CHECK(stage.level().changed().size() == 2);
  stage.level().put("ground", {7, 3}, "");
  way.tick();
  CHECK(way.picture() == picture);
}

TEST_CASE("pieces over each other are as if the later alone had come, and a refused one changes nothing") {
  Way way;
  way.write_level(
      "flat", Rows(12, std::string(30, '.')),
      "pieces.some = [\"piece0\", \"piece1\"]\nopenings = [{ name = \"way\", side = \"right\", at = 8 }]\n");
  const std::vector<std::string> names{"piece0", "piece1", "piece2", "piece3"};
  vole::Random dice(11);
  for (int round = 0; round < cases(20); ++round) {
    std::vector<std::pair<std::string, IVec2>> put;
    vole::Stage& stage = way.start(way.folder);
    stage.load_level("flat");
    std::vector<std::uint32_t> numbers;
    std::size_t refused = 0;
    for (int i = 0; i < 8; ++i) {
      const std::string name = names[static_cast<std::size_t>(below(dice, 4))];
      const IVec2 cell{below(dice, 30), below(dice, 3) == 0 ? 1 : 0};
      const vole::StateBytes before = way.state();
      try {
        numbers.push_back(stage.put_piece(name, cell));
        put.emplace_back(name, cell);
      } catch (const vole::Error&) {
        ++refused;
        REQUIRE(way.state() == before);
      }
      if (!numbers.empty() && below(dice, 3) == 0) {
        const auto gone = static_cast<std::ptrdiff_t>(below(dice, static_cast<int>(numbers.size())));
        stage.remove_piece(numbers[static_cast<std::size_t>(gone)]);
        numbers.erase(numbers.begin() + gone);
        put.erase(put.begin() + gone);
      }
    }
    CHECK(refused + put.size() > 0);
    const vole::TileGrid grid = stage.level().tiles(stage.level().layer("ground"));
    Rows its(12, std::string(30, '.'));
    for (const auto& [name, cell] : put)
      for (int y = 0; y < way.size_of(name).y; ++y)
        for (int x = 0; x < way.size_of(name).x; ++x)
          if (const char letter = way.rows[name][static_cast<std::size_t>(y)][static_cast<std::size_t>(x)];
              letter != '.')
            its[static_cast<std::size_t>(cell.y + y)][static_cast<std::size_t>(cell.x + x)] = letter;
    way.write_level("together", its, "");
    CHECK(vole::Catalog(way.folder.path()).get<vole::Level>("together")->layers[1].tiles == grid);
  }
}

TEST_CASE("what is far behind leaves, but for what stays, is kept or has gone along") {
  Way way;
  way.write_file("way", "seed = 5", "seed = 5, ahead = 1200");
  way.write_file("piece0", "[[places]]",
                 "[[places]]\nkind = \"post\"\nname = \"stays\"\nkeep = true\ncell = [1, 1]\n[[places]]");
  for (int i = 0; i < 6; ++i)
    way.write_file(fmt::format("piece{}", i), "[[places]]",
                   "[[places]]\nkind = \"cart\"\ncell = [0, 1]\nname = \"cart\"\nalong_path = { points = "
                   "[[0, 0], [4, 0]] }\n[[places]]");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  const vole::Entity along = stage.named("cart", 1), left = stage.named("cart", 2),
                     kept = stage.named("cart", 3);
  REQUIRE((along && left && kept));
  stage.keep(kept);
  for (int i = 0; i < 400; ++i) {
    stage.camera().jump_to(stage.camera().middle() + Vec2{6, 0});
    stage.get<vole::Pose>(along).at.x = stage.camera().middle().x;
    way.tick();
  }
  CHECK(stage.entities().alive(along));
  CHECK_FALSE(stage.entities().alive(left));
  CHECK(stage.entities().alive(kept));
  CHECK_FALSE(stage.level().piece(1));
  CHECK(stage.count("post") > 0);
  // Until it is behind itself.
  for (int i = 0; i < 100; ++i) {
    stage.camera().jump_to(stage.camera().middle() + Vec2{6, 0});
    way.tick();
  }
  CHECK_FALSE(stage.entities().alive(along));
}

TEST_CASE("every place in the level moves with its origin, and nothing else does") {
  Way way;
  way.write_file("way", "endless",
                 "zones = [{ name = \"start\", area = [8, 8, 16, 16] }]\n"
                 "paths = [{ name = \"lane\", points = [[0, 0], [40, 8]] }]\nendless");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  const vole::Entity mouse = stage.spawn("mouse", {60, 40});
  const vole::Entity cloud =
      stage.spawn("crumb", {50, 4}, vole::parse_toml("sprite = { layer = \"hills\" }", "test"));
  stage.entities().add(mouse, Nest{{10, 20}, {{{1, 2}, {3, 4}}, {{5, 6}, {7, 8}}}, {2, 3}, {3, 3}});
  const Vec2 first = stage.camera().middle();
  Vec2 step{0, 0};
  stage.tween(mouse, &vole::Pose::at).to({160, 40}, 8).to({60, 40}, 8);
  for (int i = 0; i < 300; ++i) {
    stage.camera().jump_to(stage.camera().middle() + Vec2{2, 0});
    step += Vec2{2, 0};
    way.tick();
  }
  const Vec2 off = stage.level().offset();
  REQUIRE(off.x < -100);
  CHECK(stage.camera().middle() == first + step + off);
  CHECK(stage.get<vole::Pose>(mouse).at.x == Approx(60 + 100 * (300 / 480.0) + off.x).margin(0.01));
  const Nest& nest = stage.get<Nest>(mouse);
  CHECK(nest.at == Vec2{10, 20} + off);
  CHECK(nest.branches[1].at == Vec2{5, 6} + off);
  CHECK(nest.branches[1].size == Vec2{7, 8});
  CHECK(nest.cell == IVec2{2, 3} - stage.level().origin());
  CHECK(nest.size == Vec2{3, 3});
  CHECK(stage.get<vole::Pose>(cloud).at == Vec2{50, 4});
  CHECK(stage.zone("start").area.at == Vec2{8, 8} + off);
  CHECK(stage.path("lane").at(0) == off);
  CHECK(stage.camera().bounds.left() <= stage.camera().middle().x - 32);

  way.running = std::make_unique<vole::RunningScene>(
      *way.setting, way.game.steps(), way.game.scenes().get("tower"), vole::SceneArgument(), 1);
  way.running->enter();
  way.tick(300);
  const Vec2 moved = way.running->stage().level().offset();
  REQUIRE(moved.x < -100);
  CHECK(dynamic_cast<const Tower&>(way.running->scene()).goal == Vec2{100, 50} + moved);
  CHECK(dynamic_cast<const Tower&>(way.running->scene()).step == Vec2{4, 0});
}

TEST_CASE("a piece that is changed while it is in the level is taken over, and a broken one is not") {
  Way way;
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  stage.camera().jump_to({100, 50});
  way.tick();
  const vole::PutPiece piece = stage.level().pieces().at(0);
  const std::string file = "levels/" + piece.level + ".level.toml";
  const std::string text = vole::read_text(way.folder.path(file), 1 << 20);
  const int crumbs = stage.count("crumb");
  const IVec2 sky = piece.cell;
  CHECK(stage.level().tile("ground", sky).empty());

  const auto change = [&](const std::string& by) {
    way.folder.write(file, by);
    vole::Report report;
    way.catalog->refresh(report);
    return report.has_errors();
  };
  std::string changed = text;
  changed.replace(changed.find("rows = [\n\"."), 11, "rows = [\n\"*");
  CHECK_FALSE(change(changed + "[[places]]\nkind = \"crumb\"\nat = [3, 3]\n"));
  way.tick();
  CHECK(stage.level().tile("ground", sky) == "leaf");
  int of_it = 0;
  for (const vole::PutPiece& each : stage.level().pieces()) of_it += each.level == piece.level;
  CHECK(stage.count("crumb") == crumbs + of_it);
  // What cannot be put into the level is told once, and what was there stays.
  std::string wrong = text;
  wrong.replace(wrong.find("name = \"ground\""), 15, "name = \"earth\"");
  CHECK_FALSE(change(wrong));
  CHECK_THROWS_WITH(way.tick(),
                    Contains("has tiles in its layer \"earth\", which the level \"way\" does not have"));
  way.tick();
  CHECK(stage.level().tile("ground", sky) == "leaf");
  CHECK_FALSE(change(text));
  way.tick();
  CHECK(stage.level().tile("ground", sky).empty());
}

TEST_CASE("what is wrong with pieces is reported before anything runs") {
  Way way;
  const auto wrong = [&](const std::string& name, const std::string& what, const std::string& by) {
    const std::string file = "levels/" + name + ".level.toml";
    const std::string text = vole::read_text(way.folder.path(file), 1 << 20);
    way.write_file(name, what, by);
    const std::string told = error_of([&] { way.start(way.folder).load_level("way"); }, way.folder);
    way.folder.write(file, text);
    CAPTURE(told);
    REQUIRE_FALSE(told.empty());
    return told;
  };
  CHECK_THAT(wrong("way", "\"piece0\"", "\"peace0\""),
             Contains("way.level.toml:5:16:") && Contains("\"peace0\"") && Contains("\"piece0\""));
  CHECK_THAT(wrong("way", "pieces = \"some\"", "pieces = \"sum\""),
             Contains("no list \"sum\" in [pieces]") && Contains("\"some\""));
  CHECK_THAT(wrong("way", "[\"piece0\"", "[{ piece = \"piece0\", weight = -1 }"),
             Contains("way.level.toml:5:45: error: -1 is too small"));
  CHECK_THAT(wrong("way", "pieces.some", "pieces.none = []\npieces.some"),
             Contains("the list \"none\" has no piece that could be chosen"));
  CHECK_THAT(wrong("piece1", "openings", "#"),
             Contains("\"piece1\" has no opening in its left side") && Contains("way.level.toml:5:26:"));
  CHECK_THAT(wrong("piece1", "side = \"right\"", "side = \"top\""),
             Contains("\"piece1\" has no opening in its right side"));
  CHECK_THAT(wrong("piece1", "at = 8", "at = 12"),
             Contains("opening \"way\" is at row 12, but there are 12") && Contains("the last 11"));
  CHECK_THAT(wrong("piece1", "{ name = \"way\", side = \"left\"",
                   "{ name = \"way\", side = \"left\", at = 3 }, { name = \"way\", side = \"left\""),
             Contains("opening \"way\" of this side is defined twice"));
  for (int i = 0; i < 6; ++i)
    way.write_file(fmt::format("piece{}", i), "{ name = \"way\", side = \"left\"",
                   "{ name = \"road\", side = \"left\"");
  CHECK_THAT(wrong("piece1", "road", "rode"), Contains("no piece of \"some\" fits after \"way\""));
  for (int i = 0; i < 6; ++i) way.write_file(fmt::format("piece{}", i), "\"road\"", "\"way\"");
  CHECK_THAT(wrong("piece1", "tileset = \"earth\"", "tileset = [\"earth\", \"sand\"]"),
             Contains("is made of \"sand\", a tileset that the level \"way\" does not name"));
  CHECK_THAT(wrong("way", "name = \"ground\"", "name = \"ground\"\nparallax = [0.5, 1]"),
             Contains("has tiles in the layer \"ground\", which does not go along with the level"));
  CHECK_THAT(wrong("piece1", "kind = \"crumb\"", "kind = \"crum\""), Contains("no kind \"crum\""));
  CHECK_THAT(wrong("piece1", "kind = \"crumb\"", "kind = \"rope\"\nrope = { post = \"pole\" }"),
             Contains("no place \"pole\""));
  CHECK_THAT(wrong("way", "side = \"right\", pieces", "side = \"rigth\", pieces"),
             Contains("\"rigth\"") && Contains("\"right\""));

  // A list by which the level would climb out of itself.
  for (int i = 0; i < 6; ++i)
    way.write_level(fmt::format("piece{}", i), Rows(12, "....."), way.openings(8, 7));
  const std::string told = error_of([&] { way.start(way.folder).load_level("way"); }, way.folder);
  CHECK_THAT(told, Contains("no piece of \"some\" fits after \"piece"));

  vole::Stage& stage = way.start(way.folder);
  CHECK_THROWS_WITH(stage.put_piece("piece0", {0, 0}), Contains("no piece \"piece0\": no level is loaded"));
  stage.load_level("piece0");
  CHECK_THROWS_WITH(stage.put_piece("piece9", {0, 0}), Contains("\"piece9\""));
  CHECK_THROWS_WITH(stage.put_piece("piece1", {1, 0}),
                    Contains("of 5 x 12 cells does not fit into the level \"piece0\" at cell 1, 0"));
  CHECK_THROWS_WITH(stage.put_piece("piece1", {-1 << 30, 1 << 30}), Contains("does not fit"));
  CHECK_THROWS_WITH(stage.join_piece("piece1", 0, LevelSide::top),
                    Contains("\"piece1\" does not join the top side of \"piece0\""));
  CHECK_THROWS_WITH(stage.join_piece("piece1", 7, LevelSide::right),
                    Contains("piece 7 is not in the level any more"));
}

TEST_CASE("a piece joins by its openings where code wants it") {
  Way way;
  way.write_level("yard", Rows(30, std::string(60, '.')), "");
  way.write_level("gate", {"#....#", "......", "#....#"},
                  "openings = [{ name = \"arch\", side = \"left\", at = 1 }, { name = \"arch\", side = "
                  "\"right\", at = 1 },"
                  "{ name = \"hatch\", side = \"bottom\", at = 4 }]\n");
  way.write_level("cave", {"####", "#..#", "####"},
                  "openings = [{ name = \"hatch\", side = \"top\", at = 2 }]\n");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("yard");
  const std::uint32_t gate = stage.put_piece("gate", {10, 5});
  const std::uint32_t right = stage.join_piece("gate", gate, LevelSide::right);
  const std::uint32_t left = stage.join_piece("gate", gate, LevelSide::left);
  const std::uint32_t cave = stage.join_piece("cave", right, LevelSide::bottom);
  CHECK(stage.level().piece(right)->cell == IVec2{16, 5});
  CHECK(stage.level().piece(left)->cell == IVec2{4, 5});
  CHECK(stage.level().piece(cave)->cell == IVec2{18, 8});
  CHECK_THROWS_WITH(stage.join_piece("cave", gate, LevelSide::right), Contains("does not join"));
}

TEST_CASE("a mind in a piece follows a path of that piece, wherever it lies") {
  Way way;
  way.folder.write("kinds.toml", vole::read_text(way.folder.path("kinds.toml"), 1 << 20) +
                                     "[guard]\nbody = { size = [4, 4] }\ntop_mover = { speed = 60 }\n"
                                     "mind = [{ does = \"follow path\", path = \"round\" }]\n");
  way.write_level("hut", Rows(4, std::string(8, '.')),
                  "[[places]]\nkind = \"guard\"\nat = [4, 16]\nname = \"guard\"\n"
                  "[[paths]]\nname = \"round\"\npoints = [[4, 16], [60, 16]]\n");
  way.write_level("flat", Rows(10, std::string(60, '.')), "");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("flat");
  for (const IVec2 cell : {IVec2{5, 3}, IVec2{30, 5}}) {
    const vole::Entity guard = stage.named("guard", stage.put_piece("hut", cell));
    const Vec2 corner(cell * 8);
    float least = 1e9f, most = 0;
    for (int i = 0; i < 300; ++i) {
      way.tick();
      const Vec2 at = stage.get<vole::Pose>(guard).at - corner;
      least = std::min(least, at.x);
      most = std::max(most, at.x);
      REQUIRE(at.y == Approx(16).margin(2));
    }
    CHECK(least < 12);
    CHECK(most > 45);
    CHECK(most < 66);
  }
}

TEST_CASE("what belongs to pieces leaves with their level, zones too") {
  Way way;
  way.write_level("hut", Rows(4, std::string(8, '.')),
                  "[[zones]]\nname = \"inside\"\narea = [0, 0, 64, 32]\n");
  way.write_level("flat", Rows(10, std::string(30, '.')), "");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("flat");
  stage.put_piece("hut", {5, 3});
  const auto zones = [&] {
    int count = 0;
    stage.entities().visit<vole::Zone>(
        [&](vole::Entity zone, const vole::Zone&) { count += stage.removed(zone) ? 0 : 1; });
    return count;
  };
  REQUIRE(zones() == 1);
  stage.load_level("flat");
  CHECK(zones() == 0);
}

TEST_CASE("a piece that code puts far ahead is not taken for the end of an endless level") {
  for (const LevelSide side : {LevelSide::right, LevelSide::left, LevelSide::bottom, LevelSide::top}) {
    Way way(side);
    vole::Stage& stage = way.start(way.folder);
    stage.load_level("way");
    way.tick(3);
    const vole::Rect bounds = stage.camera().bounds;
    const vole::IRect there = stage.level().extent();
    const IVec2 on = vole::way(side, vole::is_forward(side) ? 400 : -400);
    const IVec2 size = stage.level().cells();
    const IVec2 cell{std::clamp(there.at.x + on.x, 0, size.x - 40),
                     std::clamp(there.at.y + on.y, 0, size.y - 40)};
    const std::uint32_t ahead = stage.put_piece(
        "piece0", side == LevelSide::left || side == LevelSide::right ? IVec2{cell.x, 0} : IVec2{0, cell.y});
    CHECK(stage.level().extent() == there);
    way.tick();
    CHECK(stage.camera().bounds == bounds);
    CHECK(stage.level().piece(ahead) != nullptr);
    // It goes on over the gap, piece by piece.
    const Vec2 step = Vec2(vole::way(side, vole::is_forward(side) ? 6 : -6));
    std::uint32_t most = 0;
    for (int i = 0; i < 150; ++i) {
      stage.camera().jump_to(stage.camera().middle() + step);
      way.tick();
      most = std::max(most, stage.level().pieces().back().number);
      const vole::Rect seen = stage.camera().seen(), all = stage.camera().bounds;
      REQUIRE(seen.shared_with(all) == seen);
    }
    CHECK(most > 3);
  }
}

TEST_CASE("a tile in a layer that does not go along with an endless level stays where it is put") {
  Way way;
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  stage.level().put("hills", {2, 2}, "leaf");
  const IVec2 before = stage.level().origin();
  for (int i = 0; i < 3000 && stage.level().origin() == before; ++i) {
    stage.camera().jump_to(stage.camera().middle() + Vec2{20, 0});
    way.tick();
  }
  REQUIRE(stage.level().origin() != before);
  CHECK(stage.level().tile("hills", {2, 2}) == "leaf");
  CHECK(stage.level().changed().size() == 1);
}

TEST_CASE("a camera that looks within a zone does so until it is told otherwise, also in an endless level") {
  Way way;
  const std::string text = vole::read_text(way.folder.path("levels/way.level.toml"), 1 << 20);
  way.folder.write("levels/way.level.toml",
                   text + "[[zones]]\nname = \"shed\"\narea = [8, 8, 96, 64]\n");
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  vole::ShownView& map = stage.add_view("map", {{0, 0}, {16, 8}});
  stage.look_within("shed");
  const vole::Rect shed = stage.zone("shed").area;
  for (int i = 0; i < 40; ++i) {
    way.tick();
    REQUIRE(stage.camera().bounds == shed);
    REQUIRE(stage.view("map").camera.bounds.size.x > shed.size.x);
  }
  const vole::Rect before = map.camera.bounds;
  way.write_level("flat", Rows(10, std::string(30, '.')), "");
  stage.load_level("flat");
  CHECK(stage.view("map").camera.bounds == vole::Rect{{0, 0}, {240, 80}});
  CHECK(stage.view("map").camera.bounds != before);
  CHECK(stage.camera().bounds == vole::Rect{{0, 0}, {240, 80}});
}

TEST_CASE("a tween of a cell moves with the origin of an endless level") {
  Way way;
  vole::Stage& stage = way.start(way.folder);
  stage.load_level("way");
  const vole::Entity thing = stage.entities().create();
  stage.entities().add(thing, vole::Pose{{10, 10}, {10, 10}});
  stage.entities().add(thing, Nest{{0, 0}, {}, {4, 4}, {3, 3}});
  const vole::Entity still = stage.entities().create();
  stage.entities().add(still, vole::Pose{{10, 10}, {10, 10}});
  stage.entities().add(still, Nest{{0, 0}, {}, {9, 4}, {3, 3}});
  stage.tween(thing, &Nest::cell).to({9, 4}, 2);
  const IVec2 before = stage.level().origin();
  for (int i = 0; i < 3000 && (stage.level().origin() == before || i < 150); ++i) {
    stage.camera().jump_to(stage.camera().middle() + Vec2{20, 0});
    way.tick();
  }
  REQUIRE(stage.level().origin() != before);
  CHECK(stage.get<Nest>(thing).cell == stage.get<Nest>(still).cell);
}
