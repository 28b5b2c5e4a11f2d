// Many sheets packed onto few pictures: what `vole atlas` writes as NAME.atlas.toml. Each sheet in it is
// found in the catalog by its own name, like one with a file of its own.
//
//   pages = ["garden-1.png"]
//
//   [sheets.bulb]
//   clips = { glint = { frames = [0, 1], fps = 3 } }
//   frames.0 = { area = [1, 1, 9, 11], offset = [3, 5], size = [16, 16] }
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "vole/asset/sheet.hpp"

namespace vole {

class Atlas {
 public:
  std::string name;
  std::vector<std::shared_ptr<const Sheet>> sheets;  // sorted by name
  std::vector<std::shared_ptr<const Picture>> pages;

  // nullptr when there is none of this name.
  std::shared_ptr<const Sheet> find(std::string_view sheet_name) const;
};

template <>
struct AssetType<Atlas> {
  static constexpr std::string_view word = "atlas";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".atlas.toml";
  static Atlas load(Loading& loading);
  static TomlValue schema();  // of its file: see schema.hpp
};

}  // namespace vole
