#include "vole/scene/values.hpp"

#include <fmt/core.h>

#include <stdexcept>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"
#include "vole/saves/save_folder.hpp"

namespace vole {

void ValueTypes::add(One value) {
  value.type->expect_state();
  if (value.lasts == Lasts::between_runs) expect_save_name(value.name, longest_slot_name);
  for (const One& one : all_)
    if (one.name == value.name || one.type == value.type)
      throw std::logic_error(
          fmt::format("the value \"{}\" of the class {} is defined twice", value.name, value.type->name()));
  all_.push_back(std::move(value));
}

Values::Values(const ValueTypes& types) : types_(types) {
  for (const ValueTypes::One& one : types.all()) all_.push_back(one.type->make());
}

const Values& expect_values(const Values* values) {
  if (values) return *values;
  throw Error(FilePosition{}, "there are no values of a game here");
}
Values& expect_values(Values* values) {
  return const_cast<Values&>(expect_values(const_cast<const Values*>(values)));
}

void* Values::of(const DescribedType& type) const {
  for (std::size_t i = 0; i < all_.size(); ++i)
    if (types_.all()[i].type == &type) return all_[i].get();
  throw Error(FilePosition{}, fmt::format("the game has no value of the class {}", type.name()),
              fmt::format("say game.value<{}>(\"...\")", type.name()));
}

void Values::write(StateWriter& out) const {
  for (std::size_t i = 0; i < all_.size(); ++i) types_.all()[i].type->write_state(out, all_[i].get());
}

void Values::read(StateReader& in) {
  for (std::size_t i = 0; i < all_.size(); ++i) types_.all()[i].type->read_state(in, all_[i].get());
}

std::string Values::to_toml() const {
  std::string text;
  for (std::size_t i = 0; i < all_.size(); ++i) text += to_toml(i);
  return text;
}

std::string Values::to_toml(std::size_t index) const {
  const ValueTypes::One& one = types_.all()[index];
  return fmt::format("\n[values.{}]\n{}", toml_key(one.name), one.type->to_toml(all_[index].get()));
}

void Values::from_toml(const TomlValue& toml, Report& report) {
  for (const TomlValue::Entry& entry : toml.entries) {
    const std::size_t index = index_named(types_.all(), entry.key);
    if (index == types_.all().size())
      report.error(entry.where, fmt::format("the game has no value \"{}\"", entry.key),
                   did_you_mean(entry.key, names_of(types_.all())));
    else
      types_.all()[index].type->read(entry.value, all_[index].get(), {}, report, TableOf::state);
  }
}

}  // namespace vole
