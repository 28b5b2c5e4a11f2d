#include "vole/world/tile_components.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <set>
#include <string_view>
#include <tuple>

#include "vole/base/names.hpp"
#include "vole/world/slips.hpp"

namespace vole {

TileComponents::TileComponents(const TileTable& tiles, const ComponentTypes& types, UnknownComponents unknown,
                               Report& report) {
  // One entry of a file may stand for many tiles.
  std::set<std::tuple<std::string_view, int, int>> told;
  for (std::size_t i = 0; i < tiles.tiles().size(); ++i)
    for (const auto& item : tiles.tiles()[i].values) {
      const ComponentTypes::Type* const type = types.find_in_files(item.name);
      if (type) {
        values_.push_back({static_cast<int>(i), type->number, type->parse(item.value, report)});
        if (!any(type->number)) types_.push_back(type->number);
        continue;
      }
      const std::vector<std::string> known = types.names_in_files();
      const bool told_of = unknown == UnknownComponents::report || is_slip(item.name, known);
      if (told_of && told.emplace(item.where.file ? *item.where.file : std::string_view(), item.where.line,
                                  item.where.column)
                         .second)
        report.error(item.where, fmt::format("no component \"{}\"", item.name),
                     did_you_mean(item.name, known));
    }
}

const void* TileComponents::find(int tile, std::size_t type) const {
  auto its = std::lower_bound(values_.begin(), values_.end(), tile,
                              [](const Value& a, int b) { return a.tile < b; });
  for (; its != values_.end() && its->tile == tile; ++its)
    if (its->type == type) return its->component.get();
  return nullptr;
}

}  // namespace vole
