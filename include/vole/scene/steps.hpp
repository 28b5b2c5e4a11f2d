// The steps of a sequence (world/sequence.hpp), written in the order in which one would say them:
//
//   stage.start_sequence("arrival", vole::Steps()
//                                       .wait(0.5f)
//                                       .go({300, 240}, 60).named("on the way")
//                                       .together({vole::Steps().play("wave"), vole::Steps().say("Good morning!")})
//                                       .tween(&vole::Sprite::opacity, 0.0f, 1)
//                                       .tell("arrived"),
//                        float_);
//
// Each is about the thing that has the sequence; .of(thing) after a step says another. All of it becomes state when the sequence begins.
#pragma once

#include <initializer_list>
#include <string_view>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/world/sequence.hpp"

namespace vole {

class ComponentTypes;

class Steps {
 public:
  Steps() : lists_(1) {}

  Steps& wait(float seconds);
  // Its cue is called, about the thing. The scene must have one.
  Steps& tell(std::string_view name);
  // Until all of these hold for the thing, as "grounded" or "speed > 40" in clip rules; at most so long (0: however long).
  Steps& wait_until(std::initializer_list<std::string_view> conditions, float at_most = 0);
  // Until a name is told, about the thing or about none.
  Steps& wait_for(std::string_view told, float at_most = 0);
  // To a place of the level, or a position. A thing with a mover walks there as it can, and has arrived also when it comes no nearer for a
  // second; another one is moved straight on, so many pixels a second.
  Steps& go(std::string_view place, float speed = 0);
  Steps& go(Vec2 at, float speed = 0);
  // A clip, or a set of clips, to its end; what loops to the end of a round. Clip rules do not count meanwhile.
  Steps& play(std::string_view clip);
  // A field of a component, as with Stage::tween.
  template <class Component, class Field>
  Steps& tween(Field Component::*field, const Field& value, float seconds, Ease ease = Ease::linear) {
    return tween(described_type<Component>(), index_of_field(field), field_type<Field>().parts_of(&value),
                 seconds, ease);
  }
  // Shown letter by letter over the thing, or for a scene at the foot of the canvas; then for so long (0: until it can have been read). See
  // Stage::said.
  Steps& say(std::string_view text, float seconds = 0);
  // All of them side by side, until the last is over.
  Steps& together(std::initializer_list<Steps> all);
  // So many times; 0: without end.
  Steps& repeat(int times, const Steps& steps);

  // These are about the step before.
  Steps& named(std::string_view name);
  Steps& of(Entity thing);
  // And these about all of it: an action that ends a step which takes time alone; and that nothing else steers the thing meanwhile.
  Steps& hurried_by(std::string_view action);
  Steps& take_over();

  // As a sequence is kept, with the names of components. Throws Error for a component that the game does not know, and a field that is not
  // described.
  std::vector<Sequence> lists(const ComponentTypes& types) const;

 private:
  struct Field {
    std::size_t list, step;
    const DescribedType* component;
    std::size_t index;
  };

  Steps& tween(const DescribedType& component, std::size_t field, Vec4 value, float seconds, Ease ease);
  SequenceStep& add(StepDoes does, float seconds = 0);
  // Puts the lists of other steps behind these. Returns the place of the first.
  std::uint32_t take(const Steps& steps);

  std::vector<Sequence> lists_;  // the first is this one
  std::vector<Field> fields_;    // of tweens
};

}  // namespace vole
