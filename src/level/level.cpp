#include "vole/level/level.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <unordered_map>

#include "level_file.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/utf8.hpp"

namespace vole {
namespace {

// A letter of the rows that is in no table.
struct UnknownLetter {
  std::string written;
  FilePosition first;
  std::int64_t times = 0;
};

constexpr int most_cells_along = 65536;
constexpr std::int64_t most_cells = 64'000'000;

class LevelBuilder {
 public:
  LevelBuilder(Level& level, const LevelText& text, Report& report)
      : level_(level), text_(text), report_(report) {}

  void build(Loading& loading) {
    read_letters();
    find_size();
    if (report_.has_errors()) return;
    // A level without tiles has no sides to run into.
    const auto solid = [has_tiles = level_.cells.x > 0](LevelSide side) {
      return has_tiles && side == LevelSide::solid;
    };
    const SidesText& sides = text_.sides;
    level_.solid = SolidGrid(level_.cells, level_.tile_size(),
                             {solid(sides.left), solid(sides.right), solid(sides.top), solid(sides.bottom)});
    for (const LayerText& layer : text_.layers) add_layer(layer, loading);
    for (const auto& [letter, unknown] : unknown_letters_)
      report_.error(unknown.first, fmt::format("no letter \"{}\" in [letters]", unknown.written),
                    did_you_mean(unknown.written, known_letters_), unknown.times);
    for (const PlaceText& place : text_.places) add_place(place);
    for (const ZoneText& zone : text_.zones) add_zone(zone);
  }

 private:
  void read_letters() {
    for (const auto& item : text_.letters) {
      std::string_view key = item.name;
      const char32_t letter = key.empty() ? 0 : next_letter(key);
      if (letter == 0 || !key.empty()) {
        report_.error(item.where, fmt::format("\"{}\" is not one letter", item.name));
        continue;
      }
      letters_[letter] = tile_of(item.value);
      known_letters_.push_back(item.name);
    }
  }

  std::uint16_t tile_of(const Located<std::string>& name) {
    if (name.value.empty()) return 0;
    if (!level_.tileset) {
      report_.error(name.where, fmt::format("tile \"{}\" without a tileset", name.value),
                    "name one with tileset = \"...\"");
      return 0;
    }
    try {
      return level_.tileset->cell(name.value, name.where).number();
    } catch (const Error& error) {
      report_.add(error);
      return 0;
    }
  }

  static int length_of(std::string_view row) {
    int length = 0;
    for (; !row.empty(); ++length) next_letter(row);
    return length;
  }

  // All layers with rows are of one size; the first says which.
  void find_size() {
    const LayerText* first = nullptr;
    for (const LayerText& layer : text_.layers) {
      if (layer.rows.empty()) continue;
      if (!first) {
        first = &layer;
        level_.cells = {length_of(layer.rows[0].value), static_cast<int>(layer.rows.size())};
      }
      if (static_cast<int>(layer.rows.size()) != level_.cells.y)
        report_.error(layer.name.where,
                      fmt::format("layer \"{}\" has {} rows, but \"{}\" has {}", layer.name.value,
                                  layer.rows.size(), first->name.value, level_.cells.y));
      for (const Located<std::string>& row : layer.rows)
        if (const int length = length_of(row.value); length != level_.cells.x)
          report_.error(row.where,
                        fmt::format("this row has {} letters, but the first has {}", length, level_.cells.x));
    }
    if (first && !level_.tileset)
      report_.error(first->name.where,
                    fmt::format("layer \"{}\" has rows, but the level no tileset", first->name.value),
                    "name one with tileset = \"...\"");
    if (level_.cells.x > most_cells_along || level_.cells.y > most_cells_along ||
        std::int64_t{level_.cells.x} * level_.cells.y > most_cells)
      report_.error(text_.layers[0].name.where, "the level is too large",
                    "at most 65536 cells along a side and 64 million in all");
  }

  void add_layer(const LayerText& text, Loading& loading) {
    if (find_named(level_.layers, text.name.value))
      report_.error(text.name.where, fmt::format("layer \"{}\" is defined twice", text.name.value));
    LevelLayer layer;
    layer.name = text.name.value;
    layer.parallax = text.parallax;
    layer.repeat = text.repeat;
    layer.edge = text.edge;
    layer.cover = text.cover;
    layer.order = text.order;
    if (!text.picture.value.empty()) {
      try {
        const auto sheet = loading.catalog().get<Sheet>(text.picture.value, text.picture.where);
        loading.depends_on(sheet);
        layer.picture = sheet.shared();
        layer.frame = sheet->posed(0);
      } catch (const Error& error) {
        report_.add(error);
      }
    }
    const bool solid = text.parallax == Vec2{1, 1};
    layer.tiles.reserve(text.rows.size() * static_cast<std::size_t>(level_.cells.x));
    for (std::size_t y = 0; y < text.rows.size(); ++y)
      add_row(text.rows[y], static_cast<int>(y), solid, layer);
    level_.layers.push_back(std::move(layer));
  }

  void add_row(const Located<std::string>& row, int y, bool solid, LevelLayer& layer) {
    std::string_view rest = row.value;
    for (int x = 0; !rest.empty(); ++x) {
      const std::string_view before = rest;
      const char32_t letter = next_letter(rest);
      const auto found = letters_.find(letter);
      if (found == letters_.end()) {
        UnknownLetter& unknown = unknown_letters_[letter];
        if (unknown.times++ == 0) {
          unknown.written = before.substr(0, before.size() - rest.size());
          unknown.first = row.where;
          unknown.first.column += 1 + x;  // one for the quote
        }
        layer.tiles.push_back(0);
        continue;
      }
      const std::uint16_t tile = found->second;
      layer.tiles.push_back(tile);
      if (solid && tile != 0) add_solid({x, y}, TileCell::from(tile));
    }
  }

  // A full tile of one layer is not made less by another layer's.
  void add_solid(IVec2 at, const TileCell& tile) {
    const CellForm* const there = level_.solid.form(at.x, at.y);
    if (there && there->is_full()) return;
    if (const auto form = level_.tileset->form(tile)) level_.solid.set(at, *form);
  }

  void add_place(const PlaceText& text) {
    const auto tile = static_cast<float>(level_.tile_size());
    Vec2 at = text.at.value_or(Vec2{0, 0});
    if (text.cell)
      at = {(static_cast<float>(text.cell->x) + 0.5f) * tile,
            (static_cast<float>(text.cell->y) + 1.0f) * tile};
    if (!text.name.value.empty()) {
      const auto [first, is_new] = named_places_.try_emplace(text.name.value, text.name.where);
      if (!is_new)
        report_.error(text.name.where, fmt::format("place \"{}\" is defined twice", text.name.value),
                      "the first is at " + to_text(first->second));
    }
    level_.places.push_back({text.kind.value, at, text.name.value, text.overrides, text.kind.where});
  }

  void add_zone(const ZoneText& text) {
    if (const LevelZone* const first = find_named(level_.zones, text.name.value))
      report_.error(text.name.where, fmt::format("zone \"{}\" is defined twice", text.name.value),
                    "the first is at " + to_text(first->where));
    level_.zones.push_back({text.name.value, {text.at, text.size}, text.name.where});
  }

  Level& level_;
  const LevelText& text_;
  Report& report_;
  std::unordered_map<char32_t, std::uint16_t> letters_;
  std::map<std::string, FilePosition> named_places_;
  std::map<char32_t, UnknownLetter> unknown_letters_;
  std::vector<std::string> known_letters_;
};

}  // namespace

std::size_t Level::layer(std::string_view layer_name, const FilePosition& asked) const {
  if (const std::size_t index = index_named(layers, layer_name); index < layers.size()) return index;
  throw Error(asked, fmt::format("no layer \"{}\" in level \"{}\"", layer_name, name),
              did_you_mean(layer_name, names_of(layers)));
}

Level AssetType<Level>::load(Loading& loading) {
  Report report;
  LevelText text;
  read(read_toml(loading.path()), text, report);
  Level level;
  level.name = loading.name();
  level.sky = text.sky;
  if (!text.tileset.value.empty()) {
    // Watched with everything it is made from, so that a changed tile picture reaches the level too.
    loading.depends_on(loading.catalog().asset_path(text.tileset.value + ".tileset.toml"));
    try {
      const Asset<Tileset> tileset = loading.catalog().get<Tileset>(text.tileset.value, text.tileset.where);
      loading.depends_on(tileset);
      level.tileset = tileset.shared();
    } catch (const Error& error) {
      report.add(error);
    }
  }
  if (text.layers.empty() && !report.has_errors())
    report.error(FilePosition::whole_file(loading.path()), "a level has at least one layer");
  report.throw_if_errors();
  LevelBuilder(level, text, report).build(loading);
  report.throw_if_errors();
  return level;
}

Node AssetType<Level>::schema() {
  return schema_of<LevelText>();
}

}  // namespace vole
