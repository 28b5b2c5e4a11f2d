#include "piece_files.hpp"

#include <algorithm>

#include "vole/asset/catalog.hpp"
#include "vole/world/binding.hpp"

namespace vole {

const std::shared_ptr<const PieceCells>& PieceFiles::get(std::string_view name, const Binding& binding,
                                                         const FilePosition& asked) {
  const auto found = files_.find(name);
  if (found != files_.end()) return found->second.cells;
  File file;
  file.asset = binding.catalog.get<Level>(name, asked);
  file.cells = std::make_shared<PieceCells>(file.asset.shared(), *into_, asked);
  return files_.emplace(name, std::move(file)).first->second.cells;
}

const std::shared_ptr<const PieceCells>* PieceFiles::find(std::string_view name) const {
  const auto found = files_.find(name);
  return found == files_.end() ? nullptr : &found->second.cells;
}

std::vector<std::shared_ptr<const Level>> PieceFiles::all() const {
  std::vector<std::shared_ptr<const Level>> files;
  for (const auto& [name, file] : files_) files.push_back(file.cells->version());
  return files;
}

bool PieceFiles::outdated() const {
  return std::any_of(files_.begin(), files_.end(), [](const auto& file) {
    const std::shared_ptr<const Level> newest = file.second.asset.shared();
    return newest != file.second.cells->version() && newest != file.second.refused;
  });
}

void PieceFiles::refuse_newer() {
  for (auto& [name, file] : files_) file.refused = file.asset.shared();
}

}  // namespace vole
