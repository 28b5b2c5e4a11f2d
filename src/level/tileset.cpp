#include "vole/level/tileset.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "vole/base/check_notes.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

// A cell of a level has its tile's index and one value more, for none, in 16 bits.
constexpr std::size_t most_tiles = 65534;

struct TileText {
  std::optional<Located<IVec2>> cell;
  std::optional<Located<Colour>> colour;
  bool solid = false;
};
template <class V>
void describe(V& v, TileText& tile) {
  v("cell", tile.cell, within(0, 65535));
  v("colour", tile.colour);
  v("solid", tile.solid);
}

struct TilesetText {
  Located<std::string> picture;
  std::optional<Located<FrameCut>> frame;
  std::optional<Located<int>> size;  // of tiles of one colour, until there is a picture
  Named<TileText> tiles;
  CheckNotes check;
};
template <class V>
void describe(V& v, TilesetText& tileset) {
  v("picture", tileset.picture);
  v("frame", tileset.frame);
  v("size", tileset.size, within(1, 256));
  v("tiles", tileset.tiles, needed().items(most_tiles));
  v("check", tileset.check);
}

// Tiles of one colour each, side by side.
void paint_stand_ins(const TilesetText& text, Tileset& tileset, Report& report) {
  const int size = tileset.tile_size = text.size->value;
  const int count = static_cast<int>(text.tiles.size());
  if (count == 0)
    return report.error(text.size->where, "a tileset without a picture needs [tiles] with colours");
  if (std::int64_t{count} * size * size > Image::most_pixels / 2)
    return report.error(text.size->where,
                        fmt::format("{} tiles of {} x {} pixels are too large", count, size, size));
  const int columns = static_cast<int>(std::ceil(std::sqrt(count)));
  Image image(IVec2{std::min(count, columns), (count + columns - 1) / columns} * size);
  std::vector<IRect> areas;
  for (const auto& item : text.tiles) {
    if (!item.value.colour || item.value.cell)
      report.error(item.where, fmt::format("tile \"{}\" has a \"colour\" here, and no \"cell\"", item.name),
                   "this tileset has a \"size\" and no picture");
    const int index = static_cast<int>(areas.size());
    const IRect area{IVec2{index % columns, index / columns} * size, {size, size}};
    const Image tile = stand_in_image(area.size, item.value.colour ? item.value.colour->value : clear);
    for (int y = 0; y < size; ++y) std::copy_n(tile.row(y), size, image.row(area.top() + y) + area.left());
    areas.push_back(area);
    tileset.tiles.push_back({item.name, item.value.solid});
  }
  tileset.picture = std::make_shared<const Picture>(image);
  for (const IRect& area : areas) tileset.frames.push_back(frame_of(*tileset.picture, area));
}

void cut_tiles(const TilesetText& text, const Node& root, Loading& loading, Tileset& tileset,
               Report& report) {
  const Located<FrameCut>& cut = *text.frame;
  tileset.picture = picture_beside(loading, text.picture, root.where).shared();
  if (cut.value.size.x != cut.value.size.y)
    throw Error(cut.where,
                fmt::format("tiles are square; {} x {} is not", cut.value.size.x, cut.value.size.y));
  tileset.tile_size = cut.value.size.x;
  const auto [frames, columns] = cut_frames(tileset.picture->size(), cut.value, cut.where, tileset.name,
                                            allows(text.check, "uneven-frames"));
  const int rows = static_cast<int>(frames.size()) / columns;
  for (const auto& item : text.tiles) {
    if (!item.value.cell || item.value.colour) {
      report.error(item.where, fmt::format("tile \"{}\" has a \"cell\" here, and no \"colour\"", item.name),
                   "this tileset is cut from a picture");
      continue;
    }
    const IVec2 cell = item.value.cell->value;
    if (cell.x >= columns || cell.y >= rows) {
      report.error(
          item.value.cell->where,
          fmt::format("tile \"{}\" is at column {}, row {}, but the picture has {} columns and {} rows",
                      item.name, cell.x, cell.y, columns, rows),
          "they are counted from 0");
      continue;
    }
    tileset.tiles.push_back({item.name, item.value.solid});
    tileset.frames.push_back(
        frame_of(*tileset.picture, frames[static_cast<std::size_t>(cell.y * columns + cell.x)]));
  }
}

}  // namespace

int Tileset::find(std::string_view tile_name) const {
  const std::size_t index = index_named(tiles, tile_name);
  return index < tiles.size() ? static_cast<int>(index) : -1;
}

Tileset AssetType<Tileset>::load(Loading& loading) {
  Report report;
  TilesetText text;
  const Node root = read_toml(loading.path());
  read(root, text, report);
  report.throw_if_errors();

  if (text.frame.has_value() == text.size.has_value())
    throw Error(
        root.where,
        "a tileset has either a \"frame\", which cuts a picture, or the \"size\" of tiles of one colour");
  Tileset tileset;
  tileset.name = loading.name();
  if (text.size)
    paint_stand_ins(text, tileset, report);
  else
    cut_tiles(text, root, loading, tileset, report);
  report.throw_if_errors();
  return tileset;
}

Node AssetType<Tileset>::schema() {
  return schema_of<TilesetText>();
}

}  // namespace vole
