#include "vole/app/scene_loading.hpp"

namespace vole {

void SceneLoading::begin(std::string_view scene) {
  preload_ = Preload(catalog_, wanted_by_scene(groups_, scene, catalog_));
  under_way_ = true;
}

void SceneLoading::drop_unwanted(const std::vector<std::string>& scenes) const {
  if (groups_.groups.empty()) return;
  std::vector<WantedAsset> wanted;
  for (const std::string& scene : scenes)
    for (WantedAsset& asset : wanted_by_scene(groups_, scene, catalog_)) wanted.push_back(std::move(asset));
  vole::drop_unwanted(groups_, wanted, catalog_);
}

}  // namespace vole
