#include "vole/world/level_now.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "level_cells.hpp"
#include "level_room.hpp"
#include "piece_files.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/names.hpp"
#include "vole/base/within.hpp"
#include "vole/world/binding.hpp"

namespace vole {
namespace {

bool can_be_put(const LevelCells& cells, const ChangedCell& changed) {
  if (!find_named(cells.file().layers, changed.layer) || !IRect{{0, 0}, cells.room()}.contains(changed.cell))
    return false;
  try {
    cells.file().tiles.paint(changed.tile);
    return true;
  } catch (const Error&) {
    return false;
  }
}

template <class T>
std::unique_ptr<T> copy_of(const std::unique_ptr<T>& original) {
  return original ? std::make_unique<T>(*original) : nullptr;
}

}  // namespace

LevelNow::LevelNow() = default;
LevelNow::LevelNow(LevelNow&&) noexcept = default;
LevelNow& LevelNow::operator=(LevelNow&&) noexcept = default;
LevelNow::~LevelNow() = default;
LevelNow::LevelNow(const LevelNow& other)
    : name_(other.name_),
      changed_(other.changed_),
      looks_(other.looks_),
      darkness_(other.darkness_),
      origin_(other.origin_),
      seed_(other.seed_),
      left_(other.left_),
      put_(other.put_),
      pieces_(other.pieces_),
      chosen_(other.chosen_),
      cells_(copy_of(other.cells_)),
      files_(copy_of(other.files_)),
      zones_(other.zones_),
      paths_(other.paths_) {}
LevelNow& LevelNow::operator=(const LevelNow& other) {
  return *this = LevelNow(other);
}

const LevelCells& LevelNow::there() const {
  if (!cells_)
    throw Error(FilePosition{}, "no level is loaded", "load one first, as in stage.load_level(\"beds\")");
  return *cells_;
}
LevelCells& LevelNow::there() {
  return const_cast<LevelCells&>(std::as_const(*this).there());
}

void LevelNow::load(std::string_view name, const Binding& binding) {
  const Asset<Level> asset = binding.catalog.get<Level>(name);
  *this = {};
  name_ = name;
  if (asset->endless) {
    seed_ = asset->endless->seed.value_or(0);
    origin_ = first_origin(*asset);
  }
  bind(binding);
}

bool LevelNow::wants_seed() const {
  return !file().pieces.empty() && !(file().endless && file().endless->seed);
}

LevelNow::operator bool() const {
  return cells_ != nullptr;
}

std::vector<ChangedCell> LevelNow::changed() const {
  return changed_.list();
}

bool LevelNow::outdated() const {
  return cells_ && (cells_->outdated() || files_->outdated());
}

void LevelNow::refuse_newer() {
  there().refuse_newer();
  files_->refuse_newer();
}

void LevelNow::bind(const Binding& binding) {
  cells_.reset();
  files_.reset();
  if (name_.empty()) return;
  cells_ = std::make_unique<LevelCells>(binding.catalog.get<Level>(name_), binding);
  files_ = std::make_unique<PieceFiles>(cells_->version());
  const std::vector<ChangedCell> changed = std::exchange(changed_, {}).list();
  make_room();
  bind_pieces(binding);
  for (const ChangedCell& each : changed)
    if (can_be_put(*cells_, each)) put(each.layer, each.cell, each.tile);
  std::erase_if(looks_, [this](const ChangedLook& look) { return !find_named(file().layers, look.layer); });
}

const Level& LevelNow::file() const {
  return there().file();
}
const std::shared_ptr<const Level>& LevelNow::version() const {
  return there().version();
}
IVec2 LevelNow::cells() const {
  return there().room();
}
IVec2 LevelNow::tile_size() const {
  return file().tile_size();
}
std::size_t LevelNow::layer(std::string_view name) const {
  return file().layer(name);
}
bool LevelNow::endless() const {
  return cells_ && cells_->file().endless.has_value();
}

IVec2 LevelNow::cell_at(Vec2 point) const {
  return floor_to_int(point / Vec2(tile_size()));
}

void LevelNow::put(std::string_view layer_name, IVec2 cell, std::string_view tile) {
  const std::size_t index = layer(layer_name);
  const Paint wanted = file().tiles.paint(tile);
  if (!IRect{{0, 0}, cells()}.contains(cell))
    throw Error(FilePosition{}, fmt::format("the level \"{}\" has no cell {}, {}: it is {} x {}", name_,
                                            cell.x, cell.y, cells().x, cells().y));
  const bool is_new = same(written(index, cell), wanted) ? changed_.forget(layer_name, cell)
                                                         : changed_.set(layer_name, cell, tile);
  // The list of what was put is part of the state, and minds go by it.
  if (is_new) cells_->say_changed();
  cells_->put(index, cell, wanted, origin_);
}

std::string_view LevelNow::tile(std::string_view layer_name, IVec2 at) const {
  return file().tiles.name({cell(layer_name, at)});
}

std::string_view LevelNow::material(std::string_view layer_name, IVec2 at) const {
  return file().tiles.name({{}, painted(layer(layer_name)).find(at) - 1});
}

TileCell LevelNow::cell(std::string_view layer_name, IVec2 at) const {
  return there().tile(layer(layer_name), at);
}

bool LevelNow::has_tag(std::string_view layer_name, IVec2 at, std::string_view tag) const {
  const TileCell its = cell(layer_name, at);
  if (its.tile < 0) return false;
  const std::vector<std::string>& tags = file().tiles.tile(its.tile).tags;
  return std::find(tags.begin(), tags.end(), tag) != tags.end();
}

float LevelNow::friction(IVec2 cell) const {
  return there().friction(cell);
}
float LevelNow::friction_of_floor(IVec2 cell) const {
  return there().friction_of_floor(cell);
}
const void* LevelNow::find(std::size_t type, const TileCell& cell) const {
  return there().value(type, cell);
}
const void* LevelNow::find_anywhere(std::size_t type, IVec2 cell) const {
  return there().foremost_value(type, cell);
}

const LayerLook& LevelNow::look(std::size_t index) const {
  const LevelLayer& its = file().layers.at(index);
  for (const ChangedLook& each : looks_)
    if (each.layer == its.name) return each.look;
  return its.look;
}

void LevelNow::set_look(std::string_view layer_name, const LayerLook& look) {
  const LayerLook& written = file().layers[layer(layer_name)].look;
  LayerLook wanted = look;
  wanted.opacity = brought_within(look.opacity, 0, 1);
  std::erase_if(looks_, [layer_name](const ChangedLook& each) { return each.layer == layer_name; });
  if (wanted != written) looks_.push_back({std::string(layer_name), wanted});
}

float LevelNow::darkness() const {
  return darkness_.value_or(file().light.darkness);
}
void LevelNow::darken(float darkness) {
  there();
  darkness_ = brought_within(darkness, 0, 1);
}

const TileGrid& LevelNow::tiles(std::size_t index) const {
  return there().tiles(index);
}
const MaterialGrid& LevelNow::painted(std::size_t index) const {
  return there().painted(index);
}
std::uint64_t LevelNow::changes() const {
  return there().changes();
}
std::uint64_t LevelNow::contents() const {
  Hash hash;
  hash.add(name_);
  if (!changed_.empty()) hash.add(changed_.key());
  for (const PutPiece& piece : pieces_) {
    hash.add(piece.level);
    hash.add(std::int64_t{piece.cell.x});
    hash.add(std::int64_t{piece.cell.y});
    hash.add(std::int64_t{piece.lines});
  }
  if (origin_ != IVec2{0, 0}) {
    hash.add(std::int64_t{origin_.x});
    hash.add(std::int64_t{origin_.y});
  }
  return hash.value();
}
const SolidGrid& LevelNow::solid() const {
  return there().solid();
}
const std::vector<LevelZone>& LevelNow::zones() const {
  return origin_ == IVec2{0, 0} ? file().zones : zones_;
}

}  // namespace vole
