// A game: where its files are, its scenes, its own components, tracks and steps.
//
//   vole::Game game("game.toml");
//   game.scene<Title>("title").scene<Beds>("beds").knows<Bulb>("bulb");
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/app/save_versions.hpp"
#include "vole/scene/pictures/drawing.hpp"
#include "vole/scene/scene_types.hpp"
#include "vole/scene/tick_steps.hpp"
#include "vole/scene/transition.hpp"
#include "vole/scene/values.hpp"
#include "vole/world/component_types.hpp"

namespace vole {

struct Track;

class Game {
 public:
  // `project_file` is looked for here, beside the program, and where a development build says.
  explicit Game(std::string project_file);

  // A scene, which describes its state: see scene.hpp.
  template <class SceneType>
  Game& scene(std::string_view name) {
    if constexpr (Described<SceneType>)
      scenes_.add<SceneType>(name);
    else
      static_assert(detail::never<SceneType>,
                    "this scene does not describe its state: write beside it, before the game names it, "
                    "template <class V> "
                    "void describe(V& v, MyScene& scene) { v.state(\"lives\", scene.lives); }, with a line "
                    "for each member "
                    "that is to be saved");
    return *this;
  }
  // The same with what it is given where nobody hands it anything: one class for several scenes.
  template <class SceneType>
  Game& scene(std::string_view name, typename SceneType::Argument given) {
    scenes_.add<SceneType>(name, SceneArgument(std::move(given)));
    return *this;
  }
  // A component of the game's own, by the name that kinds and levels use.
  template <class T>
  Game& knows(std::string_view name) {
    if constexpr (Described<T>)
      types_.add<T>(name);
    else
      static_assert(detail::never<T>,
                    "this component is not described: write beside it, before the game knows it, template "
                    "<class V> void "
                    "describe(V& v, MyComponent& it) { v(\"speed\", it.speed); }");
    return *this;
  }
  // A component that moves its thing, with what turns intent into motion: see mover_turn.hpp.
  template <Described T>
  Game& moves(std::string_view name, void (*move)(MoverTurn& turn, T& mover), NeededIntent needed = {}) {
    types_.add_mover<T>(name, needed);
    steps_.movers().add<T>(move);
    return *this;
  }
  // A track that is written in C++ and not in a sheet (asset/track.hpp); it must outlive the game.
  Game& knows(const Track& track);
  // A step of the game's own after one of the library's: see tick_steps.hpp.
  Game& step_after(std::string_view step, std::string_view name, std::function<void(Stage&)> run);

  // A value of the game, which all scenes share: see values.hpp.
  template <class T>
  Game& value(std::string_view name, Lasts lasts = Lasts::run) {
    return add_value<T>(name, lasts, nullptr);
  }
  // One that lasts between runs, and how what another copy of the game has kept meanwhile is put into this one's.
  template <class T>
  Game& value(std::string_view name, void (*join)(T& mine, const T& theirs)) {
    return add_value<T>(name, Lasts::between_runs, [join](void* mine, const void* theirs) {
      join(*static_cast<T*>(mine), *static_cast<const T*>(theirs));
    });
  }
  // The version of what the game saves, 1 when it is not said; and how what was saved in an older one becomes what the next one would have saved: see
  // save_versions.hpp.
  Game& saves_are(int version);
  Game& save_step(int from, SaveStep step);

  // A transition of the game's own, for vole::own_transition: see transition.hpp.
  Game& transition(std::string_view name, MixPictures mix) {
    transitions_.add(name, std::move(mix));
    return *this;
  }

  const std::string& project_file() const { return project_file_; }
  const ComponentTypes& types() const { return types_; }
  const SceneTypes& scenes() const { return scenes_; }
  const std::vector<const Track*>& tracks() const { return tracks_; }
  const TickSteps& steps() const { return steps_; }
  const OwnTransitions& transitions() const { return transitions_; }
  const ValueTypes& values() const { return values_; }
  const SaveVersions& save_versions() const { return save_versions_; }

 private:
  template <class T>
  Game& add_value(std::string_view name, Lasts lasts, ValueTypes::Join join) {
    if constexpr (Described<T>)
      values_.add({std::string(name), &described_type<T>(), lasts, std::move(join)});
    else
      static_assert(
          detail::never<T>,
          "this value is not described: write beside it, before the game names it, template <class V> void "
          "describe(V& v, MyValue& it) { v(\"coins\", it.coins); }");
    return *this;
  }

  std::string project_file_;
  ComponentTypes types_;
  SceneTypes scenes_;
  std::vector<const Track*> tracks_;
  TickSteps steps_;
  OwnTransitions transitions_;
  ValueTypes values_;
  SaveVersions save_versions_;
};

}  // namespace vole
