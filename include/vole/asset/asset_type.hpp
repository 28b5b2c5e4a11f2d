// What the catalog must know of a type of asset: see asset.hpp, which tells what a specialisation holds.
#pragma once

#include <string>
#include <string_view>

namespace vole {

class Catalog;
class Loading;

template <class T>
struct AssetType;

}  // namespace vole
