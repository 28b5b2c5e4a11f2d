#include "vole/app/printed_values.hpp"

#include <fmt/core.h>

#include "vole/app/simulation.hpp"
#include "vole/base/names.hpp"
#include "vole/base/vec4.hpp"
#include "vole/base/writing.hpp"
#include "vole/world/component_types.hpp"

namespace vole {
namespace {

using Words = std::vector<std::string>;

std::vector<std::string> parted(std::string_view text, char by) {
  std::vector<std::string> parts;
  for (std::size_t begin = 0; begin <= text.size();) {
    const std::size_t end = std::min(text.find(by, begin), text.size());
    std::string_view part = text.substr(begin, end - begin);
    while (part.starts_with(' ')) part.remove_prefix(1);
    while (part.ends_with(' ')) part.remove_suffix(1);
    parts.emplace_back(part);
    begin = end + 1;
  }
  return parts;
}

std::string written(const FieldType& type, const void* value) {
  if (!type.is_there(value)) return "none";
  TomlText text(TomlText::Layout::one_line);
  type.write(text, value);
  return text.text();
}

// The value under the words from this one on, in a described struct.
std::string value_in(const DescribedType& type, const void* owner, const Words& words, std::size_t next) {
  if (next == words.size()) return written(type, owner);
  const std::vector<DescribedField>& fields = type.table(owner).fields();
  std::vector<std::string> keys;
  for (const DescribedField& field : fields) {
    keys.push_back(field.key);
    if (field.key != words[next]) continue;
    const void* const value = field.in(owner);
    if (next + 1 == words.size()) return written(*field.type, value);
    if (const auto* const inner = dynamic_cast<const DescribedType*>(field.type))
      return value_in(*inner, value, words, next + 1);
    const std::string& part = words[next + 1];
    if (field.type->parts() == 2 && next + 2 == words.size() && (part == "x" || part == "y")) {
      const Vec4 parts = field.type->parts_of(value);
      return toml_number(part == "x" ? parts.x : parts.y);
    }
    throw Error(FilePosition{}, fmt::format("\"{}\" has no part \"{}\"", field.key, part));
  }
  throw Error(FilePosition{}, fmt::format("{} has no field \"{}\"", type.name(), words[next]),
              did_you_mean(words[next], keys));
}

Entity thing_of(const Stage& stage, const std::string& name) {
  if (stage.has_level())
    for (const LevelPlace& place : stage.level().places())
      if (place.name == name) return stage.named(name);
  return stage.first(name);
}

std::string game_value(const Values& values, const Words& words) {
  const std::vector<ValueTypes::One>& all = values.types().all();
  if (words.size() < 2)
    throw Error(FilePosition{}, "which value of the game is missing", "as in values.purse");
  const std::size_t index = index_named(all, words[1]);
  if (index == all.size())
    throw Error(FilePosition{}, fmt::format("the game has no value \"{}\"", words[1]),
                did_you_mean(words[1], names_of(all)));
  return value_in(*all[index].type, values.at(index), words, 2);
}

std::string value_of(const Simulation& simulation, const ComponentTypes& types, const Words& words) {
  const std::string& first = words.front();
  if (first == "values") return game_value(simulation.values(), words);
  const RunningScene& running = *simulation.running();
  if (first == "scene") {
    // Only looked at.
    void* const members = running.type().members(const_cast<Scene&>(running.scene()));
    return value_in(*running.type().described, members, words, 1);
  }
  if (first == "camera") return value_in(described_type<Camera>(), &running.world().camera, words, 1);
  if (first == "level") return value_in(described_type<LevelNow>(), &running.world().level, words, 1);
  if (words.size() < 2)
    throw Error(FilePosition{}, fmt::format("which component of \"{}\" is missing", first),
                fmt::format("as in {}.pose.at", first));
  const ComponentTypes::Type* const type = types.find(words[1]);
  if (!type)
    throw Error(FilePosition{}, fmt::format("no component \"{}\"", words[1]),
                did_you_mean(words[1], names_of(types.all())));
  const Entity thing = thing_of(running.stage(), first);
  const void* const component = type->find(running.world().entities, thing);
  return component ? value_in(*type->described, component, words, 2) : "none";
}

}  // namespace

PrintedValues::PrintedValues(std::string_view text) {
  for (const std::string& path : parted(text, ',')) {
    paths_.push_back(parted(path, '.'));
    for (const std::string& word : paths_.back())
      if (word.empty())
        throw Error(FilePosition{}, fmt::format("\"{}\" is no value to print", path),
                    "as in robin.pose.at, scene.lives");
  }
  if (paths_.size() > most) throw Error(FilePosition{}, fmt::format("more than {} values to print", most));
}

std::string PrintedValues::line(const Simulation& simulation, const ComponentTypes& types) const {
  std::string line;
  for (const Words& words : paths_) {
    if (!line.empty()) line += ", ";
    for (const std::string& word : words) line += (&word == &words.front() ? "" : ".") + word;
    line += " = ";
    line += simulation.running() ? value_of(simulation, types, words) : "none";
  }
  return line;
}

}  // namespace vole
