#include "vole/app/scene_loading.hpp"

namespace vole {

void SceneLoading::begin(std::string_view scene) {
  wanted_ = wanted_by_scene(groups_, scene, catalog_);
  preload_ = Preload(catalog_, wanted_);
  under_way_ = true;
}

void SceneLoading::drop_unwanted() const {
  if (!groups_.groups.empty()) vole::drop_unwanted(groups_, wanted_, catalog_);
}

}  // namespace vole
