// Ground that chooses its tiles by its neighbours.
#include "test_stage.hpp"
#include "vole/base/block_grid.hpp"
#include "vole/level/level.hpp"

namespace {

using vole::IVec2;
using vole::Neighbours;
using vole::NeighbourSet;

bool has(int neighbours, int bit) {
  return (neighbours >> ((bit + 8) % 8) & 1) != 0;
}

// The number of a case as the header says it, in plain steps.
int number_of(int neighbours, NeighbourSet set) {
  int number = 0;
  if (set == NeighbourSet::four)
    for (int side = 0; side < 4; ++side) number += has(neighbours, 2 * side) ? 1 << side : 0;
  const auto full = [&](int corner) {
    return has(neighbours, corner) && has(neighbours, corner - 1) && has(neighbours, corner + 1);
  };
  if (set == NeighbourSet::diagonal)
    for (int corner = 0; corner < 4; ++corner) number += full(2 * corner + 1) ? 1 << corner : 0;
  if (set == NeighbourSet::eight) {
    int sum = 0;
    for (int bit = 0; bit < 8; ++bit)
      if (bit % 2 == 0 ? has(neighbours, bit) : full(bit)) sum += 1 << bit;
    // How many sums that can be are smaller.
    std::set<int> sums;
    for (int other = 0; other < 256; ++other) {
      int its = 0;
      for (int bit = 0; bit < 8; ++bit)
        if (has(other, bit) && (bit % 2 == 0 || (has(other, bit - 1) && has(other, bit + 1))))
          its += 1 << bit;
      sums.insert(its);
    }
    number = static_cast<int>(std::distance(sums.begin(), sums.find(sum)));
  }
  return number;
}

const char* word(NeighbourSet set) {
  return vole::enum_names(set)[static_cast<std::size_t>(set)].data();
}

// A game whose tileset has a material for each set of neighbours, drawn case by case: soil (four), moss (diagonal), clay (eight).
void write_materials(TempFolder& folder) {
  write_small_game(folder);
  folder.write_picture("assets/ground.png", {64, 192}, {0x4a, 0x30, 0x26, 0xff});
  folder.write("assets/ground.tileset.toml",
               "frame = { size = [8, 8] }\n"
               "[tiles]\nramp = { cell = [7, 23], shape = \"rise\" }\nplank = { cell = [6, 23] }\n"
               "[materials]\n"
               "soil = { neighbours = \"four\", first = [0, 0], solid = true, joins = [\"ramp\", \"clay\"], "
               "variants = ["
               "{ case = 15, cells = [[4, 0], [5, 0]], weight = 0.5 }] }\n"
               "moss = { neighbours = \"diagonal\", first = [0, 4] }\n"
               "clay = { neighbours = \"eight\", first = [0, 8], columns = 8, solid = true, missing = [46, "
               "3], friction = "
               "0.5 }\n");
  folder.write("levels/ground.level.toml",
               "tileset = \"ground\"\ncells = [12, 9]\n[[layers]]\nname = \"ground\"\n[[layers]]\nname = "
               "\"things\"\n");
}

std::string name_at(const vole::Level& level, IVec2 cell) {
  return std::string(level.tiles.name({vole::TileCell::from(level.layers[0].tiles.find(cell))}));
}

}  // namespace

TEST_CASE("each of the 256 neighbourhoods is the case that the table says") {
  for (const NeighbourSet set : {NeighbourSet::four, NeighbourSet::diagonal, NeighbourSet::eight}) {
    const std::vector<Neighbours>& cases = vole::cases_of(set);
    REQUIRE(cases.size() == (set == NeighbourSet::eight ? 47u : 16u));
    for (int neighbours = 0; neighbours < 256; ++neighbours) {
      const Neighbours matter = vole::that_matter(static_cast<Neighbours>(neighbours), set);
      const auto found = std::find(cases.begin(), cases.end(), matter);
      CAPTURE(word(set), neighbours);
      REQUIRE(found != cases.end());
      REQUIRE(found - cases.begin() == number_of(neighbours, set));
    }
  }
  CHECK(vole::to_text(0, NeighbourSet::four) == "none");
  CHECK(vole::to_text(0x55, NeighbourSet::four) == "all");
  CHECK(vole::to_text(0x07, NeighbourSet::eight) == "above, above right, right");
}

TEST_CASE("a case that is not there is shown by the nearest that is") {
  vole::Random chance(77);
  for (int round = 0; round < 500; ++round) {
    vole::TileMaterial material;
    material.neighbours = static_cast<NeighbourSet>(chance.below(3));
    for (const Neighbours each : vole::cases_of(material.neighbours))
      if (chance.chance(0.3f)) material.cases.push_back({each, {{static_cast<int>(each), 1}}});
    if (material.cases.empty()) continue;
    material.find_nearest_cases();
    for (int i = 0; i < 256; ++i) {
      const Neighbours wanted = vole::that_matter(static_cast<Neighbours>(i), material.neighbours);
      const int shown = material.tile(static_cast<Neighbours>(i), 0, 0);
      const auto cost = [wanted](int other) {
        int sum = 0;
        for (int bit = 0; bit < 8; ++bit) sum += has(wanted ^ other, bit) ? (bit % 2 == 0 ? 100 : 1) : 0;
        return sum;
      };
      for (const auto& each : material.cases) REQUIRE(cost(shown) <= cost(each.neighbours));
    }
    REQUIRE(material.missing().size() + material.cases.size() == vole::cases_of(material.neighbours).size());
  }
}

TEST_CASE(
    "painted in any order, ground comes to the same tiles as from the file, and a change touches its "
    "neighbours only") {
  TempFolder folder;
  write_materials(folder);
  vole::Random chance(31);
  const std::vector<std::string> paints{"", "soil", "moss", "clay", "ramp", "plank"};
  const std::string letters =
      "letters = { \".\" = \"\", s = \"soil\", m = \"moss\", c = \"clay\", r = \"ramp\", p = \"plank\" }\n";
  for (int round = 0; round < 30; ++round) {
    const IVec2 size{static_cast<int>(chance.below(20)) + 1, static_cast<int>(chance.below(20)) + 1};
    std::vector<std::string> rows(static_cast<std::size_t>(size.y),
                                  std::string(static_cast<std::size_t>(size.x), '.'));
    for (std::string& row : rows)
      for (char& letter : row) letter = ".ssmcccrp"[chance.below(9)];
    const auto file = [&](const std::string& name, const std::vector<std::string>& its) {
      std::string text = "tileset = \"ground\"\n" + letters + "[[layers]]\nname = \"ground\"\nrows = [\n";
      for (const std::string& row : its) text += "\"" + row + "\",\n";
      folder.write("levels/" + name + ".level.toml", text + "]\n");
    };
    file("whole", rows);
    file("empty", std::vector<std::string>(rows.size(), std::string(rows[0].size(), '.')));
    TestStage test;
    vole::Stage& stage = test.start(folder);
    const auto whole = test.catalog->get<vole::Level>("whole");
    stage.load_level("empty");
    vole::LevelNow& level = stage.level();
    std::vector<IVec2> cells;
    for (int i = 0; i < size.x * size.y; ++i) cells.push_back({i % size.x, i / size.x});
    for (std::size_t i = cells.size(); i > 1; --i)
      std::swap(cells[i - 1], cells[chance.below(static_cast<std::uint32_t>(i))]);
    for (const IVec2 at : cells) {
      // On the way some cells are something else.
      if (chance.chance(0.3f)) level.put("ground", at, paints[chance.below(6)]);
      const vole::TileGrid before = level.tiles(0);
      const char letter = rows[static_cast<std::size_t>(at.y)][static_cast<std::size_t>(at.x)];
      level.put("ground", at, paints[std::string(".smcrp").find(letter)]);
      for (const IVec2 other : cells)
        if (std::max(std::abs(other.x - at.x), std::abs(other.y - at.y)) > 1)
          REQUIRE(level.tiles(0).find(other) == before.find(other));
    }
    REQUIRE(level.tiles(0) == whole->layers[0].tiles);
    REQUIRE(level.painted(0) == whole->layers[0].painted);
    for (const IVec2 at : cells) REQUIRE(level.solid().solid(at.x, at.y) == whole->solid.solid(at.x, at.y));
    // What has never been changed is as the file has it, to the bit.
    REQUIRE(stage.level().file().layers[0].tiles == vole::TileGrid(size));
  }
}

TEST_CASE("ground joins what it says, and goes on beyond the level") {
  TempFolder folder;
  write_materials(folder);
  folder.write("levels/joins.level.toml",
               "tileset = \"ground\"\nletters = { \".\" = \"\", s = \"soil\", c = \"clay\", r = \"ramp\", p "
               "= \"plank\" }\n"
               "[[layers]]\nname = \"ground\"\nrows = [\n\".....\",\n\"rscs.\",\n\"psp..\",\n]\n");
  vole::Catalog catalog(folder.path());
  const auto level = catalog.get<vole::Level>("joins");
  CHECK(name_at(*level, {1, 1}) == "soil 14");  // right, below, left: clay, soil and a ramp; nothing above
  CHECK(name_at(*level, {3, 1}) == "soil 8");   // clay on the left
  CHECK(name_at(*level, {1, 2}) == "soil 5");   // above, and below the level
  // Clay joins nothing: below it is a plank, beside it soil.
  CHECK(name_at(*level, {2, 1}) == "clay 0");
  CHECK(level->tiles.tile(level->tiles.paint("clay 0").cell.tile).friction == 0.5f);
  CHECK(level->tiles.materials()[2].missing().size() == 2);
}

TEST_CASE("variants come by their weight, and stay where nothing about their cell changes") {
  TempFolder folder;
  write_materials(folder);
  TestStage test;
  vole::Stage& stage = test.start(folder);
  const auto tileset = test.catalog->get<vole::Tileset>("ground");
  std::map<int, int> times;
  for (int y = 0; y < 100; ++y)
    for (int x = 0; x < 100; ++x) ++times[tileset->materials[0].tile(0xff, x, y)];
  REQUIRE(times.size() == 3);
  CHECK(times[tileset->find("soil 15")] / 10000.0 == Approx(0.5).margin(0.02));
  CHECK(times[tileset->find("soil 15 variant 1")] / 10000.0 == Approx(0.25).margin(0.02));
  stage.load_level("ground");
  for (int y = 0; y < 9; ++y)
    for (int x = 0; x < 12; ++x) stage.level().put("ground", {x, y}, "soil");
  const vole::TileGrid before = stage.level().tiles(0);
  stage.level().put("ground", {6, 4}, "");
  stage.level().put("ground", {6, 4}, "soil");
  CHECK(stage.level().tiles(0) == before);
}

TEST_CASE("materials may take their tiles case by case, and what is wrong with one is reported") {
  TempFolder folder;
  write_small_game(folder);
  const auto wrong = [&](const std::string& material) {
    folder.write("assets/soil.tileset.toml",
                 "frame = { size = [8, 8] }\n[tiles]\nsoil = { cell = [0, 0], solid = true }\ngrass = { cell "
                 "= [1, 0] }\n" +
                     material);
    return error_of([&] { vole::Catalog(folder.path()).get<vole::Tileset>("soil"); }, folder);
  };
  CHECK(wrong("[materials.lawn]\ncases.\"left, right, below\" = \"grass\"\n"
              "cases.all = [\"soil\", { tile = \"grass\", weight = 0 }]\n") == "");
  vole::Catalog catalog(folder.path());
  const auto lawn = catalog.get<vole::Tileset>("soil");
  CHECK(lawn->materials[0].tile(0b01010100, 0, 0) == 1);
  CHECK(lawn->materials[0].tile(0xff, 3, 8) == 0);
  CHECK(lawn->materials[0].tile(0b00010000, 3, 8) ==
        1);  // below alone: two sides from the one, three from the other
  const std::string start = "assets/soil.tileset.toml:";
  CHECK(wrong("[materials.lawn]\n") ==
        start +
            "5:12: error: material \"lawn\" has either \"first\", where its cases begin in the picture, "
            "or \"cases\"");
  CHECK(wrong("[materials.lawn]\ncases.lefft = \"soil\"\n") ==
        start + "6:7: error: \"lefft\" is no neighbour; did you mean \"left\"?\n" + start +
            "5:12: error: material \"lawn\" has no case with a tile");
  CHECK_THAT(wrong("[materials.lawn]\ncases.left = \"sol\"\n"),
             Catch::Contains("6:14: error: no tile \"sol\" in tileset \"soil\"; did you mean \"soil\"?"));
  CHECK_THAT(wrong("[materials.lawn]\ncases.\"above left\" = \"soil\"\n"),
             Catch::Contains("\"above left\" is no case of \"four\""));
  CHECK_THAT(wrong("[materials.lawn]\nneighbours = \"eight\"\ncases.\"above left\" = \"soil\"\n"),
             Catch::Contains("a corner counts only where both sides beside it do"));
  CHECK_THAT(wrong("[materials.lawn]\ncases.\"left, right\" = \"soil\"\ncases.\"right, left\" = \"soil\"\n"),
             Catch::Contains("7:7: error: the case \"right, left\" is there already"));
  CHECK_THAT(
      wrong("[materials.lawn]\nfirst = [1, 0]\n"),
      Catch::Contains(
          "case 1 of material \"lawn\" is at column 2, row 0, but the picture has 2 columns and 1 rows"));
  CHECK_THAT(wrong("[materials.lawn]\nfirst = [0, 0]\nmissing = [16]\n"),
             Catch::Contains("7:12: error: no case 16: there are 16"));
  CHECK_THAT(wrong("[materials.lawn]\nsolid = true\ncases.all = \"soil\"\n"),
             Catch::Contains("what is solid about material \"lawn\" is said of its tiles"));
  CHECK_THAT(wrong("[materials.soil]\ncases.all = \"soil\"\n"),
             Catch::Contains("two tiles or materials are named \"soil\""));
  CHECK_THAT(wrong("[materials.lawn]\ncases.all = \"soil\"\njoins = [\"hrass\"]\n"),
             Catch::Contains("no tile or material \"hrass\""));
  CHECK_THAT(wrong("[materials.lawn]\ncases.all = [{ tile = \"soil\", weight = 0 }]\n"),
             Catch::Contains("this case of material \"lawn\" has no tile to choose"));
  CHECK_THAT(wrong("[materials.lawn]\ncases.all = \"soil\"\nslip = 3\n"),
             Catch::Contains("7:1: error: unknown key \"slip\""));
}
