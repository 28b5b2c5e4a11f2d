#include "vole/level/tile_table.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "vole/base/names.hpp"

namespace vole {
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

void read_lie(std::string_view rest, TileCell& cell, const FilePosition& asked) {
  while (!rest.empty()) {
    rest.remove_prefix(std::min(rest.find_first_not_of(", "), rest.size()));
    const std::string_view word = rest.substr(0, rest.find(','));
    if (!lie(word, cell))
      throw Error(
          asked, fmt::format("\"{}\" does not say how a tile lies", word),
          "after its name may come \"mirrored\", and then \"turned 90\", \"turned 180\" or \"turned 270\"");
    rest.remove_prefix(word.size());
  }
}

}  // namespace

void TileTable::add(std::shared_ptr<const Tileset> tileset, const FilePosition& asked) {
  const Tileset& set = *tileset;
  const IVec2 size = tile_size();
  if (std::find(sets_.begin(), sets_.end(), tileset) != sets_.end())
    throw Error(asked, fmt::format("the tileset \"{}\" is named twice", set.name));
  if (!empty() && set.tile_size != size)
    throw Error(asked,
                fmt::format("the tiles of \"{}\" are {} x {} pixels, and those of \"{}\" {} x {}", set.name,
                            set.tile_size.x, set.tile_size.y, sets_[0]->name, size.x, size.y),
                "all tilesets of a level have tiles of one size");
  if (tiles_.size() + set.tiles.size() > most_tiles)
    throw Error(asked,
                fmt::format("with \"{}\" the level has {} tiles to choose from", set.name,
                            tiles_.size() + set.tiles.size()),
                fmt::format("at most {}", most_tiles));
  if (materials_.size() + set.materials.size() > most_materials)
    throw Error(asked,
                fmt::format("with \"{}\" the level has {} materials of tiles", set.name,
                            materials_.size() + set.materials.size()),
                fmt::format("at most {}", most_materials));
  const auto first_tile = static_cast<int>(tiles_.size()),
             first_material = static_cast<int>(materials_.size());
  for (Tile tile : set.tiles) {
    if (tile.form)
      tile.form->category = category_among(categories_, set.categories.at(tile.form->category), asked);
    name(tile.name, static_cast<int>(tiles_.size()), false, set);
    if (tile.moves()) moving_.push_back(static_cast<int>(tiles_.size()));
    frames_.push_back(tile.frames[0]);
    tiles_.push_back(std::move(tile));
  }
  for (TileMaterial material : set.materials) {
    for (TileMaterial::Case& its : material.cases)
      for (TileMaterial::Choice& choice : its.choices) choice.tile += first_tile;
    for (int& tile : material.joined_tiles) tile += first_tile;
    for (int& other : material.joined_materials) other += first_material;
    name(material.name, static_cast<int>(materials_.size()), true, set);
    materials_.push_back(std::move(material));
  }
  sets_.push_back(std::move(tileset));
}

void TileTable::name(const std::string& its, int index, bool is_material, const Tileset& set) {
  Known& plain = by_name_[its];
  if (plain.times++ == 0) plain = {index, is_material, set.name, 1};
  by_name_[fmt::format("{}:{}", set.name, its)] = {index, is_material, set.name, 1};
}

const TileTable::Known* TileTable::find(std::string_view name, const FilePosition& asked) const {
  const auto found = by_name_.find(name);
  if (found == by_name_.end()) return nullptr;
  if (found->second.times > 1)
    throw Error(asked, fmt::format("several tilesets have \"{}\"", name),
                fmt::format("write \"{}:{}\", or another tileset's name before it", found->second.set, name));
  return &found->second;
}

Paint TileTable::paint(std::string_view written, const FilePosition& asked) const {
  if (written.empty()) return {};
  if (empty())
    throw Error(asked, fmt::format("tile \"{}\" without a tileset", written),
                "name one with tileset = \"...\"");
  // A name may have a comma of its own.
  std::size_t comma = written.size();
  const Known* found = find(written, asked);
  for (std::size_t next = written.find(','); !found && next != std::string_view::npos;
       next = written.find(',', next + 1)) {
    comma = next;
    found = find(written.substr(0, comma), asked);
  }
  if (!found) {
    const std::string_view name = written.substr(0, written.find(','));
    std::vector<std::string> known = names_of(tiles_);
    for (const TileMaterial& material : materials_) known.push_back(material.name);
    throw Error(asked,
                sets_.size() == 1
                    ? fmt::format("no tile \"{}\" in tileset \"{}\"", name, sets_[0]->name)
                    : fmt::format("no tile \"{}\" in the level's {} tilesets", name, sets_.size()),
                did_you_mean(name, known));
  }
  Paint paint;
  (found->is_material ? paint.material : paint.cell.tile) = found->index;
  read_lie(written.substr(comma), paint.cell, asked);
  if (found->is_material && !paint.cell.upright())
    throw Error(asked, fmt::format("\"{}\" is a material: how its tiles lie follows from their neighbours",
                                   written.substr(0, comma)));
  if (paint.cell.quarters % 2 != 0 && tile_size().x != tile_size().y)
    throw Error(asked,
                fmt::format("tiles of {} x {} pixels cannot be turned by {}", tile_size().x, tile_size().y,
                            90 * paint.cell.quarters),
                "only by 180");
  return paint;
}

std::string_view TileTable::name(const Paint& paint) const {
  if (paint.material >= 0) return materials_[static_cast<std::size_t>(paint.material)].name;
  return paint.cell.tile < 0 ? std::string_view() : std::string_view(tile(paint.cell.tile).name);
}

std::optional<CellForm> TileTable::form(const TileCell& cell) const {
  const std::optional<CellForm>& upright = tiles_[static_cast<std::size_t>(cell.tile)].form;
  if (!upright || cell.upright()) return upright;
  return (cell.mirrored ? upright->mirrored() : *upright).turned(cell.quarters);
}

void TileTable::put_moving(std::vector<Frame>& frames, std::int64_t ticks, int ticks_per_second) const {
  for (const int index : moving_) {
    const Tile& its = tiles_[static_cast<std::size_t>(index)];
    frames[static_cast<std::size_t>(index)] =
        its.frames[static_cast<std::size_t>(its.clip.frame_at(ticks, ticks_per_second))];
  }
}

}  // namespace vole
