// What the `shapes` of a thing come to, made once and again when they or the sheet of an outline have changed.
#pragma once

#include <cstdint>
#include <memory>
#include <vector>

#include "vole/asset/catalog.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/switches.hpp"

namespace vole {

class BodyShapes {
 public:
  // nullptr: none. Where they cannot be made, as after a change of a picture, those that were there stay; where there were
  // none, the body's box stands in.
  void follow(const Shapes* shapes, Catalog& catalog);

  // nullptr when there are none.
  const std::shared_ptr<const ShapeList>& list(bool mirrored) const {
    return mirrored && mirrored_ ? mirrored_ : list_;
  }
  // Says of a body which of its shapes are less than it is.
  void put_uses(const Shapes& shapes, const Switches* switches, CollisionBody& body) const;
  // The place among what is written that a shape of the body comes from.
  std::uint32_t written(std::uint32_t place) const { return place < written_.size() ? written_[place] : 0; }

 private:
  bool is_up_to_date(const Shapes* shapes) const;
  void note(const Shapes& shapes, Catalog& catalog);
  void make(const Shapes& shapes, Catalog& catalog);

  std::vector<ShapeText> known_;
  // Of outlines, with the versions that they are of.
  std::vector<std::pair<Asset<Sheet>, std::shared_ptr<const Sheet>>> sheets_;
  std::shared_ptr<const ShapeList> list_, mirrored_;
  std::vector<std::uint8_t> written_;
};

}  // namespace vole
