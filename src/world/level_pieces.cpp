// Pieces in the level as it is now: chosen, put, built, taken away.
#include <fmt/core.h>

#include <algorithm>

#include "level_cells.hpp"
#include "level_room.hpp"
#include "piece_files.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/names.hpp"
#include "vole/base/random.hpp"
#include "vole/world/binding.hpp"
#include "vole/world/level_now.hpp"

namespace vole {
namespace {

std::uint64_t chance(std::uint64_t seed, std::string_view what, std::uint64_t times) {
  Hash hash;
  hash.add(seed);
  hash.add(what);
  hash.add(times);
  return Random(hash.value()).next_wide();
}

// The places of a piece, with those that its own seed scatters.
std::vector<LevelPlace> places_of(const Level& level, std::uint64_t seed) {
  std::vector<LevelPlace> places;
  for (const LevelPlace& place : level.places)
    if (place.scatter < 0) places.push_back(place);
  for (std::size_t i = 0; i < level.scatters.size(); ++i) {
    const LevelScatter& scatter = level.scatters[i];
    for (const Vec2 at : level.scattered(scatter, chance(seed, "scattered", scatter.seed + i)))
      places.push_back({scatter.kind, at, false, {}, scatter.overrides, scatter.where, static_cast<int>(i)});
  }
  return places;
}

}  // namespace

void LevelNow::bind_pieces(const Binding& binding) {
  Report report;
  const auto gather = [&](std::string_view name, const FilePosition& asked) {
    try {
      files_->get(name, binding, asked);
    } catch (const Error& error) {
      report.add(error);
    }
  };
  for (const PieceList& list : file().pieces)
    for (const PieceList::Item& item : list.items) gather(item.piece.value, item.piece.where);
  for (const PutPiece& piece : pieces_) gather(piece.level, {});
  report.throw_if_errors();
  if (endless()) check_endless(file(), find_piece(), report);
  report.throw_if_errors();

  for (PutPiece& piece : pieces_) {
    piece.cells = *files_->find(piece.level);
    piece.places = places_of(piece.file(), piece.seed);
    piece.lines = std::clamp(piece.lines, 0, lines_of(piece));
    piece.things = std::min(piece.things, static_cast<std::uint32_t>(piece.places.size()));
  }
  // A level may have become smaller.
  std::erase_if(pieces_, [this](const PutPiece& piece) {
    return piece.area().shared_with({{0, 0}, cells()}) != piece.area();
  });
  for (const PutPiece& piece : pieces_)
    for (int i = 0; i < piece.lines; ++i) repaint(line(piece, i), piece);
}

FindPiece LevelNow::find_piece() const {
  return [this](std::string_view name) -> const Level* {
    const auto* const found = files_->find(name);
    return found ? &(*found)->level() : nullptr;
  };
}

const Level& PutPiece::file() const {
  return cells->level();
}
IRect PutPiece::area() const {
  return {cell, file().cells};
}

const PutPiece* LevelNow::piece(std::uint32_t number) const {
  for (const PutPiece& piece : pieces_)
    if (piece.number == number) return &piece;
  return nullptr;
}

std::size_t LevelNow::index_of(std::uint32_t number) const {
  const PutPiece* const its = piece(number);
  if (!its) throw Error(FilePosition{}, fmt::format("piece {} is not in the level any more", number));
  return static_cast<std::size_t>(its - pieces_.data());
}

Vec2 LevelNow::offset(std::uint32_t number) const {
  if (number == 0) return Vec2(-origin_ * tile_size());
  const PutPiece* const its = piece(number);
  return its ? Vec2(its->cell * tile_size()) : Vec2{0, 0};
}

const std::vector<LevelPlace>& LevelNow::places(std::uint32_t number) const {
  static const std::vector<LevelPlace> none;
  if (number == 0) return file().places;
  const PutPiece* const its = piece(number);
  return its ? its->places : none;
}

const LevelPlace* LevelNow::place(const FromPlace& from) const {
  const std::vector<LevelPlace>& its = places(from.piece);
  return from.place < its.size() ? &its[from.place] : nullptr;
}

std::vector<std::shared_ptr<const Level>> LevelNow::piece_files() const {
  there();
  return files_->all();
}

const LevelZone& LevelNow::zone(std::string_view name) const {
  const LevelZone& written = file().zone(name);
  return zones()[static_cast<std::size_t>(&written - file().zones.data())];
}

const LevelPath& LevelNow::path(std::string_view name) const {
  const LevelPath& written = file().path(name);
  if (origin_ == IVec2{0, 0}) return written;
  return paths_[static_cast<std::size_t>(&written - file().paths.data())];
}

// The one by which the level went on last; nullptr before it does.
const PutPiece* LevelNow::last_piece() const {
  for (const PutPiece& piece : pieces_)
    if (piece.is_last) return &piece;
  return nullptr;
}

ChosenPieces& LevelNow::chosen(std::string_view list) {
  for (ChosenPieces& each : chosen_)
    if (each.list == list) return each;
  return chosen_.emplace_back(ChosenPieces{std::string(list), 0, {}});
}

std::string LevelNow::choose(std::string_view name) {
  const PieceList* const list = find_named(file().pieces, name);
  if (!list) return std::string(name);
  ChosenPieces& before = chosen(name);
  before.last = choose_piece(*list, before.last, chance(seed_, name, before.times++)).piece.value;
  return before.last;
}

PutPiece& LevelNow::add_piece(std::string_view name, IVec2 cell, const Binding& binding) {
  there();
  const IRect area{cell, files_->get(name, binding)->level().cells};
  if (area.shared_with({{0, 0}, cells()}) != area)
    throw Error(
        FilePosition{},
        fmt::format("the piece \"{}\" of {} x {} cells does not fit into the level \"{}\" at cell {}, {}",
                    name, area.size.x, area.size.y, name_, cell.x, cell.y));
  return add(std::string(name), cell);
}

PutPiece& LevelNow::add(const std::string& name, IVec2 cell) {
  if (pieces_.size() >= most_pieces)
    throw Error(FilePosition{}, fmt::format("more than {} pieces in the level \"{}\"", most_pieces, name_),
                "drop those that are not needed any more");
  PutPiece piece;
  piece.number = ++put_;
  piece.level = name;
  piece.cell = cell;
  piece.seed = chance(seed_, "piece", piece.number);
  piece.cells = *files_->find(name);
  piece.places = places_of(piece.file(), piece.seed);
  return pieces_.emplace_back(std::move(piece));
}

PutPiece& LevelNow::join_piece(std::string_view name, std::uint32_t to, LevelSide side,
                               const Binding& binding) {
  const PutPiece* const before = to == 0 ? nullptr : &pieces_[index_of(to)];
  const Level& there = before ? before->file() : file();
  const auto cell = joins_at(side, there, before ? before->cell : -origin_, across(side, cells()),
                             files_->get(name, binding)->level());
  if (!cell)
    throw Error(
        FilePosition{},
        fmt::format("the piece \"{}\" does not join the {} side of \"{}\"", name,
                    enum_names(side)[static_cast<std::size_t>(side)], there.name),
        "both need an opening of the same name in the sides that meet, and the piece room in the level");
  return add_piece(name, *cell, binding);
}

bool LevelNow::has_room_to_go_on() const {
  const LevelSide side = file().endless->side;
  const IRect there = extent();
  const int longest = longest_piece / along(side, tile_size());
  return is_forward(side) ? along(side, there.at + there.size) + longest <= along(side, cells())
                          : along(side, there.at) >= longest;
}

PutPiece& LevelNow::go_on() {
  const EndlessLevel& endless = *file().endless;
  const PieceList& list = *find_named(file().pieces, endless.pieces);
  const auto last =
      std::find_if(pieces_.begin(), pieces_.end(), [](const auto& each) { return each.is_last; });
  const bool first = last == pieces_.end();
  ChosenPieces& before = chosen(list.name);
  const std::vector<NextPiece> joining =
      joining_pieces(list, endless.side, first ? file() : last->file(), first ? -origin_ : last->cell,
                     across(endless.side, cells()), find_piece());
  const NextPiece* const next = choose_piece(joining, before.last, chance(seed_, list.name, before.times++));
  if (!next)
    throw Error(endless.where,
                fmt::format("no piece of \"{}\" fits after \"{}\"", list.name, first ? name_ : last->level));
  before.last = next->item->piece.value;
  if (!first) last->is_last = false;
  PutPiece& piece = add(before.last, next->cell);
  piece.is_last = true;
  return piece;
}

void LevelNow::all_things_there(std::uint32_t number) {
  for (PutPiece& piece : pieces_)
    if (piece.number == number) piece.things = static_cast<std::uint32_t>(piece.places.size());
}

bool LevelNow::complete(const PutPiece& piece) const {
  return piece.lines == lines_of(piece) && piece.things == piece.places.size();
}

int LevelNow::lines_of(const PutPiece& piece) const {
  return along(way_of_lines(), piece.file().cells);
}

LevelSide LevelNow::way_of_lines() const {
  return endless() ? file().endless->side : LevelSide::right;
}

// The first is where the piece joins what was there.
IRect LevelNow::line(const PutPiece& piece, int index) const {
  const LevelSide side = way_of_lines();
  const int count = lines_of(piece);
  const IVec2 size = piece.file().cells;
  const IVec2 first = way(side, is_forward(side) ? index : count - 1 - index);
  return {piece.cell + first, size - way(side, count - 1)};
}

bool LevelNow::has_line(const PutPiece& piece, IVec2 cell) const {
  const LevelSide side = way_of_lines();
  const int index = along(side, cell - piece.cell);
  return (is_forward(side) ? index : lines_of(piece) - 1 - index) < piece.lines;
}

// What the level's file and the pieces have in a cell.
Paint LevelNow::written(std::size_t layer, IVec2 cell) const {
  for (auto piece = pieces_.rbegin(); piece != pieces_.rend(); ++piece) {
    if (!piece->area().contains(cell) || !has_line(*piece, cell)) continue;
    if (const Paint its = piece->cells->paint(layer, cell - piece->cell); !its.nothing()) return its;
  }
  const LevelLayer& its = file().layers[layer];
  const IVec2 in_file = its.parallax == Vec2{1, 1} ? cell + origin_ : cell;
  return {TileCell::from(its.tiles.find(in_file)), its.painted.find(in_file) - 1};
}

void LevelNow::build(PutPiece& piece, int lines) {
  for (; lines > 0 && piece.lines < lines_of(piece); --lines) repaint(line(piece, piece.lines++), piece);
}

void LevelNow::unbuild(PutPiece& piece, int lines) {
  for (; lines > 0 && piece.lines > 0; --lines) {
    const IRect area = line(piece, --piece.lines);
    repaint(area, piece);
  }
  if (piece.lines == 0) pieces_.erase(pieces_.begin() + (&piece - pieces_.data()));
}

// Cells of a piece that came or went. What was changed in one that the piece has something in is forgotten.
void LevelNow::repaint(const IRect& area, const PutPiece& piece) {
  cells_->say_changed();
  for (std::size_t layer = 0; layer < file().layers.size(); ++layer)
    for (int y = area.top(); y < area.bottom(); ++y)
      for (int x = area.left(); x < area.right(); ++x) {
        if (piece.cells->paint(layer, IVec2{x, y} - piece.cell).nothing()) continue;
        if (!changed_.empty()) changed_.forget(file().layers[layer].name, {x, y});
        const Paint wanted = written(layer, {x, y});
        if (!same(cells_->paint(layer, {x, y}), wanted)) cells_->put(layer, {x, y}, wanted, origin_);
      }
}

}  // namespace vole
