#include "vole/app/pile_picture.hpp"

#include "vole/asset/catalog.hpp"
#include "vole/draw/mixed_pictures.hpp"

namespace vole {
namespace {

void mix(const Transition& transition, float share, const OwnTransitions& own, Catalog& catalog,
         const Image& before, const Image& after, Image& into) {
  switch (transition.look) {
    case Transition::Look::cut:
      break;
    case Transition::Look::fade:
      return mix_by_fade(before, after, share, transition.colour, into);
    case Transition::Look::wipe:
      return mix_by_wipe(before, after, share, transition.direction, into);
    case Transition::Look::iris:
      return mix_by_iris(before, after, share, transition.closes_on, transition.opens_from, transition.colour,
                         into);
    case Transition::Look::dissolve:
      return mix_by_picture(before, after, share, *catalog.get<Picture>(transition.name), into);
    case Transition::Look::own:
      return own.get(transition.name)(before, after, share, into);
  }
  into = after;
}

}  // namespace

void PilePicture::draw_side(ScenePile& pile, ScenePile::Side side, float share, XrayParts xray, Image& into) {
  list_.start(into.size());
  into.fill(pile.sky(side));
  pile.draw(list_, share, xray, side);
  list_.sort();
  raster_.draw(list_, into);
}

void PilePicture::draw(Simulation& simulation, const Game& game, Catalog& catalog, float share,
                       XrayParts xray, Image& canvas) {
  ScenePile& pile = simulation.pile();
  const Transition* const transition = pile.transition();
  if (!transition) return draw_side(pile, ScenePile::Side::after, share, xray, canvas);
  before_.resize(canvas.size());
  after_.resize(canvas.size());
  draw_side(pile, ScenePile::Side::before, share, xray, before_);
  draw_side(pile, ScenePile::Side::after, share, xray, after_);
  mix(*transition, pile.transition_share(share), game.transitions(), catalog, before_, after_, canvas);
}

}  // namespace vole
