#include "vole/world/along_path.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/world/component_hooks.hpp"
#include "vole/world/file_here.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

// From the spot of the path that is nearest on to the corner after it.
void take_points(AlongPath& mover, const LevelPath& path, Vec2 offset) {
  const Vec2 start = mover.start - offset;
  mover.points.clear();
  for (const Vec2 point : path.line()) mover.points.push_back(point - start);
  // The first point of a closed one stands at its end once more.
  if (path.closed()) {
    mover.points.pop_back();
    if (mover.end == PathEnd::back) mover.end = PathEnd::loop;
  }
  if (mover.begun)
    mover.next = std::min(mover.next, static_cast<std::uint32_t>(mover.points.size()) - 1);
  else
    mover.next = static_cast<std::uint32_t>(path.next_corner(path.nearest(start)) % mover.points.size());
}

}  // namespace

void take_path(AlongPath& mover, Entity thing, const World& world) {
  const auto [file, offset] = file_here(world, thing);
  if (!file) return;
  if (const LevelPath* const path = find_named(file->paths, mover.path.value))
    take_points(mover, *path, offset);
}

void need(AlongPath& along, const OfKind& kind) {
  if (along.points.empty() != along.path.value.empty()) return;
  kind.report().error(
      along.path.where.file ? along.path.where : kind.where(),
      fmt::format("the along_path of \"{}\" has either \"points\" or a \"path\" of the level", kind.name()));
}

void expect(const AlongPath& along, const InLevel& in) {
  in.expect_path(along.path);
}

}  // namespace vole
