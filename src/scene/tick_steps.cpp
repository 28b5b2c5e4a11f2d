#include "vole/scene/tick_steps.hpp"

#include <fmt/core.h>

#include "tick.hpp"
#include "vole/base/names.hpp"

namespace vole {

TickSteps::TickSteps()
    : steps_{{"files", false, take_changed_files}, {"time", false, pass_time},
             {"poses", false, remember_poses},     {"timers", false, run_timers},
             {"pointer", false, use_pointer},      {"scene", false, run_scene},
             {"pilots", true, run_pilots},         {"sequences", true, run_sequences},
             {"platforms", true, move_platforms},  {"movers", true, run_movers},
             {"meetings", true, tell_meetings},    {"tweens", true, run_tweens},
             {"clips", true, run_clips},           {"points", true, follow_points},
             {"camera", false, aim_camera},        {"pieces", false, go_along},
             {"removal", false, remove_things},    {"values", false, tell_values}} {}

void TickSteps::add_after(std::string_view after, std::string_view name, std::function<void(Stage&)> step) {
  const std::size_t index = index_named(steps_, after);
  if (index == steps_.size())
    throw Error(FilePosition{}, fmt::format("no step \"{}\" in a tick", after),
                did_you_mean(after, names_of(steps_)));
  const bool of_things = steps_[index].of_things;
  steps_.insert(steps_.begin() + static_cast<std::ptrdiff_t>(index) + 1,
                {std::string(name), of_things, nullptr, std::move(step)});
}

}  // namespace vole
