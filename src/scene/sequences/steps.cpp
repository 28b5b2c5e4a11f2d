#include "vole/scene/steps.hpp"

#include <fmt/core.h>

#include "vole/base/error.hpp"
#include "vole/base/within.hpp"
#include "vole/world/component_types.hpp"

namespace vole {

SequenceStep& Steps::add(StepDoes does, float seconds) {
  SequenceStep step;
  step.does = does;
  step.seconds = brought_within(seconds, 0, 3600);
  return lists_[0].steps.emplace_back(Located<SequenceStep>{std::move(step), {}}).value;
}

Steps& Steps::wait(float seconds) {
  add(StepDoes::wait, seconds);
  return *this;
}

Steps& Steps::tell(std::string_view name) {
  add(StepDoes::tell).told.value = name;
  return *this;
}

Steps& Steps::wait_until(std::initializer_list<std::string_view> conditions, float at_most) {
  SequenceStep& step = add(StepDoes::wait_until, at_most);
  for (const std::string_view condition : conditions) step.when.push_back({std::string(condition), {}});
  return *this;
}

Steps& Steps::wait_for(std::string_view told, float at_most) {
  add(StepDoes::wait_for, at_most).told.value = told;
  return *this;
}

Steps& Steps::go(std::string_view place, float speed) {
  SequenceStep& step = add(StepDoes::go);
  step.to.value = place;
  step.speed = brought_within(speed, 0, 65536);
  return *this;
}

Steps& Steps::go(Vec2 at, float speed) {
  SequenceStep& step = add(StepDoes::go);
  step.at = brought_within_reach(at);
  step.speed = brought_within(speed, 0, 65536);
  return *this;
}

Steps& Steps::play(std::string_view clip) {
  add(StepDoes::play).clip.value = clip;
  return *this;
}

Steps& Steps::tween(const DescribedType& component, std::size_t field, Vec4 value, float seconds, Ease ease) {
  SequenceStep& step = add(StepDoes::tween, seconds);
  step.ease = ease;
  step.value = brought_within(value, -1e9f, 1e9f);
  fields_.push_back({0, lists_[0].steps.size() - 1, &component, field});
  return *this;
}

Steps& Steps::say(std::string_view text, float seconds) {
  add(StepDoes::say, seconds).text = text;
  return *this;
}

std::uint32_t Steps::take(const Steps& steps) {
  const auto first = static_cast<std::uint32_t>(lists_.size());
  for (Sequence list : steps.lists_) {
    for (Located<SequenceStep>& step : list.steps)
      for (std::uint32_t& place : step.value.lists) place += first;
    lists_.push_back(std::move(list));
  }
  for (Field field : steps.fields_) {
    field.list += first;
    fields_.push_back(field);
  }
  return first;
}

Steps& Steps::together(std::initializer_list<Steps> all) {
  std::vector<std::uint32_t> lists;
  for (const Steps& steps : all) lists.push_back(take(steps));
  add(StepDoes::together).lists = std::move(lists);
  return *this;
}

Steps& Steps::repeat(int times, const Steps& steps) {
  const std::uint32_t list = take(steps);
  SequenceStep& step = add(StepDoes::repeat);
  step.lists = {list};
  step.times = std::max(times, 0);
  return *this;
}

Steps& Steps::named(std::string_view name) {
  if (!lists_[0].steps.empty()) lists_[0].steps.back().value.name = name;
  return *this;
}

Steps& Steps::of(Entity thing) {
  if (!lists_[0].steps.empty()) lists_[0].steps.back().value.entity = thing;
  return *this;
}

Steps& Steps::hurried_by(std::string_view action) {
  lists_[0].hurried_by.value = action;
  return *this;
}

Steps& Steps::take_over() {
  lists_[0].takes_over = true;
  return *this;
}

std::vector<Sequence> Steps::lists(const ComponentTypes& types) const {
  std::vector<Sequence> lists = lists_;
  for (const Field& field : fields_) {
    const ComponentTypes::Type* const type = types.of(*field.component);
    if (!type)
      throw Error(FilePosition{}, "a tween of a component that the game does not know", "see Game::knows");
    if (field.index >= type->fields().size())
      throw Error(FilePosition{},
                  fmt::format("a tween of a field of \"{}\" that is not described", type->name));
    lists[field.list].steps[field.step].value.field.value =
        fmt::format("{}.{}", type->name, type->fields()[field.index].name);
  }
  return lists;
}

}  // namespace vole
