#include "vole/scene/thing_selector.hpp"

#include "vole/level/kinds.hpp"

namespace vole {
namespace {

ThingSelector named(ThingSelector::What what, std::string_view name) {
  ThingSelector which("");
  which.name = name;
  which.what = what;
  return which;
}

}  // namespace

ThingSelector::ThingSelector(const char* text) : ThingSelector(std::string_view(text)) {}
ThingSelector::ThingSelector(const std::string& text) : ThingSelector(std::string_view(text)) {}
ThingSelector::ThingSelector(KindName kind) : ThingSelector(kind.text) {}
ThingSelector::ThingSelector(std::string_view text) {
  const MeantThings meant = meant_things(text);
  name = meant.name;
  if (meant.by_tag) what = What::tag;
}

ThingSelector tagged(std::string_view tag) {
  return named(ThingSelector::What::tag, tag);
}

ThingSelector of_category(std::string_view category) {
  return named(ThingSelector::What::category, category);
}

ThingSelector with_shape(std::string_view name) {
  return named(ThingSelector::What::shape, name);
}

ThingSelector zone(std::string_view name) {
  return named(ThingSelector::What::zone, name);
}

TileSelector any_tile() {
  return {};
}

TileSelector tile_tagged(std::string_view tag) {
  return {TileSelector::What::tag, std::string(tag)};
}

TileSelector tile_of(std::string_view tile_or_material) {
  return {TileSelector::What::name, std::string(tile_or_material)};
}

}  // namespace vole
