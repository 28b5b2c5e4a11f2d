// Pieces in the level as it is now: chosen, put, built, taken away.
#include <fmt/core.h>

#include <algorithm>

#include "level_room.hpp"
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
      piece_file(name, binding, asked);
    } catch (const Error& error) {
      report.add(error);
    }
  };
  files_.clear();
  for (const PieceList& list : version_->pieces)
    for (const PieceList::Item& item : list.items) gather(item.piece.value, item.piece.where);
  for (const PutPiece& piece : pieces_) gather(piece.level, {});
  report.throw_if_errors();
  if (version_->endless) check_endless(*version_, find_piece(), report);
  report.throw_if_errors();

  for (PutPiece& piece : pieces_) {
    piece.cells = files_.find(piece.level)->second.cells;
    piece.places = places_of(piece.file(), piece.seed);
    piece.lines = std::clamp(piece.lines, 0, lines_of(piece));
    piece.things = std::min(piece.things, static_cast<std::uint32_t>(piece.places.size()));
  }
  // A level may have become smaller.
  std::erase_if(pieces_, [this](const PutPiece& piece) {
    return piece.area().shared_with({{0, 0}, cells_}) != piece.area();
  });
  for (const PutPiece& piece : pieces_)
    for (int i = 0; i < piece.lines; ++i) repaint(line(piece, i), piece);
}

FindPiece LevelNow::find_piece() const {
  return [this](std::string_view name) -> const Level* {
    const auto found = files_.find(name);
    return found == files_.end() ? nullptr : &found->second.cells->level();
  };
}

const LevelNow::PieceFile& LevelNow::piece_file(std::string_view name, const Binding& binding,
                                                const FilePosition& asked) {
  const auto found = files_.find(name);
  if (found != files_.end()) return found->second;
  PieceFile file;
  file.asset = binding.catalog.get<Level>(name, asked);
  file.cells = std::make_shared<PieceCells>(file.asset.shared(), *version_, asked);
  return files_.emplace(name, std::move(file)).first->second;
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
  if (number == 0) return version_->places;
  const PutPiece* const its = piece(number);
  return its ? its->places : none;
}

const LevelPlace* LevelNow::place(const FromPlace& from) const {
  const std::vector<LevelPlace>& its = places(from.piece);
  return from.place < its.size() ? &its[from.place] : nullptr;
}

std::vector<std::shared_ptr<const Level>> LevelNow::piece_files() const {
  std::vector<std::shared_ptr<const Level>> files;
  for (const auto& [name, file] : files_) files.push_back(file.cells->version());
  return files;
}

const LevelZone& LevelNow::zone(std::string_view name) const {
  const LevelZone& written = version_->zone(name);
  return zones()[static_cast<std::size_t>(&written - version_->zones.data())];
}

const LevelPath& LevelNow::path(std::string_view name) const {
  const LevelPath& written = version_->path(name);
  if (origin_ == IVec2{0, 0}) return written;
  return paths_[static_cast<std::size_t>(&written - version_->paths.data())];
}

ChosenPieces& LevelNow::chosen(std::string_view list) {
  for (ChosenPieces& each : chosen_)
    if (each.list == list) return each;
  return chosen_.emplace_back(ChosenPieces{std::string(list), 0, {}});
}

std::string LevelNow::choose(std::string_view name) {
  const PieceList* const list = find_named(version_->pieces, name);
  if (!list) return std::string(name);
  ChosenPieces& before = chosen(name);
  before.last = choose_piece(*list, before.last, chance(seed_, name, before.times++)).piece.value;
  return before.last;
}

PutPiece& LevelNow::add_piece(std::string_view name, IVec2 cell, const Binding& binding) {
  const PieceFile& file = piece_file(name, binding);
  const IRect area{cell, file.cells->level().cells};
  if (area.shared_with({{0, 0}, cells_}) != area)
    throw Error(
        FilePosition{},
        fmt::format("the piece \"{}\" of {} x {} cells does not fit into the level \"{}\" at cell {}, {}",
                    name, area.size.x, area.size.y, name_, cell.x, cell.y));
  return add_piece(std::string(name), cell, file);
}

PutPiece& LevelNow::add_piece(const std::string& name, IVec2 cell, const PieceFile& file) {
  if (pieces_.size() >= most_pieces)
    throw Error(FilePosition{}, fmt::format("more than {} pieces in the level \"{}\"", most_pieces, name_),
                "drop those that are not needed any more");
  PutPiece piece;
  piece.number = ++put_;
  piece.level = name;
  piece.cell = cell;
  piece.seed = chance(seed_, "piece", piece.number);
  piece.cells = file.cells;
  piece.places = places_of(piece.file(), piece.seed);
  return pieces_.emplace_back(std::move(piece));
}

PutPiece& LevelNow::join_piece(std::string_view name, std::uint32_t to, LevelSide side,
                               const Binding& binding) {
  const PieceFile& file = piece_file(name, binding);
  const PutPiece* const before = to == 0 ? nullptr : &pieces_[index_of(to)];
  const Level& there = before ? before->file() : *version_;
  const auto cell =
      joins_at(side, there, before ? before->cell : -origin_, across(side, cells_), file.cells->level());
  if (!cell)
    throw Error(
        FilePosition{},
        fmt::format("the piece \"{}\" does not join the {} side of \"{}\"", name,
                    enum_names(side)[static_cast<std::size_t>(side)], there.name),
        "both need an opening of the same name in the sides that meet, and the piece room in the level");
  return add_piece(name, *cell, binding);
}

bool LevelNow::has_room_to_go_on() const {
  const LevelSide side = version_->endless->side;
  const IRect there = extent();
  const int cells = longest_piece / along(side, tile_size());
  return is_forward(side) ? along(side, there.at + there.size) + cells <= along(side, cells_)
                          : along(side, there.at) >= cells;
}

PutPiece& LevelNow::go_on() {
  const EndlessLevel& endless = *version_->endless;
  const PieceList& list = *find_named(version_->pieces, endless.pieces);
  const auto last =
      std::find_if(pieces_.begin(), pieces_.end(), [](const auto& each) { return each.is_last; });
  const bool first = last == pieces_.end();
  ChosenPieces& before = chosen(list.name);
  const std::vector<NextPiece> joining =
      joining_pieces(list, endless.side, first ? *version_ : last->file(), first ? -origin_ : last->cell,
                     across(endless.side, cells_), find_piece());
  const NextPiece* const next = choose_piece(joining, before.last, chance(seed_, list.name, before.times++));
  if (!next)
    throw Error(endless.where,
                fmt::format("no piece of \"{}\" fits after \"{}\"", list.name, first ? name_ : last->level));
  before.last = next->item->piece.value;
  if (!first) last->is_last = false;
  PutPiece& piece = add_piece(before.last, next->cell, files_.find(before.last)->second);
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
  return version_->endless ? version_->endless->side : LevelSide::right;
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
  const LevelLayer& its = version_->layers[layer];
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
  for (std::size_t layer = 0; layer < version_->layers.size(); ++layer)
    for (int y = area.top(); y < area.bottom(); ++y)
      for (int x = area.left(); x < area.right(); ++x) {
        if (piece.cells->paint(layer, IVec2{x, y} - piece.cell).nothing()) continue;
        if (!changed_.empty())
          if (const ChangeAt at = find_change(layer, {x, y}); is_change(at, layer, {x, y}))
            changed_.erase(at);
        const Paint wanted = written(layer, {x, y});
        const Paint there{TileCell::from(tiles(layer).find({x, y})), painted(layer).find({x, y}) - 1};
        if (!same(there, wanted)) paint(layer, {x, y}, wanted);
      }
}

}  // namespace vole
