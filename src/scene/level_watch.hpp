// Whether a level's cells are those that something was found for, also where the level was restored in between.
#pragma once

#include <cstdint>
#include <memory>
#include <utility>
#include <vector>

#include "vole/world/level_now.hpp"

namespace vole {

class LevelWatch {
 public:
  // Whether they are others than when it was asked last.
  bool changed(const LevelNow& level) {
    if (level_ == level.version() && changes_ == level.changes()) return false;
    const std::uint64_t contents = level.contents();
    std::vector<std::shared_ptr<const Level>> pieces = level.piece_files();
    const bool others = level_ != level.version() || contents_ != contents || pieces_ != pieces;
    level_ = level.version();
    pieces_ = std::move(pieces);
    changes_ = level.changes();
    contents_ = contents;
    return others;
  }
  // LevelNow::contents(), as of then.
  std::uint64_t contents() const { return contents_; }

 private:
  std::shared_ptr<const Level> level_;
  std::vector<std::shared_ptr<const Level>> pieces_;
  std::uint64_t changes_ = 0, contents_ = 0;
};

}  // namespace vole
