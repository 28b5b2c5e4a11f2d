// Where a scene adds what is not a thing of the level: score, labels, pictures. It lies over everything and the camera
// does not move it.
//
//   void draw(vole::Drawing& drawing) const override { drawing.label(count_, {26, 9}); }
#pragma once

#include <string_view>

#include "vole/draw/background.hpp"
#include "vole/draw/box.hpp"
#include "vole/draw/label.hpp"
#include "vole/draw/text.hpp"
#include "vole/scene/stage.hpp"

namespace vole {

class Drawing {
 public:
  Drawing(const Stage& stage, DrawList& list, LayerId layer, float share)
      : stage_(stage), list_(list), layer_(layer), share_(share) {}

  const Stage& stage() const { return stage_; }
  IVec2 canvas() const { return list_.canvas(); }
  DrawList& list() { return list_; }
  LayerId layer() const { return layer_; }
  // How far between the last tick and the next, in [0, 1].
  float share_of_tick() const { return share_; }

  // The same in one of the level's layers: positions are then the level's, and what has a larger depth
  // covers. Throws Error with the nearest name.
  Drawing on(std::string_view level_layer) const;

  // In the plain font, which needs no file.
  void text(std::string_view text, Vec2 at, const TextStyle& style = {}) {
    this->text("plain", text, at, style);
  }
  // All throw Error for an unknown font or sheet.
  void text(std::string_view font, std::string_view text, Vec2 at, const TextStyle& style = {});
  void label(const Label& label, Vec2 at);
  void frame(std::string_view sheet, int frame, Vec2 at, const PictureItem& style = {});
  void frame(std::string_view sheet, std::string_view frame, Vec2 at, const PictureItem& style = {});
  // A box made of the sheet's frame with borders: see box.hpp.
  void box(std::string_view sheet, const Rect& box, const BoxStyle& style = {});
  // The small picture of a save (Stage::saves), its top left here; nothing where there is none.
  void saved_picture(std::string_view save, Vec2 at);
  // The sheet's first frame over the whole canvas, repeated from `at` or scaled to cover it.
  void repeated(std::string_view sheet, Vec2 at, Repeat repeat = Repeat::both);
  void covering(std::string_view sheet);

 private:
  const Sheet& sheet(std::string_view name) const;

  const Stage& stage_;
  DrawList& list_;
  LayerId layer_;
  float share_;
};

}  // namespace vole
