// What the next scene needs is loaded before it begins, a little at a time where somebody watches.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/app/groups.hpp"

namespace vole {

class SceneLoading {
 public:
  // Both must outlive this.
  SceneLoading(const AssetGroups& groups, Catalog& catalog) : groups_(groups), catalog_(catalog) {}

  // Throws Error when the groups of the scene name what is not there.
  void begin(std::string_view scene);
  // From begin() to end().
  bool under_way() const { return under_way_; }
  bool complete() const { return preload_.complete(); }
  // One asset more. Throws what loading it throws; it counts as done then too.
  void step() { preload_.step(); }
  void end() { under_way_ = false; }
  // Frees what no scene of these needs. Once the next has begun.
  void drop_unwanted(const std::vector<std::string>& scenes) const;

  std::size_t done() const { return preload_.done(); }
  std::size_t total() const { return preload_.total(); }

 private:
  const AssetGroups& groups_;
  Catalog& catalog_;
  bool under_way_ = false;
  Preload preload_;
};

}  // namespace vole
