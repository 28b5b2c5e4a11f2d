// The files of those pieces that a level may put together: what its lists name, and what was put.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/asset.hpp"
#include "vole/level/piece_cells.hpp"

namespace vole {

struct Binding;

class PieceFiles {
 public:
  explicit PieceFiles(std::shared_ptr<const Level> into) : into_(std::move(into)) {}

  // Loads it when it is asked for first. Throws Error, at `asked`.
  const std::shared_ptr<const PieceCells>& get(std::string_view name, const Binding& binding,
                                               const FilePosition& asked = {});
  // One that is there already; nullptr when it is not.
  const std::shared_ptr<const PieceCells>* find(std::string_view name) const;
  std::vector<std::shared_ptr<const Level>> all() const;
  // Whether one has a newer version, other than one that was refused.
  bool outdated() const;
  void refuse_newer();

 private:
  struct File {
    Asset<Level> asset;
    std::shared_ptr<const PieceCells> cells;
    std::shared_ptr<const Level> refused;
  };

  std::shared_ptr<const Level> into_;
  std::map<std::string, File, std::less<>> files_;
};

}  // namespace vole
