// What a scene needs, so that it is loaded before the scene begins and given up when the scene no longer
// needs it. In game.toml:
//
//   [groups.common]
//   fonts = ["letters"]
//
//   [groups.beds]
//   needs = ["common"]                     # other groups
//   levels = ["beds"]
//   sheets = ["vole", "things/*"]          # a * at the end: all that begin so
//
//   [scenes]
//   beds = ["beds"]                        # the scene, and its groups
//
// A scene without groups loads what it asks for when it asks for it.
#pragma once

#include <functional>
#include <set>
#include <string>
#include <vector>

#include "vole/asset/catalog.hpp"
#include "vole/base/describe.hpp"

namespace vole {

struct AssetGroup {
  std::vector<Located<std::string>> needs;
  std::vector<Located<std::string>> sheets, pictures, fonts, tilesets, levels;
};
template <class V>
void describe(V& v, AssetGroup& group) {
  v("needs", group.needs, items(1000));
  v("sheets", group.sheets, items(10'000));
  v("pictures", group.pictures, items(10'000));
  v("fonts", group.fonts, items(10'000));
  v("tilesets", group.tilesets, items(10'000));
  v("levels", group.levels, items(10'000));
}

struct AssetGroups {
  Named<AssetGroup> groups;
  Named<std::vector<Located<std::string>>> scenes;
};

// An asset that a scene needs.
struct WantedAsset {
  std::string_view type;  // its word, as "sheet"
  std::string name;
  FilePosition where;
  void (*load)(Catalog&, std::string_view name, const FilePosition&) = nullptr;
};

// What the scene's groups name, each asset once, what others are made from first. Throws Error for a name
// that is not there and for groups that contain themselves, with all places at once.
std::vector<WantedAsset> wanted_by_scene(const AssetGroups& groups, std::string_view scene, Catalog& catalog);

// Loads assets one at a time, so that a game can show how far it is.
class Preload {
 public:
  Preload() = default;
  Preload(Catalog& catalog, std::vector<WantedAsset> wanted)
      : catalog_(&catalog), wanted_(std::move(wanted)) {}

  bool complete() const { return done_ == wanted_.size(); }
  // Loads the next. Throws what loading it throws; it counts as done then too.
  void step();
  std::size_t done() const { return done_; }
  std::size_t total() const { return wanted_.size(); }

 private:
  Catalog* catalog_ = nullptr;
  std::vector<WantedAsset> wanted_;
  std::size_t done_ = 0;
};

// Frees what the groups name and this scene does not need, if nothing uses it any more.
void drop_unwanted(const AssetGroups& groups, const std::vector<WantedAsset>& wanted, Catalog& catalog);

}  // namespace vole
