#include "vole/level/tileset.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "vole/base/check_notes.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

// A cell of a level has its tile's index and one value more, for none, in 16 bits.
constexpr std::size_t most_tiles = 65534;

struct TileText {
  Located<IVec2> cell;
  bool solid = false;
};
template <class V>
void describe(V& v, TileText& tile) {
  v("cell", tile.cell, needed().within(0, 65535));
  v("solid", tile.solid);
}

struct TilesetText {
  Located<std::string> picture;
  Located<FrameCut> frame;
  Named<TileText> tiles;
  CheckNotes check;
};
template <class V>
void describe(V& v, TilesetText& tileset) {
  v("picture", tileset.picture);
  v("frame", tileset.frame, needed());
  v("tiles", tileset.tiles, needed().items(most_tiles));
  v("check", tileset.check);
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

  Tileset tileset;
  tileset.name = loading.name();
  tileset.picture = picture_beside(loading, text.picture, root.where).shared();
  const IVec2 size = text.frame.value.size;
  if (size.x != size.y)
    throw Error(text.frame.where, fmt::format("tiles are square; {} x {} is not", size.x, size.y));
  tileset.tile_size = size.x;
  const auto [frames, columns] = cut_frames(tileset.picture->size(), text.frame.value, text.frame.where,
                                            tileset.name, allows(text.check, "uneven-frames"));
  const int rows = static_cast<int>(frames.size()) / columns;
  for (const auto& item : text.tiles) {
    const IVec2 cell = item.value.cell.value;
    if (cell.x >= columns || cell.y >= rows) {
      report.error(
          item.value.cell.where,
          fmt::format("tile \"{}\" is at column {}, row {}, but the picture has {} columns and {} rows",
                      item.name, cell.x, cell.y, columns, rows),
          "they are counted from 0");
      continue;
    }
    const int index = cell.y * columns + cell.x;
    const IRect area = frames[static_cast<std::size_t>(index)];
    tileset.tiles.push_back({item.name, item.value.solid});
    tileset.frames.push_back(frame_of(*tileset.picture, area));
  }
  report.throw_if_errors();
  return tileset;
}

Node AssetType<Tileset>::schema() {
  return schema_of<TilesetText>();
}

}  // namespace vole
