#include "vole/world/changed_cells.hpp"

#include <tuple>

#include "vole/base/described_type.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"

namespace vole {

bool ChangedCells::Place::operator<(const Place& other) const {
  return std::tie(layer, y, x) < std::tie(other.layer, other.y, other.x);
}

std::uint64_t ChangedCells::key_of(const Place& place, std::string_view tile) {
  Hash hash;
  hash.add(place.layer);
  hash.add(std::int64_t{place.x});
  hash.add(std::int64_t{place.y});
  hash.add(tile);
  return hash.value();
}

bool ChangedCells::set(std::string_view layer, IVec2 cell, std::string_view tile) {
  const auto [at, is_new] = tiles_.try_emplace({std::string(layer), cell.y, cell.x}, tile);
  if (!is_new) {
    if (at->second == tile) return false;
    key_ -= key_of(at->first, at->second);
    at->second = tile;
  }
  key_ += key_of(at->first, tile);
  return true;
}

bool ChangedCells::forget(std::string_view layer, IVec2 cell) {
  const auto at = tiles_.find({std::string(layer), cell.y, cell.x});
  if (at == tiles_.end()) return false;
  key_ -= key_of(at->first, at->second);
  tiles_.erase(at);
  return true;
}

std::vector<ChangedCell> ChangedCells::list() const {
  std::vector<ChangedCell> list;
  list.reserve(tiles_.size());
  for (const auto& [place, tile] : tiles_) list.push_back({place.layer, {place.x, place.y}, tile});
  return list;
}

namespace detail {
namespace {

// As a list of them is saved.
class ChangedCellsType final : public FieldType {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
            TableOf of) const override {
    std::vector<ChangedCell> list;
    as_list().read(toml, &list, rule, report, of);
    take(value, list);
  }
  void write(TomlText& out, const void* value) const override {
    const std::vector<ChangedCell> list = in(value).list();
    as_list().write(out, &list);
  }
  void write_state(StateWriter& out, const void* value) const override {
    const std::vector<ChangedCell> list = in(value).list();
    as_list().write_state(out, &list);
  }
  void read_state(StateReader& state, void* value) const override {
    std::vector<ChangedCell> list;
    as_list().read_state(state, &list);
    take(value, list);
  }
  TomlValue schema(const FieldRule& rule) const override { return as_list().schema(rule); }

 private:
  static const FieldType& as_list() { return field_type<std::vector<ChangedCell>>(); }
  static const ChangedCells& in(const void* value) { return *static_cast<const ChangedCells*>(value); }
  static void take(void* value, const std::vector<ChangedCell>& list) {
    ChangedCells cells;
    for (const ChangedCell& each : list) cells.set(each.layer, each.cell, each.tile);
    *static_cast<ChangedCells*>(value) = std::move(cells);
  }
};

}  // namespace

const FieldType& type_of(Tag<ChangedCells>) {
  static constinit ChangedCellsType type;
  return type;
}

}  // namespace detail
}  // namespace vole
