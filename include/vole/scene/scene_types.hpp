// The scenes of a game: each one's name, C++ type, description, and the argument it expects.
//
//   SceneTypes scenes;
//   scenes.add<Beds>("beds");
//   scenes.add<Island>("harbour", Place{"harbour"});      // one class, two scenes
//   scenes.add<Island>("hill", Place{"hill"});
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "vole/scene/argument.hpp"
#include "vole/scene/scene.hpp"
#include "vole/scene/type_mark.hpp"

namespace vole {

namespace detail {

// The described struct that a scene expects, by its `using Argument = ...`; nullptr when it expects none.
template <class T>
const DescribedType* argument_of_scene() {
  if constexpr (requires { typename T::Argument; })
    return &described_type<typename T::Argument>();
  else
    return nullptr;
}

// What it hands back, by its `using Result = ...`; nullptr for nothing.
template <class T>
const DescribedType* result_of_scene() {
  if constexpr (requires { typename T::Result; })
    return &described_type<typename T::Result>();
  else
    return nullptr;
}

}  // namespace detail

struct SceneType {
  std::string name;
  const void* mark = nullptr;
  const DescribedType* argument = nullptr;
  const DescribedType* result = nullptr;
  SceneArgument given = {};  // when it is entered without one
  std::unique_ptr<Scene> (*make)() = nullptr;
  // The scene's own members: its description, and where they lie.
  const DescribedType* described = nullptr;
  void* (*members)(Scene& scene) = nullptr;
};

class SceneTypes {
 public:
  // Throws std::logic_error when the name is there already.
  template <class T>
  void add(std::string_view name, SceneArgument given = {}) {
    static_assert(std::is_base_of_v<Scene, T>, "a scene is a class derived from vole::Scene");
    add({std::string(name), &detail::type_mark<T>, detail::argument_of_scene<T>(),
         detail::result_of_scene<T>(), std::move(given),
         []() -> std::unique_ptr<Scene> { return std::make_unique<T>(); }, &described_type<T>(),
         [](Scene& scene) -> void* { return static_cast<T*>(&scene); }});
  }

  // Throws Error at `asked` with the nearest name.
  const SceneType& get(std::string_view name, const FilePosition& asked = {}) const;
  // The name that the game gave to a scene's type. Throws Error when it gave none, or several.
  template <class T>
  const std::string& name_of() const {
    return name_of(&detail::type_mark<T>, type_name<T>());
  }
  const std::vector<SceneType>& all() const { return types_; }
  // What a scene is entered with: this, or what its type is given when this is nothing.
  SceneArgument argument_for(const SceneType& scene, SceneArgument argument) const;
  // Throw Error, with the names of both types, when the scene does not expect this, and when it does not hand this back.
  void expect_argument(const SceneType& scene, const SceneArgument& argument) const;
  static void expect_result(const SceneType& scene, const DescribedType& result);

 private:
  void add(SceneType type);
  const std::string& name_of(const void* mark, std::string_view type) const;

  std::vector<SceneType> types_;
};

}  // namespace vole
