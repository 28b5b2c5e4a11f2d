// A part of a game: the title, a level, the end. A new object each time it is entered.
//
//   class Beds : public vole::Scene {
//    public:
//     void enter(vole::Stage& stage) override { stage.load_level("beds"); }
//     void cues(vole::Cues& cues) override { cues.when_meet("vole", "bulb", ...); }
//     void tick(vole::Stage& stage) override { ... }
//     void draw(vole::Drawing& drawing) const override { drawing.text("letters", "12", {4, 4}); }
//     int gathered = 0;
//   };
//   template <class V> void describe(V& v, Beds& beds) { v.state("gathered", beds.gathered); }
//
// A class says what it is entered with and what it hands back, where it is one: using Argument = Order; using Result = Choice; (described
// structs; argument.hpp, stage_scenes.hpp).
//
// What a scene needs to go on lies in its stage and in the members that it describes: from these a snapshot is taken,
// and a scene that is restored is a new object with these values, without enter().
#pragma once

namespace vole {

class Cues;
class Drawing;
class Shown;
class Stage;

class Scene {
 public:
  virtual ~Scene() = default;

  virtual void enter(Stage&) {}
  // Says what happens when: see cues.hpp. After enter(), and again after a state was restored.
  virtual void cues(Cues&) {}
  // Says what is shown over the level by itself: see shown.hpp. When cues() is called.
  virtual void shows(Shown&) {}
  // Once a tick, before pilots and movers; also while things are frozen (Stage::freeze).
  virtual void tick(Stage&) {}
  // Another scene lies over it now, and no more: see docs/scenes.md.
  virtual void covered(Stage&) {}
  virtual void uncovered(Stage&) {}
  virtual void leave(Stage&) {}
  virtual void draw(Drawing&) const {}
};

}  // namespace vole
