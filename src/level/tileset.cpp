#include "vole/level/tileset.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "vole/base/check_notes.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

// A cell of a level has its tile's index and one value more, for none, in 16 bits.

struct TileText {
  std::optional<Located<IVec2>> cell;
  std::optional<Located<Colour>> colour;
  bool solid = false;
  std::optional<Located<TileShape>> shape;
  std::optional<Located<std::vector<Vec2>>> corners;
  Located<OneWay> one_way;
  Located<std::string> category;
};
template <class V>
void describe(V& v, TileText& tile) {
  v("cell", tile.cell, within(0, 65535));
  v("colour", tile.colour);
  v("solid", tile.solid);
  v("shape", tile.shape);
  v("corners", tile.corners, items(Shape::most_corners));
  v("one_way", tile.one_way);
  v("category", tile.category);
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

std::optional<CellForm> form_of(const TileText& tile, int cell, Report& report) {
  if (tile.shape && tile.corners)
    report.error(tile.corners->where, "a tile has either a \"shape\" or \"corners\" of its own");
  if (tile.corners) {
    try {
      return CellForm(Shape::polygon(tile.corners->value), cell);
    } catch (const Error& error) {
      report.error(tile.corners->where, error.problems()[0].text);
    }
  }
  if (tile.shape) return CellForm(tile.shape->value, cell);
  if (tile.solid) return CellForm::full(cell);
  return std::nullopt;
}

void add_tile(const NamedItem<TileText>& item, Tileset& tileset, Report& report) {
  const TileText& text = item.value;
  std::optional<CellForm> form = form_of(text, tileset.tile_size, report);
  if (!form && text.one_way.where.file)
    report.error(text.one_way.where, fmt::format("tile \"{}\" is one-way, but not solid", item.name),
                 "solid = true, or a shape");
  if (!form && text.category.where.file)
    report.error(text.category.where, fmt::format("tile \"{}\" has a category, but is not solid", item.name),
                 "solid = true, or a shape");
  if (form) {
    form->one_way = text.one_way.value;
    form->category = tileset.category(text.category);
  }
  tileset.tiles.push_back({item.name, form});
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
    add_tile(item, tileset, report);
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
    add_tile(item, tileset, report);
    tileset.frames.push_back(
        frame_of(*tileset.picture, frames[static_cast<std::size_t>(cell.y * columns + cell.x)]));
  }
}

}  // namespace

int Tileset::find(std::string_view tile_name) const {
  const std::size_t index = index_named(tiles, tile_name);
  return index < tiles.size() ? static_cast<int>(index) : -1;
}

namespace {

// Mirrored or turned, as one word of what is written after a tile's name says; false: it says neither.
bool lie(std::string_view word, TileCell& cell) {
  if (word == "mirrored" && cell.upright()) {
    cell.mirrored = true;
    return true;
  }
  constexpr std::array<std::string_view, 3> turns{"turned 90", "turned 180", "turned 270"};
  const auto turned = std::find(turns.begin(), turns.end(), word);
  if (turned == turns.end() || cell.quarters != 0) return false;
  cell.quarters = static_cast<int>(turned - turns.begin()) + 1;
  return true;
}

}  // namespace

TileCell Tileset::cell(std::string_view written, const FilePosition& asked) const {
  TileCell cell;
  if (written.empty()) return cell;
  // A name may have a comma of its own.
  std::string_view rest;
  cell.tile = find(written);
  for (std::size_t comma = 0; cell.tile < 0; ++comma) {
    comma = written.find(',', comma);
    if (comma == std::string_view::npos)
      throw Error(asked,
                  fmt::format("no tile \"{}\" in tileset \"{}\"", written.substr(0, written.find(',')), name),
                  did_you_mean(written.substr(0, written.find(',')), names_of(tiles)));
    cell.tile = find(written.substr(0, comma));
    rest = written.substr(comma);
  }
  while (!rest.empty()) {
    rest.remove_prefix(std::min(rest.find_first_not_of(", "), rest.size()));
    const std::string_view word = rest.substr(0, rest.find(','));
    if (!lie(word, cell))
      throw Error(
          asked, fmt::format("\"{}\" does not say how a tile lies", word),
          "after its name may come \"mirrored\", and then \"turned 90\", \"turned 180\" or \"turned 270\"");
    rest.remove_prefix(word.size());
  }
  return cell;
}

std::optional<CellForm> Tileset::form(const TileCell& cell) const {
  const std::optional<CellForm>& upright = tiles[static_cast<std::size_t>(cell.tile)].form;
  if (!upright || cell.upright()) return upright;
  return (cell.mirrored ? upright->mirrored() : *upright).turned(cell.quarters);
}

std::uint8_t Tileset::category(const Located<std::string>& its) {
  if (its.value.empty()) return 0;
  const auto named = [&its](const Located<std::string>& known) { return known.value == its.value; };
  auto found = std::find_if(categories.begin(), categories.end(), named);
  if (found == categories.end()) {
    if (categories.size() == most_categories)
      throw Error(its.where, fmt::format("tiles of more than {} categories", most_categories));
    found = categories.insert(found, its);
  }
  return static_cast<std::uint8_t>(found - categories.begin());
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
