#include "vole/scene/stage_scenes.hpp"

#include <fmt/core.h>

#include "vole/base/error.hpp"
#include "vole/world/world.hpp"

namespace vole {

SceneChange& SceneChange::with(Transition shown) {
  transition = std::move(shown);
  return *this;
}
SceneChange& SceneChange::over_last_moment() {
  stays_seen = true;
  return *this;
}

Cover& StageScenes::cover() {
  return world_.cover;
}
const Cover& StageScenes::cover() const {
  return world_.cover;
}

SceneChange& StageScenes::ask(SceneChange::How how, std::string_view scene, SceneArgument argument) {
  const SceneType& type = scenes_.get(scene);
  argument = scenes_.argument_for(type, std::move(argument));
  if (how == SceneChange::How::opens && covered_)
    throw Error(FilePosition{},
                fmt::format("\"{}\" cannot open over this scene: another lies over it", scene));
  if (how == SceneChange::How::opens && in_pile_ >= most_in_pile)
    throw Error(
        FilePosition{},
        fmt::format("\"{}\" cannot open: {} scenes lie over one another, and more may not", scene, in_pile_));
  return ask(SceneChange{how, type.name, std::move(argument), {}, false});
}

namespace {

int weight_of(const SceneChange& change) {
  if (change.how == SceneChange::How::opens) return 0;
  return change.how == SceneChange::How::goes ? 1 : 2;
}

}  // namespace

SceneChange& StageScenes::ask(SceneChange change) {
  const bool counts = !change_ || weight_of(change) >= weight_of(*change_);
  return counts ? change_.emplace(std::move(change)) : uncounted_ = std::move(change);
}

SceneChange& StageScenes::ask_to_close(SceneArgument result) {
  if (type_ && result.type()) SceneTypes::expect_result(*type_, *result.type());
  if (!covers_)
    throw Error(FilePosition{}, "this scene cannot close: it lies over none",
                "leave_for takes its place by another");
  return ask(SceneChange{SceneChange::How::closes, {}, std::move(result), {}, false});
}

void StageScenes::wrong_argument(std::string_view wanted) const {
  throw Error(FilePosition{},
              fmt::format("this scene was given a {}, and asks for a {}", argument_.type()->name(), wanted));
}

}  // namespace vole
