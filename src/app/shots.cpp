#include "vole/app/shots.hpp"

#include <fmt/core.h>

#include <cstdio>

#include "vole/asset/image.hpp"
#include "vole/base/file_set.hpp"

namespace vole {

Shots::Shots(const Options& options) : options_(options) {
  for (const Shot& shot : options_.shots) expect_writable(shot.file);
}

void Shots::save_due(std::int64_t ticks, std::string_view scene, const Draw& draw) const {
  for (const Shot& shot : options_.shots)
    if (shot.tick == ticks) save(shot, ticks, scene, draw);
}

bool Shots::save_last(std::int64_t ticks, std::string_view scene, const Draw& draw) const {
  bool all_saved = true;
  for (const Shot& shot : options_.shots) {
    if (!shot.tick) save(shot, ticks, scene, draw);
    if (!shot.tick || *shot.tick <= ticks) continue;
    all_saved = false;
    fmt::print(stderr, "{}: error: not saved: the run ended at tick {}, before {}\n", shot.file, ticks,
               *shot.tick);
  }
  return all_saved;
}

void Shots::save(const Shot& shot, std::int64_t ticks, std::string_view scene, const Draw& draw) const {
  const Image& canvas = draw();
  int factor = options_.scale > 0 ? options_.scale : 4;
  while (factor > 1 && !may_be_enlarged(canvas.size(), factor)) --factor;
  write_png(shot.file, enlarged(canvas, factor));
  fmt::print("{}: {} at tick {}\n", shot.file, scene, ticks);
}

}  // namespace vole
