#include "vole/level/pieces.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <unordered_set>
#include <utility>

#include "cell_chance.hpp"
#include "level_builder.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"

namespace vole {

int along(LevelSide side, IVec2 cells) {
  return is_across(side) ? cells.x : cells.y;
}

int across(LevelSide side, IVec2 cells) {
  return is_across(side) ? cells.y : cells.x;
}

IVec2 way(LevelSide side, int cells) {
  return is_across(side) ? IVec2{cells, 0} : IVec2{0, cells};
}

namespace {

constexpr int shortest_piece = 32;  // so that there are never too many at a time

void add_opening(Level& level, const OpeningText& text, Report& report) {
  const LevelSide side = text.side.value;
  const int cells = across(side, level.cells);
  const std::string_view sort = is_across(side) ? "row" : "column";
  if (text.at.value >= cells)
    return report.error(
        text.at.where,
        fmt::format("opening \"{}\" is at {} {}, but there are {}", text.name.value, sort, text.at.value,
                    cells),
        cells > 0 ? fmt::format("the first is 0, the last {}", cells - 1) : "the level has no tiles");
  for (const LevelOpening& other : level.openings)
    if (other.name == text.name.value && other.side == side)
      return report.error(text.name.where,
                          fmt::format("opening \"{}\" of this side is defined twice", text.name.value),
                          "the first is at " + to_text(other.where));
  level.openings.push_back({text.name.value, side, text.at.value, text.name.where});
}

void add_list(Level& level, const NamedItem<std::vector<PieceText>>& text, Report& report) {
  PieceList list{text.name, text.where, {}};
  double total = 0;
  for (const PieceText& piece : text.value) {
    list.items.push_back({piece.piece, piece.weight});
    total += piece.weight;
  }
  if (!(total > 0))
    report.error(text.where, fmt::format("the list \"{}\" has no piece that could be chosen", text.name),
                 list.items.empty() ? "" : "one of them needs a weight above 0");
  level.pieces.push_back(std::move(list));
}

void add_endless(Level& level, const Located<EndlessText>& text, Report& report) {
  const EndlessText& its = text.value;
  if (level.cells.x == 0)
    return report.error(text.where, "an endless level needs cells",
                        "its first part may be made of rows, as in any level");
  if (along(its.side, level.size()) > longest_piece)
    report.error(text.where,
                 fmt::format("the first part of an endless level is at most {} pixels long", longest_piece));
  if (index_named(level.pieces, its.pieces.value) == level.pieces.size())
    report.error(its.pieces.where, fmt::format("no list \"{}\" in [pieces]", its.pieces.value),
                 did_you_mean(its.pieces.value, names_of(level.pieces)));
  EndlessLevel endless{its.side, its.pieces.value, its.ahead, its.behind, {}, its.pieces.where};
  if (its.seed) endless.seed = static_cast<std::uint64_t>(*its.seed);
  level.endless = std::move(endless);
}

// Where the piece comes to lie when the two openings meet.
IVec2 joined_at(LevelSide side, const Level& before, IVec2 cell, const LevelOpening& out, const Level& piece,
                const LevelOpening& in) {
  const int on = is_forward(side) ? along(side, before.cells) : -along(side, piece.cells);
  const int off = out.at - in.at;
  return cell + (is_across(side) ? IVec2{on, off} : IVec2{off, on});
}

bool has_opening(const Level& level, LevelSide side) {
  return std::any_of(level.openings.begin(), level.openings.end(),
                     [side](const LevelOpening& opening) { return opening.side == side; });
}

void expect_openings(const Level& level, LevelSide side, const FilePosition& where, Report& report) {
  if (has_opening(level, side)) return;
  const std::string_view name = enum_names(side)[static_cast<std::size_t>(side)];
  report.error(where,
               fmt::format("\"{}\" has no opening in its {} side, where the level goes on", level.name, name),
               fmt::format("[[openings]] name = \"...\", side = \"{}\", at = ...", name));
}

}  // namespace

void add_pieces(Level& level, const LevelText& text, Report& report) {
  for (const OpeningText& opening : text.openings) add_opening(level, opening, report);
  for (const auto& list : text.pieces) add_list(level, list, report);
  if (text.endless) add_endless(level, *text.endless, report);
}

std::optional<IVec2> joins_at(LevelSide side, const Level& before, IVec2 cell, int across_cells,
                              const Level& piece) {
  for (const LevelOpening& out : before.openings)
    for (const LevelOpening& in : piece.openings) {
      if (out.side != side || in.side != opposite(side) || in.name != out.name) continue;
      const IVec2 at = joined_at(side, before, cell, out, piece, in);
      if (across(side, at) >= 0 && across(side, at + piece.cells) <= across_cells) return at;
    }
  return std::nullopt;
}

std::vector<NextPiece> joining_pieces(const PieceList& list, LevelSide side, const Level& before, IVec2 cell,
                                      int across_cells, const FindPiece& find) {
  std::vector<NextPiece> pieces;
  for (const PieceList::Item& item : list.items) {
    const Level* const piece = item.weight > 0 ? find(item.piece.value) : nullptr;
    if (!piece) continue;
    if (const auto at = joins_at(side, before, cell, across_cells, *piece))
      pieces.push_back({&item, piece, *at});
  }
  return pieces;
}

const NextPiece* choose_piece(const std::vector<NextPiece>& pieces, std::string_view last,
                              std::uint64_t chance) {
  const auto is_last = [last](const NextPiece& each) { return each.item->piece.value == last; };
  if (pieces.empty()) return nullptr;
  const bool no_other = std::all_of(pieces.begin(), pieces.end(), is_last);
  return &pieces[choose_by_weight(pieces, chance, [&](const NextPiece& each) {
    return is_last(each) && !no_other ? 0.0 : each.item->weight;
  })];
}

const PieceList::Item& choose_piece(const PieceList& list, std::string_view last, std::uint64_t chance) {
  const auto is_last = [last](const PieceList::Item& each) { return each.piece.value == last; };
  const bool no_other = std::all_of(list.items.begin(), list.items.end(), [&](const PieceList::Item& each) {
    return is_last(each) || !(each.weight > 0);
  });
  return list.items[choose_by_weight(list.items, chance, [&](const PieceList::Item& each) {
    return is_last(each) && !no_other ? 0.0 : each.weight;
  })];
}

namespace {

// Every piece in every row that it can come to. By how much a piece lies off the one before it is looked up once for each two.
class PieceSearch {
 public:
  PieceSearch(const Level& level, const PieceList& list, const FindPiece& find)
      : side_(level.endless->side), cells_(across(side_, level.cells)) {
    add(level);
    for (const PieceList::Item& item : list.items)
      if (const Level* const piece = item.weight > 0 ? find(item.piece.value) : nullptr) add(*piece);
    const std::size_t count = parts_.size();
    offsets_.resize(count * count);
    for (std::size_t before = 0; before < count; ++before)
      for (std::size_t piece = 1; piece < count; ++piece)
        offsets_[before * count + piece] = offsets(*parts_[before].level, *parts_[piece].level);
  }

  // Calls when_stuck(part, row) once for each part after which none fits in some row.
  template <class WhenStuck>
  void run(const WhenStuck& when_stuck) {
    put(0, 0);
    while (!open_.empty()) {
      const auto [before, row] = open_.back();
      open_.pop_back();
      if (!go_on_from(before, row) && !std::exchange(parts_[before].stuck, true))
        when_stuck(*parts_[before].level, row);
    }
  }
  bool comes(const Level& piece) const {
    return std::any_of(parts_.begin() + 1, parts_.end(),
                       [&piece](const Part& part) { return part.level == &piece && part.comes; });
  }

 private:
  struct Part {
    const Level* level = nullptr;
    int height = 0;
    bool stuck = false, comes = false;
    std::vector<bool> rows{};  // in which it was looked at
  };

  void add(const Level& level) {
    const auto is_it = [&level](const Part& part) { return part.level == &level; };
    if (parts_.empty() || std::none_of(parts_.begin() + 1, parts_.end(), is_it))
      parts_.push_back({&level, across(side_, level.cells)});
  }

  // In the order in which joins_at() tries them.
  std::vector<int> offsets(const Level& before, const Level& piece) const {
    std::vector<int> found;
    std::unordered_set<int> known;
    for (const LevelOpening& out : before.openings)
      for (const LevelOpening& in : piece.openings)
        if (out.side == side_ && in.side == opposite(side_) && in.name == out.name &&
            known.insert(out.at - in.at).second)
          found.push_back(out.at - in.at);
    return found;
  }

  std::optional<int> row_after(std::size_t before, int row, std::size_t piece) const {
    for (const int off : offsets_[before * parts_.size() + piece])
      if (row + off >= 0 && row + off + parts_[piece].height <= cells_) return row + off;
    return std::nullopt;
  }

  // Whether any piece fits. The same again is only chosen where there is no other.
  bool go_on_from(std::size_t before, int row) {
    bool any = false, any_other = false;
    for (std::size_t piece = 1; piece < parts_.size(); ++piece) {
      const std::optional<int> next = row_after(before, row, piece);
      if (!next) continue;
      any = true;
      if (parts_[piece].level == parts_[before].level) continue;
      any_other = true;
      put(piece, *next);
    }
    if (any && !any_other)
      for (std::size_t piece = 1; piece < parts_.size(); ++piece)
        if (const std::optional<int> next = row_after(before, row, piece)) put(piece, *next);
    return any;
  }

  void put(std::size_t part, int row) {
    Part& its = parts_[part];
    its.comes = true;
    const auto place = static_cast<std::size_t>(row);
    if (its.rows.size() <= place) its.rows.resize(place + 1);
    if (its.rows[place]) return;
    its.rows[place] = true;
    open_.push_back({part, row});
  }

  LevelSide side_;
  int cells_;
  std::vector<Part> parts_;  // first what the level has itself
  std::vector<std::vector<int>> offsets_;
  std::vector<std::pair<std::size_t, int>> open_;
};

}  // namespace

void check_endless(const Level& level, const FindPiece& find, Report& report) {
  const EndlessLevel& endless = *level.endless;
  const LevelSide side = endless.side;
  const PieceList& list = level.pieces[index_named(level.pieces, endless.pieces)];
  expect_openings(level, side, endless.where, report);
  for (const PieceList::Item& item : list.items) {
    const Level* const piece = find(item.piece.value);
    if (!piece) continue;
    expect_openings(*piece, side, item.piece.where, report);
    expect_openings(*piece, opposite(side), item.piece.where, report);
    if (const int length = along(side, piece->size()); length > longest_piece || length < shortest_piece)
      report.error(item.piece.where, fmt::format("\"{}\" is {} pixels long: a piece may have {} to {}",
                                                 piece->name, length, shortest_piece, longest_piece));
  }
  if (report.has_errors()) return;

  PieceSearch search(level, list, find);
  search.run([&](const Level& before, int row) {
    report.error(&before == &level ? endless.where : list.where,
                 fmt::format("no piece of \"{}\" fits after \"{}\"{}", list.name, before.name,
                             row == 0 ? ""
                                      : fmt::format(" when that is {} cells {}", row,
                                                    is_across(side) ? "down" : "to the right")),
                 "one is needed with an opening of the same name, that stays within the level");
  });
  for (const PieceList::Item& item : list.items) {
    const Level* const piece = item.weight > 0 ? find(item.piece.value) : nullptr;
    if (piece && !search.comes(*piece) && !report.has_errors())
      report.warn(item.piece.where,
                  fmt::format("\"{}\" never comes: no other piece leads to it", piece->name),
                  "do the names and places of their openings fit?");
  }
}

}  // namespace vole
