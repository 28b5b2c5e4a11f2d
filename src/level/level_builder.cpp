#include "level_builder.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "place_builder.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/utf8.hpp"

namespace vole {
namespace {

constexpr std::int64_t most_cells = 64'000'000;
constexpr std::size_t largest_csv = std::size_t{512} << 20;

int letters_in(std::string_view row) {
  int length = 0;
  for (; !row.empty(); ++length) next_letter(row);
  return length;
}

void put(LevelLayer& layer, IVec2 at, const Paint& paint) {
  if (paint.material >= 0)
    layer.painted.set(at, static_cast<std::uint8_t>(paint.material + 1));
  else
    layer.tiles.set(at, paint.cell.number());
}

}  // namespace

void LevelBuilder::build() {
  read_letters();
  read_csv_files();
  find_size();
  if (report_.has_errors()) return;
  // A level without tiles has no sides to run into.
  const auto solid = [has_tiles = level_.cells.x > 0](SideIs side) {
    return has_tiles && side == SideIs::solid;
  };
  const SidesText& sides = text_.sides;
  level_.solid = SolidGrid(level_.cells, level_.tile_size(),
                           {solid(sides.left), solid(sides.right), solid(sides.top), solid(sides.bottom)});
  for (std::size_t i = 0; i < text_.layers.size(); ++i) add_layer(i);
  report_unknown();
  add_solid();
  PlaceBuilder(level_, text_, report_).build();
  add_pieces(level_, text_, report_);
}

// A letter of the rows; and for CSV, which may be of numbers, any text.
void LevelBuilder::read_letters() {
  const bool any_csv = std::any_of(text_.layers.begin(), text_.layers.end(),
                                   [](const LayerText& layer) { return !layer.csv.value.empty(); });
  for (const auto& item : text_.letters) {
    std::string_view key = item.name;
    const char32_t letter = key.empty() ? 0 : next_letter(key);
    const Paint paint = paint_of(item.value);
    if (letter != 0 && key.empty())
      letters_[letter] = paint;
    else if (!any_csv)
      report_.error(item.where, fmt::format("\"{}\" is not one letter", item.name));
    fields_[item.name] = paint;
    known_letters_.push_back(item.name);
  }
}

Paint LevelBuilder::paint_of(const Located<std::string>& written) {
  try {
    return level_.tiles.paint(written.value, written.where);
  } catch (const Error& error) {
    report_.add(error);
    return {};
  }
}

void LevelBuilder::read_csv_files() {
  const std::string folder = folder_of(loading_.path());
  for (std::size_t i = 0; i < text_.layers.size(); ++i) {
    const LayerText& layer = text_.layers[i];
    if (layer.csv.value.empty()) continue;
    if (!layer.rows.empty())
      report_.error(layer.csv.where,
                    fmt::format("layer \"{}\" has either \"rows\" or a \"csv\"", layer.name.value));
    try {
      expect_inside(folder, layer.csv.value, layer.csv.where);
      const std::string path = join_path(folder, layer.csv.value);
      loading_.depends_on(path);
      csv_files_[i] = {path, read_text(path, largest_csv)};
    } catch (const Error& error) {
      report_.add(error);
    }
  }
}

// The size that a layer's rows have; nothing where it has none, or where they cannot be read.
std::optional<IVec2> LevelBuilder::size_of(std::size_t index) {
  const LayerText& layer = text_.layers[index];
  if (!layer.rows.empty()) return IVec2{letters_in(layer.rows[0].value), static_cast<int>(layer.rows.size())};
  const auto csv = csv_files_.find(index);
  if (csv == csv_files_.end()) return std::nullopt;
  CsvReader reader(csv->second.text, csv->second.path);
  const auto rows = static_cast<int>(std::min<std::int64_t>(reader.rows_left(), 1'000'000'000));
  int length = 0;
  try {
    if (reader.next_row())
      while (reader.next_field()) ++length;
  } catch (const Error& error) {
    report_.add(error);
    csv_files_.erase(csv);
    return std::nullopt;
  }
  return IVec2{length, rows};
}

// All layers with rows are of one size; the first says which, or the level itself.
void LevelBuilder::find_size() {
  FilePosition where;
  std::string first;
  const auto take = [&](IVec2 size, std::string whose, const FilePosition& its) {
    level_.cells = size;
    first = std::move(whose);
    where = its;
  };
  if (text_.cells) take(text_.cells->value, "the level", text_.cells->where);
  for (std::size_t i = 0; i < text_.layers.size(); ++i) {
    const LayerText& layer = text_.layers[i];
    const std::optional<IVec2> size = size_of(i);
    if (!size) continue;
    if (first.empty()) {
      take(*size, fmt::format("\"{}\"", layer.name.value), layer.name.where);
      if (level_.tiles.empty())
        report_.error(where, fmt::format("layer {} has rows, but the level no tileset", first),
                      "name one with tileset = \"...\"");
    }
    expect_size(i, *size, first);
  }
  const IVec2 tile = level_.tile_size();
  const std::int64_t width = std::int64_t{level_.cells.x} * tile.x,
                     height = std::int64_t{level_.cells.y} * tile.y;
  if (width > longest_level || height > longest_level ||
      std::int64_t{level_.cells.x} * level_.cells.y > most_cells)
    report_.error(
        where, fmt::format("the level is too large: {} x {} pixels", width, height),
        "at most 65,536 each way, and 64 million cells in all; what goes on for longer is made of pieces");
}

void LevelBuilder::expect_size(std::size_t index, IVec2 size, std::string_view first) {
  const LayerText& layer = text_.layers[index];
  if (size.y != level_.cells.y)
    report_.error(layer.name.where, fmt::format("layer \"{}\" has {} rows, but {} has {}", layer.name.value,
                                                size.y, first, level_.cells.y));
  for (const Located<std::string>& row : layer.rows) {
    const int length = letters_in(row.value);
    if (length == level_.cells.x) continue;
    FilePosition where = row.where;
    // Where the first letter too many is, or the first that lacks; one for the quote.
    where.column += 1 + std::min(length, level_.cells.x);
    report_.error(where, fmt::format("this row has {} letters, but {} has {}", length,
                                     first == "the level" ? first : "the first", level_.cells.x));
  }
}

void LevelBuilder::add_layer(std::size_t index) {
  const LayerText& text = text_.layers[index];
  if (find_named(level_.layers, text.name.value))
    report_.error(text.name.where, fmt::format("layer \"{}\" is defined twice", text.name.value));
  LevelLayer layer;
  layer.name = text.name.value;
  layer.parallax = text.parallax;
  layer.look = text.look;
  layer.solid = text.solid;
  layer.lit = text.lit;
  if (layer.lit && !level_.layers.empty() && !level_.layers.back().lit)
    report_.error(text.name.where,
                  fmt::format("layer \"{}\" is lit, and comes after one that is not", layer.name),
                  "layers with lit = false are the last");
  layer.repeat = text.repeat;
  layer.edge = text.edge;
  layer.cover = text.cover;
  layer.offset = text.offset;
  layer.order = text.order;
  layer.tiles = TileGrid(level_.cells);
  layer.painted = MaterialGrid(level_.cells);
  if (!text.picture.value.empty()) add_picture(text, layer);
  add_rows(text, layer);
  if (const auto csv = csv_files_.find(index); csv != csv_files_.end()) {
    try {
      add_csv(csv->second, text.csv.where, layer);
    } catch (const Error& error) {
      report_.add(error);
    }
  }
  choose_edges(layer);
  level_.layers.push_back(std::move(layer));
}

void LevelBuilder::add_picture(const LayerText& text, LevelLayer& layer) {
  try {
    const auto sheet = loading_.catalog().get<Sheet>(text.picture.value, text.picture.where);
    loading_.depends_on(sheet);
    layer.picture = sheet.shared();
    layer.frame = sheet->posed(0);
  } catch (const Error& error) {
    report_.add(error);
  }
}

void LevelBuilder::add_rows(const LayerText& text, LevelLayer& layer) {
  for (std::size_t y = 0; y < text.rows.size(); ++y) {
    const Located<std::string>& row = text.rows[y];
    std::string_view rest = row.value;
    for (int x = 0; !rest.empty(); ++x) {
      const std::string_view before = rest;
      const auto found = letters_.find(next_letter(rest));
      if (found != letters_.end()) {
        put(layer, {x, static_cast<int>(y)}, found->second);
        continue;
      }
      Unknown& unknown = unknown_letters_[std::string(before.substr(0, before.size() - rest.size()))];
      if (unknown.times++ > 0) continue;
      unknown.first = row.where;
      unknown.first.column += 1 + x;  // one for the quote
    }
  }
}

void LevelBuilder::add_csv(const Csv& csv, const FilePosition& named, LevelLayer& layer) {
  CsvReader reader(csv.text, csv.path);
  // Most fields are one letter, or as the one before.
  std::array<const Paint*, 256> of_letter{};
  std::string last;
  const Paint* paint_of_last = nullptr;
  const auto paint_here = [&]() -> const Paint* {
    const std::string_view field = reader.field();
    if (field.size() == 1) {
      const Paint*& its = of_letter[static_cast<unsigned char>(field[0])];
      if (!its) its = paint_of_field(field, reader);
      return its;
    }
    if (!paint_of_last || field != last) {
      last = field;
      paint_of_last = paint_of_field(last, reader);
    }
    return paint_of_last;
  };
  int y = 0;
  for (; reader.next_row(); ++y) {
    int x = 0;
    for (; reader.next_field(); ++x)
      if (const Paint* const paint = paint_here(); paint && !paint->nothing()) put(layer, {x, y}, *paint);
    if (x != level_.cells.x)
      report_.error(reader.where(),
                    fmt::format("this row has {} fields, but the level is {} cells wide", x, level_.cells.x));
  }
  if (y == 0) report_.error(named, fmt::format("\"{}\" has no rows", csv.path));
}

// nullptr when it stands for nothing known.
const Paint* LevelBuilder::paint_of_field(std::string_view field, const CsvReader& at) {
  if (const auto known = fields_.find(field); known != fields_.end()) return &known->second;
  static const Paint nothing;
  if (field.empty()) return &nothing;
  if (const auto unknown = unknown_fields_.find(field); unknown != unknown_fields_.end()) {
    ++unknown->second.times;
    return nullptr;
  }
  const FilePosition where = at.where();  // which takes a look at all of the row
  try {
    return &(fields_[std::string(field)] = level_.tiles.paint(field, where));
  } catch (const Error&) {
    unknown_fields_[std::string(field)] = {where, 1};
    return nullptr;
  }
}

void LevelBuilder::report_unknown() {
  for (const auto& [letter, unknown] : unknown_letters_)
    report_.error(unknown.first, fmt::format("no letter \"{}\" in [letters]", letter),
                  did_you_mean(letter, known_letters_), unknown.times);
  std::vector<std::string> known = known_letters_;
  for (const Tile& tile : level_.tiles.tiles()) known.push_back(tile.name);
  for (const TileMaterial& material : level_.tiles.materials()) known.push_back(material.name);
  for (const auto& [field, unknown] : unknown_fields_)
    report_.error(
        unknown.first, fmt::format("\"{}\" is no letter of [letters], and no tile", field),
        field.find(';') != std::string::npos ? "fields are separated by commas" : did_you_mean(field, known),
        unknown.times);
}

void LevelBuilder::choose_edges(LevelLayer& layer) {
  layer.painted.visit([&](IVec2 at, std::uint8_t) {
    layer.tiles.set(at, edge_tile(level_.tiles.materials(), layer.painted, layer.tiles, at));
  });
}

void LevelBuilder::add_solid() {
  for (const LevelLayer& layer : level_.layers) {
    if (!layer.blocks()) continue;
    layer.tiles.visit([&](IVec2 at, std::uint16_t tile) {
      put_solid(level_.solid, at, level_.tiles, TileCell::from(tile));
    });
  }
}

}  // namespace vole
