// Small pieces of the library against plain ways of doing the same.
#include <cmath>
#include <map>
#include <set>

#include "support.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/anchor.hpp"
#include "vole/base/describe.hpp"
#include "vole/base/division.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"

namespace {

using vole::IRect;
using vole::IVec2;

int number(vole::Random& chance, int from, int to) {
  return from + static_cast<int>(chance.below(static_cast<std::uint32_t>(to - from + 1)));
}

IRect random_rect(vole::Random& chance) {
  return {{number(chance, -6, 6), number(chance, -6, 6)}, {number(chance, 0, 7), number(chance, 0, 7)}};
}

// The points of a rectangle, one by one.
std::set<std::pair<int, int>> points(const IRect& rect) {
  std::set<std::pair<int, int>> all;
  for (int y = -20; y < 20; ++y)
    for (int x = -20; x < 20; ++x)
      if (rect.contains({x, y})) all.insert({x, y});
  return all;
}

// The plain recursive definition of the edit distance with swaps of neighbours.
std::size_t slow_distance(std::string_view a, std::string_view b) {
  if (a.empty() || b.empty()) return a.size() + b.size();
  const std::string_view a1 = a.substr(1), b1 = b.substr(1);
  std::size_t best = std::min(
      {slow_distance(a1, b) + 1, slow_distance(a, b1) + 1, slow_distance(a1, b1) + (a[0] == b[0] ? 0u : 1u)});
  if (a.size() > 1 && b.size() > 1 && a[0] == b[1] && a[1] == b[0])
    best = std::min(best, slow_distance(a.substr(2), b.substr(2)) + 1);
  return best;
}

std::string random_word(vole::Random& chance) {
  std::string word;
  for (std::uint32_t i = chance.below(4) + 1; i > 0; --i) word += static_cast<char>('a' + chance.below(3));
  return word;
}

// A random table of numbers and tables, as a toml and as a map from dotted paths.
vole::TomlValue random_table(vole::Random& chance, int depth, const std::string& path,
                             std::map<std::string, std::int64_t>& flat) {
  vole::TomlValue table;
  for (const std::string& key : {std::string("a"), std::string("b"), std::string("c")}) {
    if (chance.chance(0.35f)) continue;
    vole::TomlValue value;
    if (depth > 0 && chance.chance(0.4f)) {
      value = random_table(chance, depth - 1, path + "." + key, flat);
    } else {
      value.type = vole::TomlValue::Type::whole;
      value.whole = static_cast<std::int64_t>(chance.below(1000));
      flat[path + "." + key] = value.whole;
    }
    table.entries.push_back({key, {}, value});
  }
  return table;
}

void flatten(const vole::TomlValue& table, const std::string& path,
             std::map<std::string, std::int64_t>& flat) {
  for (const auto& entry : table.entries) {
    if (entry.value.type == vole::TomlValue::Type::table)
      flatten(entry.value, path + "." + entry.key, flat);
    else
      flat[path + "." + entry.key] = entry.value.whole;
  }
}

}  // namespace

TEST_CASE("rectangles are the sets of their points") {
  vole::Random chance(51);
  for (int round = 0; round < 2000; ++round) {
    const IRect a = random_rect(chance), b = random_rect(chance);
    std::set<std::pair<int, int>> both;
    for (const auto& point : points(a))
      if (points(b).count(point) == 1) both.insert(point);
    REQUIRE(points(a.shared_with(b)) == both);
    REQUIRE(a.shared_with(b).empty() == both.empty());
    if (!a.empty() && !b.empty()) REQUIRE(a.overlaps(b) == !both.empty());
    REQUIRE(points(a.moved_by({1, -2})).size() == points(a).size());
    REQUIRE(a.empty() == points(a).empty());
  }
}

TEST_CASE("whole numbers divide down and up as real ones do") {
  for (std::int64_t a = -40; a <= 40; ++a) {
    for (std::int64_t b = -7; b <= 7; ++b) {
      if (b == 0) continue;
      const double quotient = static_cast<double>(a) / static_cast<double>(b);
      REQUIRE(vole::floor_divide(a, b) == static_cast<std::int64_t>(std::floor(quotient)));
      REQUIRE(vole::ceil_divide(a, b) == static_cast<std::int64_t>(std::ceil(quotient)));
    }
  }
}

TEST_CASE("rectangles laid side by side share no point") {
  const IRect left{{0, 0}, {4, 4}}, right{{4, 0}, {4, 4}};
  CHECK_FALSE(left.overlaps(right));
  CHECK_FALSE(left.contains({4, 0}));
  CHECK(right.contains({4, 0}));
}

TEST_CASE("every colour is written and read back") {
  vole::Random chance(52);
  for (int round = 0; round < 5000; ++round) {
    const std::uint32_t bits = chance.next();
    const vole::Colour colour{
        static_cast<std::uint8_t>(bits), static_cast<std::uint8_t>(bits >> 8),
        static_cast<std::uint8_t>(bits >> 16),
        chance.chance(0.5f) ? std::uint8_t{255} : static_cast<std::uint8_t>(bits >> 24)};
    REQUIRE(vole::parse_colour(to_text(colour)) == colour);
  }
  for (const char* wrong :
       {"", "#", "red", "#12345", "#1234567", "#12345g", "123456", "#-12345", "# 12345", "#1234567890"}) {
    CAPTURE(wrong);
    CHECK_FALSE(vole::parse_colour(wrong));
  }
}

TEST_CASE("the nearest name is the one that the plain definition finds") {
  vole::Random chance(53);
  for (int round = 0; round < 3000; ++round) {
    const std::string wrong = random_word(chance);
    std::vector<std::string> known;
    for (std::uint32_t i = chance.below(5) + 1; i > 0; --i) known.push_back(random_word(chance));
    const std::string nearest = vole::nearest_name(wrong, known);
    std::size_t least = 1000;
    for (const std::string& name : known) least = std::min(least, slow_distance(wrong, name));
    const std::size_t limit = std::max<std::size_t>(1, std::min<std::size_t>(3, wrong.size() / 2));
    CAPTURE(wrong, nearest, least);
    if (least <= limit)
      REQUIRE(slow_distance(wrong, nearest) == least);
    else
      REQUIRE(nearest.empty());
  }
}

TEST_CASE("tables put over one another keep every key that is not replaced") {
  vole::Random chance(54);
  for (int round = 0; round < 2000; ++round) {
    std::map<std::string, std::int64_t> below, above, merged;
    vole::TomlValue table = random_table(chance, 3, "", below);
    const vole::TomlValue over = random_table(chance, 3, "", above);
    table.merge(over);
    flatten(table, "", merged);
    // All of `above` is there, and of `below` what no path of `above` replaces or stands inside.
    for (const auto& [path, value] : above) REQUIRE(merged.at(path) == value);
    for (const auto& [path, value] : merged) {
      if (above.count(path) == 1) continue;
      REQUIRE(below.at(path) == value);
    }
  }
}

TEST_CASE("the lattice holds every one of its points, and any number falls on it") {
  vole::Random chance(55);
  for (int round = 0; round < 20000; ++round) {
    const std::int64_t units = static_cast<std::int64_t>(chance.next() % (2u * 65536 * 256)) - 65536 * 256;
    REQUIRE(vole::to_subpixels(vole::to_pixels(units)) == units);
    const float pixels = chance.within(-60000, 60000);
    const vole::Vec2 on = vole::on_lattice({pixels, -pixels});
    REQUIRE(std::abs(on.x - pixels) <= 1.0f / 512);
    REQUIRE(vole::on_lattice(on) == on);
  }
}

TEST_CASE("a grid blocks a box where one of its cells does") {
  vole::Random chance(56);
  for (int round = 0; round < 3000; ++round) {
    const IVec2 cells{number(chance, 1, 6), number(chance, 1, 6)};
    const vole::Beyond beyond{chance.chance(0.5f), chance.chance(0.5f), chance.chance(0.5f),
                              chance.chance(0.5f)};
    vole::SolidGrid grid(cells, 4, beyond);
    for (int y = 0; y < cells.y; ++y)
      for (int x = 0; x < cells.x; ++x) grid.set({x, y}, chance.chance(0.2f));
    const vole::Rect box{
        {static_cast<float>(number(chance, -60, 100)) / 4, static_cast<float>(number(chance, -60, 100)) / 4},
        {static_cast<float>(number(chance, 1, 60)) / 4, static_cast<float>(number(chance, 1, 60)) / 4}};
    bool blocked = false;
    for (int y = -30; y < 60; ++y)
      for (int x = -30; x < 60; ++x)
        if (grid.solid(x, y))
          blocked = blocked || box.overlaps({{static_cast<float>(x * 4), static_cast<float>(y * 4)}, {4, 4}});
    REQUIRE(grid.blocks(box) == blocked);
  }
}

TEST_CASE("frames of any cut lie side by side and fill the picture") {
  vole::Random chance(57);
  for (int round = 0; round < 2000; ++round) {
    const vole::FrameCut cut{
        {number(chance, 1, 9), number(chance, 1, 9)}, number(chance, 0, 3), number(chance, 0, 3)};
    const IVec2 count{number(chance, 1, 6), number(chance, 1, 6)};
    const IVec2 size{2 * cut.margin + count.x * cut.size.x + (count.x - 1) * cut.spacing,
                     2 * cut.margin + count.y * cut.size.y + (count.y - 1) * cut.spacing};
    const auto [frames, columns] = vole::cut_frames(size, cut, {}, "p");
    REQUIRE(columns == count.x);
    REQUIRE(frames.size() == static_cast<std::size_t>(count.x * count.y));
    for (std::size_t i = 0; i < frames.size(); ++i) {
      REQUIRE(frames[i].shared_with({{0, 0}, size}) == frames[i]);
      for (std::size_t j = 0; j < i; ++j) REQUIRE_FALSE(frames[i].overlaps(frames[j]));
    }
    REQUIRE(frames.back().right() == size.x - cut.margin);
    REQUIRE(frames.back().bottom() == size.y - cut.margin);
    // A pixel more does not divide, unless that pixel makes room for nothing.
    if (cut.size.x + cut.spacing > 1)
      REQUIRE_THROWS_AS(vole::cut_frames({size.x + 1, size.y}, cut, {}, "p"), vole::Error);
  }
}

TEST_CASE("anchors name the corners, sides and middle of a box") {
  const IVec2 size{10, 6};
  CHECK(vole::spot_in(vole::Anchor::top_left, size) == IVec2{0, 0});
  CHECK(vole::spot_in(vole::Anchor::top, size) == IVec2{5, 0});
  CHECK(vole::spot_in(vole::Anchor::centre, size) == IVec2{5, 3});
  CHECK(vole::spot_in(vole::Anchor::bottom, size) == IVec2{5, 6});
  CHECK(vole::spot_in(vole::Anchor::bottom_right, size) == IVec2{10, 6});
}

TEST_CASE("a level of any letters is the grid that its rows draw") {
  TempFolder folder;
  write_small_game(folder);
  vole::Random chance(58);
  for (int round = 0; round < 60; ++round) {
    const IVec2 cells{number(chance, 1, 40), number(chance, 1, 30)};
    const std::array<std::pair<std::string, int>, 3> letters{
        {{".", 0}, {"\u2588", 1}, {"g", 2}}};  // also a letter of three bytes
    std::vector<int> wanted;
    std::string rows;
    for (int y = 0; y < cells.y; ++y) {
      rows += "  \"";
      for (int x = 0; x < cells.x; ++x) {
        const auto& [letter, tile] = letters[chance.below(3)];
        rows += letter;
        wanted.push_back(tile);
      }
      rows += "\",\n";
    }
    folder.write("levels/any.level.toml",
                 "tileset = \"soil\"\nletters = { \".\" = \"\", \"\u2588\" = \"soil\", \"g\" = \"grass\" "
                 "}\n[[layers]]\nname = \"ground\"\nrows = [\n" +
                     rows + "]\n");
    vole::Catalog catalog(folder.path());
    const auto level = catalog.get<vole::Level>("any");
    REQUIRE(level->cells == cells);
    for (int y = 0; y < cells.y; ++y)
      for (int x = 0; x < cells.x; ++x) {
        const auto index = static_cast<std::size_t>(y * cells.x + x);
        REQUIRE(level->layers[0].tiles.at(x, y) == wanted[index]);
        REQUIRE(level->solid.solid(x, y) == (wanted[index] == 1));
      }
  }
}

TEST_CASE("the plain font shows every letter of messages") {
  for (char letter = '!'; letter <= '~'; ++letter) {
    // Those it lacks are shown as a question mark, never as nothing.
    CAPTURE(letter);
    CHECK(vole::plain_font().glyph(static_cast<char32_t>(letter)) != nullptr);
  }
  CHECK(vole::plain_font().glyph(U'a') != vole::plain_font().glyph(U'A'));
  CHECK(vole::plain_font().glyph(U'\u20ac') == vole::plain_font().glyph(U'?'));
}
