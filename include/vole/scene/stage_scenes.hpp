// The part of a stage that is about other scenes: the one that comes next, those that lie over this one, and how this one lies over others.
//
//   stage.leave_for<Finish>(harvest);             // in the place of this one
//   stage.open<Pause>();                          // over this one, which goes on when it closes
//   stage.close(Choice{2});                       // this one ends, and hands that back: Cues::when_closed
//
// It takes place when the tick is over. Of what a scene asks for in one tick an end of it counts before another level (Stage::go_to_level), that
// before a scene over it, and else what was asked last; see docs/scenes.md.
#pragma once

#include <optional>
#include <string_view>

#include "vole/scene/argument.hpp"
#include "vole/scene/scene_change.hpp"
#include "vole/scene/scene_types.hpp"
#include "vole/world/cover.hpp"

namespace vole {

class World;

class StageScenes {
 public:
  // Another scene in the place of this one, and of those that lie over it; by its name or its type, with what it expects (argument.hpp).
  // These throw Error for an unknown scene, with the nearest name, and for a struct that it does not expect.
  SceneChange& leave_for(std::string_view scene) { return ask(SceneChange::How::leaves, scene, {}); }
  template <class Argument>
  SceneChange& leave_for(std::string_view scene, Argument argument) {
    return ask(SceneChange::How::leaves, scene, described(std::move(argument)));
  }
  template <class SceneClass>
  SceneChange& leave_for() {
    return ask(SceneChange::How::leaves, scenes_.name_of<SceneClass>(), {});
  }
  template <class SceneClass>
  SceneChange& leave_for(typename SceneClass::Argument argument) {
    return ask(SceneChange::How::leaves, scenes_.name_of<SceneClass>(), SceneArgument(std::move(argument)));
  }
  template <class SceneClass, class Given>
  requires(!requires { typename SceneClass::Argument; }) void leave_for(const Given&) {
    expects_nothing<SceneClass>();
  }

  // The same over this one, which is covered until that one closes. Throw Error too where another lies over this one already, and where
  // more than most_in_pile would lie over one another.
  SceneChange& open(std::string_view scene) { return ask(SceneChange::How::opens, scene, {}); }
  template <class Argument>
  SceneChange& open(std::string_view scene, Argument argument) {
    return ask(SceneChange::How::opens, scene, described(std::move(argument)));
  }
  template <class SceneClass>
  SceneChange& open() {
    return ask(SceneChange::How::opens, scenes_.name_of<SceneClass>(), {});
  }
  template <class SceneClass>
  SceneChange& open(typename SceneClass::Argument argument) {
    return ask(SceneChange::How::opens, scenes_.name_of<SceneClass>(), SceneArgument(std::move(argument)));
  }
  template <class SceneClass, class Given>
  requires(!requires { typename SceneClass::Argument; }) void open(const Given&) {
    expects_nothing<SceneClass>();
  }

  // This scene ends, with those that lie over it, and the one below goes on. What it hands back is a struct that its class names by
  // `using Result = Choice;`. Throw Error where there is none below, and for a struct that it does not hand back; by the class of the scene
  // that is a compile error.
  SceneChange& close() { return ask_to_close({}); }
  template <class Result>
  requires(!requires { typename Result::Result; }) SceneChange& close(Result result) {
    return ask_to_close(described(std::move(result)));
  }
  template <class SceneClass>
  requires requires { typename SceneClass::Result; }
  SceneChange& close(typename SceneClass::Result result) {
    return ask_to_close(SceneArgument(std::move(result)));
  }

  // How this scene lies over those below.
  Cover& cover();
  const Cover& cover() const;
  // Whether one lies over it, and whether it lies over one.
  bool covered() const { return covered_; }
  bool covers() const { return covers_; }

  // What the scene was given; as it is made when that was nothing. Throws Error, with the names of both, when it was a struct of another
  // type.
  template <class Argument>
  const Argument& argument() const {
    static const Argument nothing{};
    if (!argument_.type()) return nothing;
    const Argument* const found = argument_.as<Argument>();
    if (!found) wrong_argument(type_name<Argument>());
    return *found;
  }

  // Scenes that lie over one another, with those that are only seen yet.
  static constexpr int most_in_pile = 16;

 protected:
  StageScenes(const SceneTypes& scenes, World& world, const SceneArgument& argument)
      : scenes_(scenes), world_(world), argument_(argument) {}
  ~StageScenes() = default;
  SceneChange& ask(SceneChange change);

 private:
  friend class RunningScene;

  template <class Given>
  static SceneArgument described(Given given) {
    if constexpr (Described<Given>) {
      return SceneArgument(std::move(given));
    } else {
      static_assert(
          detail::never<Given>,
          "what is handed from scene to scene is not described: write beside it, before it is used, "
          "template <class V> void describe(V& v, MyStruct& it) { v(\"points\", it.points); }");
      return SceneArgument();
    }
  }
  template <class SceneClass>
  static void expects_nothing() {
    static_assert(
        detail::never<SceneClass>,
        "this scene expects nothing: write in its class what it expects, using Argument = MyStruct;");
  }
  SceneChange& ask(SceneChange::How how, std::string_view scene, SceneArgument argument);
  SceneChange& ask_to_close(SceneArgument result);
  [[noreturn]] void wrong_argument(std::string_view wanted) const;

  const SceneTypes& scenes_;
  World& world_;
  const SceneArgument& argument_;
  const SceneType* type_ = nullptr;  // of this scene
  bool covered_ = false, covers_ = false;
  int in_pile_ = 1;  // scenes, this among them
  std::optional<SceneChange> change_;
  SceneChange uncounted_;  // what is asked of a scene that ends anyway
};

}  // namespace vole
