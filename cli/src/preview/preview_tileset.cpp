#include "preview_tileset.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "preview_page.hpp"
#include "vole/draw/mark_colours.hpp"
#include "vole/level/tile_table.hpp"

namespace {

using namespace paper;

constexpr int line_step = 18;  // from one line of text to the next

// What there is to say of a tile besides its name: "water, friction 0.2, tags wet and deep, pond".
std::vector<std::string> properties(const vole::Tileset& tileset, const vole::Tile& tile) {
  std::vector<std::string> lines;
  if (tile.form && tile.form->category != 0) lines.push_back(tileset.categories[tile.form->category].value);
  if (tile.form && tile.form->one_way != vole::OneWay::no)
    lines.push_back(fmt::format(
        "one way {}", vole::enum_names(vole::OneWay{})[static_cast<std::size_t>(tile.form->one_way)]));
  if (tile.friction != 1) lines.push_back(fmt::format("friction {:g}", tile.friction));
  for (const std::string& tag : tile.tags) lines.push_back(fmt::format("\"{}\"", tag));
  for (const auto& item : tile.values)
    lines.push_back(vole::to_toml(item.value).insert(0, item.name + " = "));
  if (tile.moves()) lines.push_back(fmt::format("{} frames", tile.frames.size()));
  return lines;
}

std::string cut(std::string text, int width) {
  constexpr int letter = 12;
  const auto most = static_cast<std::size_t>(std::max(width / letter, 4));
  if (text.size() > most) text = text.substr(0, most - 2) + "..";
  return text;
}

void draw_tile(Page& page, const vole::Tile& tile, IVec2 at, IVec2 size, int scale) {
  page.squares({at, size * scale}, 16);
  page.frame(tile.frames[0], at, scale);
  if (tile.form)
    page.shape(tile.form->shape(), at, scale,
               tile.form->one_way == vole::OneWay::no ? vole::mark_colours::solid_tile
                                                      : vole::mark_colours::one_way);
}

// Which neighbours are of the material: nine squares, the middle one the tile itself.
void draw_neighbours(Page& page, vole::Neighbours neighbours, IVec2 at) {
  constexpr int size = 7;
  page.fill({at - IVec2{1, 1}, IVec2{3 * size + 1, 3 * size + 1}}, dark_square);
  page.fill({at + IVec2{size, size}, {size - 1, size - 1}}, ink);
  for (std::size_t i = 0; i < vole::neighbour_steps.size(); ++i)
    if ((neighbours >> i & 1) != 0)
      page.fill({at + (vole::neighbour_steps[i] + IVec2{1, 1}) * size, {size - 1, size - 1}}, mark);
}

// An island with all that edges meet: points, bays, a lake, ground of one cell and a strip.
constexpr std::array<std::string_view, 12> island_rows{
    "...........###....", "..#....######.....", "....#########..#..", "..####.#######.##.",
    ".###########..###.", ".####...#########.", "..###...######.#..", "..####.######.....",
    "...##########..#..", ".#..#######.......", ".#....##...####...", ".#................"};

class EdgesPage {
 public:
  explicit EdgesPage(const vole::Tileset& tileset)
      : tileset_(tileset),
        shown_(std::min(tileset.materials.size(), most)),
        page_({page_size.x, std::max(page_size.y, 60 + band * static_cast<int>(shown_))}) {}

  void draw() {
    page_.text(
        {margin, 16},
        fmt::format("{}: {} material{} of tiles{}; a case that is not there shows the nearest that is",
                    tileset_.name, tileset_.materials.size(), tileset_.materials.size() == 1 ? "" : "s",
                    shown_ < tileset_.materials.size() ? fmt::format(", the first {} here", shown_) : ""));
    int top = 48;
    for (std::size_t i = 0; i < shown_; ++i) {
      draw_material(i, top);
      top += band;
    }
  }
  void save(const std::string& output) { page_.save(output); }

 private:
  static constexpr int band = 440;        // of one material
  static constexpr std::size_t most = 8;  // materials: more would be a very long picture

  void draw_material(std::size_t index, int top) {
    const vole::TileMaterial& material = tileset_.materials[index];
    const std::vector<vole::Neighbours>& cases = vole::cases_of(material.neighbours);
    page_.text(
        {margin, top},
        fmt::format("{}: by {} neighbours (gold: of this material), {} of {} cases", material.name,
                    vole::enum_names(vole::NeighbourSet{})[static_cast<std::size_t>(material.neighbours)],
                    material.cases.size(), cases.size()),
        mark);
    const bool many = cases.size() > 16;
    const int columns = many ? 10 : 4;
    const IVec2 tile = tileset_.tile_size;
    const int scale = std::max(1, (many ? 36 : 48) / std::max(tile.x, tile.y));
    const IVec2 step{tile.x * scale + (many ? 28 : 40), tile.y * scale + 44};
    for (std::size_t i = 0; i < cases.size(); ++i) {
      const IVec2 at{margin + static_cast<int>(i) % columns * step.x,
                     top + 24 + static_cast<int>(i) / columns * step.y};
      draw_case(material, static_cast<int>(i), cases[i], at, scale);
    }
    draw_island(index, {margin + columns * step.x + 24, top + 24});
  }

  void draw_case(const vole::TileMaterial& material, int number, vole::Neighbours neighbours, IVec2 at,
                 int scale) {
    const auto its = std::find_if(material.cases.begin(), material.cases.end(),
                                  [neighbours](const auto& each) { return each.neighbours == neighbours; });
    const IVec2 size = tileset_.tile_size;
    const IVec2 below{at.x, at.y + size.y * scale + 4};
    draw_neighbours(page_, neighbours, below);
    page_.text({below.x + 26, below.y + 4}, std::to_string(number),
               its == material.cases.end() ? missing : ink);
    if (its == material.cases.end()) return page_.outline({at, size * scale}, missing);
    page_.squares({at, size * scale}, 8);
    page_.frame(tileset_.tiles[static_cast<std::size_t>(its->choices[0].tile)].frames[0], at, scale);
    if (its->choices.size() > 1)
      page_.text({below.x + 26, below.y + 18}, fmt::format("x{}", its->choices.size()), faint);
  }

  void draw_island(std::size_t material, IVec2 at) {
    const IVec2 cells{static_cast<int>(island_rows[0].size()), static_cast<int>(island_rows.size())};
    const IVec2 size = tileset_.tile_size;
    const IVec2 room = IVec2{page_size.x, at.y + band - 48} - at - IVec2{margin, 0};
    const int scale = std::max(1, std::min(room.x / (cells.x * size.x), room.y / (cells.y * size.y)));
    vole::MaterialGrid painted(cells);
    for (int y = 0; y < cells.y; ++y)
      for (int x = 0; x < cells.x; ++x)
        if (island_rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)] == '#')
          painted.set({x, y}, static_cast<std::uint8_t>(material + 1));
    page_.squares({at, cells * size * scale}, 16);
    const vole::TileGrid nothing(cells);
    painted.visit([&](IVec2 cell, std::uint8_t) {
      const int tile = vole::TileCell::from(vole::edge_tile(tileset_.materials, painted, nothing, cell)).tile;
      page_.frame(tileset_.tiles[static_cast<std::size_t>(tile)].frames[0], at + cell * size * scale, scale);
    });
  }

  const vole::Tileset& tileset_;
  std::size_t shown_;
  Page page_;
};

}  // namespace

void preview_tileset(const vole::Tileset& tileset, const std::string& output) {
  Page page;
  page.text({margin, 16},
            fmt::format("{}: {} tiles of {} x {} pixels; what is solid has a rim, one-way in gold",
                        tileset.name, tileset.tiles.size(), tileset.tile_size.x, tileset.tile_size.y));
  std::size_t most_lines = 0;
  for (const vole::Tile& tile : tileset.tiles)
    most_lines = std::max(most_lines, properties(tileset, tile).size());
  const int text_height = 32 + line_step * static_cast<int>(std::min<std::size_t>(most_lines, 6));
  const int beside = tileset.tiles.size() > 60 ? 30 : 90;
  const int scale = fitting_scale(tileset.tile_size, static_cast<int>(tileset.tiles.size()),
                                  {page_size.x - 2 * margin, page_size.y - 70}, {beside, text_height});
  const IVec2 step{tileset.tile_size.x * scale + beside, tileset.tile_size.y * scale + text_height};
  // Each row is as high as the most that is said of one of its tiles.
  const auto columns = static_cast<std::size_t>(std::max((page_size.x - 2 * margin) / step.x, 1));
  int top = 56;
  for (std::size_t first = 0; first < tileset.tiles.size() && top + step.y - line_step < page_size.y;
       first += columns) {
    std::size_t lines_here = 0;
    for (std::size_t i = first; i < std::min(first + columns, tileset.tiles.size()); ++i) {
      const vole::Tile& tile = tileset.tiles[i];
      const IVec2 at{margin + static_cast<int>(i - first) * step.x, top};
      draw_tile(page, tile, at, tileset.tile_size, scale);
      int y = at.y + tileset.tile_size.y * scale + 6;
      page.text({at.x, y}, cut(tile.name, step.x - 6));
      std::vector<std::string> lines = properties(tileset, tile);
      lines.resize(std::min<std::size_t>(lines.size(), 6));
      for (const std::string& its : lines) page.text({at.x, y += line_step}, cut(its, step.x - 6), faint);
      lines_here = std::max(lines_here, lines.size());
    }
    top += tileset.tile_size.y * scale + 32 + line_step * static_cast<int>(lines_here);
  }
  page.save(output);
}

void preview_edges(const vole::Tileset& tileset, const std::string& output) {
  if (tileset.materials.empty())
    throw vole::Error(vole::FilePosition::whole_file(tileset.name),
                      "has no materials whose edges could be shown", "they are written as [materials.NAME]");
  EdgesPage page(tileset);
  page.draw();
  page.save(output);
}
