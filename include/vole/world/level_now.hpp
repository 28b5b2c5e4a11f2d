// The level as it is now: what its file says, and what was changed since.
//
//   level.put("ground", {3, 7}, "turf");                       // drawn and solid from now on
//   level.put("ground", {4, 7}, "bank, mirrored, turned 90");
//   level.put("ground", {5, 7}, "soil");                       // a material: it and its neighbours get their edges
//   level.put("ground", {3, 7}, "");                           // nothing there
//   level.set_look("fog", {.opacity = 0.5f});
//   if (const Water* water = level.find<Water>("ground", {3, 7})) ...
//
// Pieces (level/pieces.hpp) are put into it and leave it through Stage. An endless level has room for 65,536 pixels, and its
// origin moves along. What its file holds besides is in level/level.hpp.
#pragma once

#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/tile_cell.hpp"
#include "vole/base/described_type.hpp"
#include "vole/level/layer_look.hpp"
#include "vole/level/level_path.hpp"
#include "vole/level/level_side.hpp"
#include "vole/level/level_zone.hpp"
#include "vole/world/changed_cells.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/put_piece.hpp"

namespace vole {

class Level;
class LevelCells;
class PieceFiles;
class SolidGrid;
struct Binding;
struct Paint;

// A layer whose look code has asked to change.
struct ChangedLook {
  std::string layer;
  LayerLook look;
};
template <class V>
void describe(V& v, ChangedLook& changed) {
  v.state("layer", changed.layer);
  v.state("look", changed.look);
}

class LevelNow {
 public:
  LevelNow();
  LevelNow(const LevelNow&);
  LevelNow(LevelNow&&) noexcept;
  LevelNow& operator=(const LevelNow&);
  LevelNow& operator=(LevelNow&&) noexcept;
  ~LevelNow();

  // Whether a level is loaded. All but load() and bind() need one, and throw Error where there is none.
  explicit operator bool() const;

  // Throws Error.
  void load(std::string_view name, const Binding& binding);
  // Whether it chooses pieces by chance, and its file says no seed; and the seed then.
  bool wants_seed() const;
  void seed(std::uint64_t seed) { seed_ = seed; }
  // Takes the newest version of the level's file, with the changes put over it: those that it no longer has a
  // place for are forgotten. For a changed file and a restored state.
  void bind(const Binding& binding);
  // Whether the file, or that of a piece, has a newer version, other than one that was refused.
  bool outdated() const;
  // Stays with the version that it has, until the file changes once more.
  void refuse_newer();

  const std::string& name() const { return name_; }
  // As the file has it.
  const Level& file() const;
  const std::shared_ptr<const Level>& version() const;
  // Of an endless level, all that there is room for.
  IVec2 cells() const;
  IVec2 tile_size() const;
  // In pixels.
  IVec2 size() const { return cells() * tile_size(); }
  // The cell that a point lies in.
  IVec2 cell_at(Vec2 point) const;
  // The index of a layer. Throws Error with the nearest name.
  std::size_t layer(std::string_view name) const;

  // Puts a tile or a material into a cell of a layer, as TileTable::paint reads it. Throws Error for a name that is not there,
  // and for a cell outside the level.
  void put(std::string_view layer, IVec2 cell, std::string_view tile);
  // The name of the tile in a cell, and of the material that it is painted with; empty for none, and outside.
  std::string_view tile(std::string_view layer, IVec2 cell) const;
  std::string_view material(std::string_view layer, IVec2 cell) const;
  // Which tile it is, and how it lies.
  TileCell cell(std::string_view layer, IVec2 at) const;
  // Whether it has a tag; and what it has of a component of the game's own: nullptr for nothing.
  bool has_tag(std::string_view layer, IVec2 cell, std::string_view tag) const;
  template <Described T>
  const T* find(std::string_view layer, IVec2 cell) const {
    return static_cast<const T*>(find(described_type<T>().number(), this->cell(layer, cell)));
  }
  // The same of the foremost tile that has one, whatever its layer; of layers that move with the level.
  template <Described T>
  const T* find_anywhere(IVec2 cell) const {
    return static_cast<const T*>(find_anywhere(described_type<T>().number(), cell));
  }
  // Of what is solid in a cell, as its tile says; 1 where nothing is.
  float friction(IVec2 cell) const;
  // Seen from above: of the foremost tile in a cell that says one and is not solid; 1 where none does.
  float friction_of_floor(IVec2 cell) const;
  std::vector<ChangedCell> changed() const;

  // How a layer is shown: as its file says, until code says otherwise. Throw Error with the nearest name. An opacity is brought
  // within 0 to 1.
  const LayerLook& look(std::string_view layer) const { return look(this->layer(layer)); }
  const LayerLook& look(std::size_t layer) const;
  void set_look(std::string_view layer, const LayerLook& look);

  bool endless() const;
  const std::vector<PutPiece>& pieces() const { return pieces_; }
  // nullptr when there is none of this number (any more).
  const PutPiece* piece(std::uint32_t number) const;
  // Where the origin lies now, in cells from where the file has it.
  IVec2 origin() const { return origin_; }
  // What is added to a position in the file of the level, or of a piece, to have it where it is now. In pixels.
  Vec2 offset(std::uint32_t piece = 0) const;
  // Of the level's file, or of a piece with what its seed scatters; none of a piece that is gone.
  const std::vector<LevelPlace>& places(std::uint32_t piece = 0) const;
  // Of the file that a thing comes from; nullptr when the piece is gone.
  const LevelPlace* place(const FromPlace& from) const;
  // The zones and paths of the level's own file, where they are now. Throw Error with the nearest name.
  const LevelZone& zone(std::string_view name) const;
  const LevelPath& path(std::string_view name) const;
  const std::vector<LevelZone>& zones() const;

  // The steps in which pieces come and go. A piece by its own name or that of a list: throws Error for an unknown one, and
  // for one that does not go into this level.
  std::string choose(std::string_view name);
  PutPiece& add_piece(std::string_view name, IVec2 cell, const Binding& binding);
  // One whose opening meets another's, of a piece or of the level itself (0).
  PutPiece& join_piece(std::string_view name, std::uint32_t to, LevelSide side, const Binding& binding);
  // One that joins the last by which the level went on; when there is room for it.
  bool has_room_to_go_on() const;
  PutPiece& go_on();
  void build(PutPiece& piece, int lines);
  // Of all its cells, and things.
  int lines_of(const PutPiece& piece) const;
  bool complete(const PutPiece& piece) const;
  void all_things_there(std::uint32_t piece);
  // Throws Error when there is none of this number.
  std::size_t index_of(std::uint32_t piece) const;
  PutPiece& piece_at(std::size_t index) { return pieces_.at(index); }
  // The files of the lists, and of what was put.
  std::vector<std::shared_ptr<const Level>> piece_files() const;
  // By its name, among these.
  std::function<const Level*(std::string_view)> find_piece() const;
  // Takes lines away, and in the end the piece.
  void unbuild(PutPiece& piece, int lines);
  // By whole blocks of cells: all lies so much further left or up from now on.
  void move_origin(IVec2 cells);
  // The part of an endless level that is there: from the first cell along its way to the end of the piece by which it went on last; a
  // piece that code has put further on does not count. And how far all can be moved into room that is left behind.
  IRect extent() const;
  IVec2 room_behind() const;
  // Whether it has gone on by a piece. And whether the level's own part still counts; an endless level leaves it behind.
  bool has_gone_on() const { return last_piece() != nullptr; }
  bool own_part_left() const { return left_; }
  void leave_own_part() { left_ = true; }

  // How dark it is, 0 to 1: as the file says, until code says otherwise. What is beyond that is brought within.
  float darkness() const;
  void darken(float darkness);

  const TileGrid& tiles(std::size_t layer) const;
  const MaterialGrid& painted(std::size_t layer) const;
  // Another number whenever a cell has changed, and never one that any level has had; no part of the state.
  std::uint64_t changes() const;
  // The same for a restored level with the same in it: of its name, and of what code and pieces have put. With version() it says for
  // which cells something was found.
  std::uint64_t contents() const;
  const SolidGrid& solid() const;

  template <class V>
  friend void describe(V& v, LevelNow& level) {
    v.state("name", level.name_);
    v.state("changed", level.changed_);
    v.state("looks", level.looks_);
    v.state("darkness", level.darkness_, within(0, 1));
    v.state("origin", level.origin_);
    v.state("seed", level.seed_);
    v.state("left", level.left_);
    v.state("put", level.put_);
    v.state("pieces", level.pieces_);
    v.state("chosen", level.chosen_);
  }

 private:
  const LevelCells& there() const;
  LevelCells& there();
  const void* find(std::size_t type, const TileCell& cell) const;
  const void* find_anywhere(std::size_t type, IVec2 cell) const;
  void make_room();
  void bind_pieces(const Binding& binding);
  PutPiece& add(const std::string& name, IVec2 cell);
  const PutPiece* last_piece() const;
  bool has_line(const PutPiece& piece, IVec2 cell) const;
  IRect line(const PutPiece& piece, int index) const;
  void repaint(const IRect& area, const PutPiece& piece);
  Paint written(std::size_t layer, IVec2 cell) const;
  void move_marks();
  void refresh_ends(const IRect& part);
  LevelSide way_of_lines() const;
  ChosenPieces& chosen(std::string_view list);

  std::string name_;
  ChangedCells changed_;
  std::vector<ChangedLook> looks_;
  std::optional<float> darkness_;
  IVec2 origin_{0, 0};
  std::uint64_t seed_ = 0;
  bool left_ = false;
  std::uint32_t put_ = 0;  // pieces so far
  std::vector<PutPiece> pieces_;
  std::vector<ChosenPieces> chosen_;

  // Found from that by bind(). Neither is there without a level.
  std::unique_ptr<LevelCells> cells_;
  std::unique_ptr<PieceFiles> files_;
  std::vector<LevelZone> zones_;  // moved, once the origin is
  std::vector<LevelPath> paths_;
};

}  // namespace vole
