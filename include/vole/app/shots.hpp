// Pictures of a run that were asked for by its options: at a tick, or of its end.
#pragma once

#include <cstdint>
#include <functional>
#include <string_view>

#include "vole/app/options.hpp"

namespace vole {

class Image;

class Shots {
 public:
  // Draws the game as it stands.
  using Draw = std::function<const Image&()>;

  // Throws Error when one of the files cannot be written: better before the play than after it.
  explicit Shots(const Options& options);

  // Saves those of this tick.
  void save_due(std::int64_t ticks, std::string_view scene, const Draw& draw) const;
  // Saves those of the end, and tells which were not reached. Whether all were.
  bool save_last(std::int64_t ticks, std::string_view scene, const Draw& draw) const;

 private:
  void save(const Shot& shot, std::int64_t ticks, std::string_view scene, const Draw& draw) const;

  const Options& options_;
};

}  // namespace vole
