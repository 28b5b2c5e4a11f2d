#include "vole/scene/transition.hpp"

#include <fmt/core.h>

#include <stdexcept>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/base/within.hpp"

namespace vole {
namespace {

Transition of_look(Transition::Look look, float seconds, Ease ease) {
  Transition transition;
  transition.look = look;
  transition.seconds = brought_within(seconds, 0, Transition::longest);
  transition.ease = ease;
  return transition;
}

}  // namespace

Transition fade(float seconds, Colour through, Ease ease) {
  Transition transition = of_look(Transition::Look::fade, seconds, ease);
  transition.colour = through;
  return transition;
}

Transition wipe(Direction direction, float seconds, Ease ease) {
  Transition transition = of_look(Transition::Look::wipe, seconds, ease);
  // Of the eight directions the four straight ones are the even numbers.
  transition.direction = static_cast<Direction>(static_cast<unsigned>(direction) / 2 * 2);
  return transition;
}

Transition iris(Vec2 at, float seconds, Colour through) {
  return iris(at, at, seconds, through);
}

Transition iris(Vec2 closes_on, Vec2 opens_from, float seconds, Colour through) {
  Transition transition = of_look(Transition::Look::iris, seconds, Ease::sine_both);
  transition.colour = through;
  transition.closes_on = brought_within_reach(closes_on);
  transition.opens_from = brought_within_reach(opens_from);
  return transition;
}

Transition dissolve(std::string_view picture, float seconds, Ease ease) {
  Transition transition = of_look(Transition::Look::dissolve, seconds, ease);
  transition.name = picture;
  return transition;
}

Transition own_transition(std::string_view name, float seconds, Ease ease) {
  Transition transition = of_look(Transition::Look::own, seconds, ease);
  transition.name = name;
  return transition;
}

void OwnTransitions::add(std::string_view name, MixPictures mix) {
  if (find_named(all_, name)) throw std::logic_error(fmt::format("two transitions are named \"{}\"", name));
  all_.push_back({std::string(name), std::move(mix)});
}

const MixPictures& OwnTransitions::get(std::string_view name) const {
  if (const One* const found = find_named(all_, name)) return found->mix;
  throw Error(FilePosition{}, fmt::format("no transition \"{}\" of the game's own", name),
              all_.empty() ? "see Game::transition" : did_you_mean(name, names_of(all_)));
}

}  // namespace vole
