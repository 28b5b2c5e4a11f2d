#include "vole/app/state_difference.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>
#include <span>

#include "vole/base/names.hpp"

namespace vole {
namespace {

std::string text_of(const TomlValue* toml) {
  return toml ? to_toml(*toml) : std::string();
}

// Keys of both, each once, in the order of the first and then of the second.
std::vector<std::string> keys_of(const TomlValue* first, const TomlValue* second) {
  std::vector<std::string> keys;
  std::set<std::string> seen;
  for (const TomlValue* toml : {first, second})
    if (toml)
      for (const TomlValue::Entry& entry : toml->entries)
        if (seen.insert(entry.key).second) keys.push_back(entry.key);
  return keys;
}

class Comparison {
 public:
  void compare(const std::string& thing, const std::string& field, const TomlValue* first,
               const TomlValue* second) {
    const bool tables = (!first || first->type == TomlValue::Type::table) &&
                        (!second || second->type == TomlValue::Type::table);
    if (tables && first && second) {
      for (const std::string& key : keys_of(first, second))
        compare(thing, field.empty() ? key : field + "." + key, first->find(key), second->find(key));
      return;
    }
    std::string a = text_of(first), b = text_of(second);
    if (a != b) found.push_back({"", "", thing, field, std::move(a), std::move(b)});
  }

  std::vector<StateDifference> found;
};

// The things of a state by their index.
std::map<std::int64_t, TomlValue> things_of(const TomlValue& state) {
  std::map<std::int64_t, TomlValue> things;
  const TomlValue* const entities = state.find("entities");
  const TomlValue* const list = entities ? entities->find("things") : nullptr;
  if (!list) return things;
  for (const TomlValue& thing : list->items)
    if (const TomlValue* const index = thing.find("index")) things[index->whole] = thing;
  return things;
}

std::string name_of(std::int64_t index, const TomlValue* thing) {
  const TomlValue* const kind = thing ? thing->find("kind") : nullptr;
  const TomlValue* const name = kind ? kind->find("name") : nullptr;
  return fmt::format("{} {}", name ? name->text : "thing", index);
}

// The same without some of its keys.
TomlValue without(const TomlValue& table, std::initializer_list<std::string_view> keys) {
  TomlValue rest = table;
  std::erase_if(rest.entries, [&](const TomlValue::Entry& entry) {
    return std::find(keys.begin(), keys.end(), entry.key) != keys.end();
  });
  return rest;
}

// A scene, or a level that it has left, without its things, whose order in the file is not what they are.
TomlValue without_things(const TomlValue& scene) {
  TomlValue rest = without(scene, {"left"});
  if (TomlValue* const entities = rest.find("entities")) *entities = without(*entities, {"things"});
  return rest;
}

void compare_with_things(Comparison& comparison, const TomlValue& first, const TomlValue& second) {
  const TomlValue rest_of_first = without_things(first), rest_of_second = without_things(second);
  comparison.compare({}, {}, &rest_of_first, &rest_of_second);
  const std::map<std::int64_t, TomlValue> things_of_first = things_of(first),
                                          things_of_second = things_of(second);
  std::set<std::int64_t> indices;
  for (const auto* things : {&things_of_first, &things_of_second})
    for (const auto& [index, thing] : *things) indices.insert(index);
  for (const std::int64_t index : indices) {
    const auto a = things_of_first.find(index), b = things_of_second.find(index);
    const TomlValue* const here = a == things_of_first.end() ? nullptr : &a->second;
    const TomlValue* const there = b == things_of_second.end() ? nullptr : &b->second;
    comparison.compare(name_of(index, here ? here : there), {}, here, there);
  }
}

// The levels that a scene has left, by their names.
std::map<std::string, TomlValue> left_of(const TomlValue& scene) {
  std::map<std::string, TomlValue> levels;
  if (const TomlValue* const left = scene.find("left"))
    for (const TomlValue& one : left->items)
      if (const TomlValue* const level = one.find("level"))
        if (const TomlValue* const name = level->find("name")) levels[name->text] = one;
  return levels;
}

void compare_scenes(Comparison& comparison, const TomlValue& first, const TomlValue& second) {
  compare_with_things(comparison, first, second);
  const std::map<std::string, TomlValue> left_of_first = left_of(first), left_of_second = left_of(second);
  std::set<std::string> names;
  for (const auto* levels : {&left_of_first, &left_of_second})
    for (const auto& [name, level] : *levels) names.insert(name);
  for (const std::string& name : names) {
    const std::size_t before = comparison.found.size();
    const auto a = left_of_first.find(name), b = left_of_second.find(name);
    if (a != left_of_first.end() && b != left_of_second.end())
      compare_with_things(comparison, a->second, b->second);
    else
      comparison.found.push_back({"", "", "", "left", a == left_of_first.end() ? "" : "kept",
                                  b == left_of_second.end() ? "" : "kept"});
    for (std::size_t d = before; d < comparison.found.size(); ++d) comparison.found[d].level = name;
  }
}

std::span<const TomlValue> scenes_of(const TomlValue& state) {
  const TomlValue* const scenes = state.find("scenes");
  return scenes ? std::span<const TomlValue>(scenes->items) : std::span<const TomlValue>();
}

// The names of scenes, from below.
std::string names_of_scenes(std::span<const TomlValue> scenes) {
  std::vector<std::string> names;
  for (const TomlValue& scene : scenes) names.push_back(text_of(scene.find("scene")));
  return joined(names, ", ");
}

}  // namespace

std::vector<StateDifference> state_differences(const TomlValue& first, const TomlValue& second) {
  Comparison comparison;
  const TomlValue rest_of_first = without(first, {"scenes"}), rest_of_second = without(second, {"scenes"});
  comparison.compare({}, {}, &rest_of_first, &rest_of_second);
  const std::span<const TomlValue> here = scenes_of(first), there = scenes_of(second);
  if (const std::string a = names_of_scenes(here), b = names_of_scenes(there); a != b) {
    comparison.found.push_back({"", "", "", "scenes", a, b});
    return comparison.found;
  }
  for (std::size_t i = 0; i < here.size(); ++i) {
    const std::size_t before = comparison.found.size();
    compare_scenes(comparison, here[i], there[i]);
    if (here.size() > 1)
      for (std::size_t d = before; d < comparison.found.size(); ++d)
        comparison.found[d].scene = here[i].find("scene")->text;
  }
  return comparison.found;
}

std::string to_text(const StateDifference& difference) {
  const auto shown = [](const std::string& value) { return value.empty() ? std::string("nothing") : value; };
  std::string where = difference.scene.empty() ? std::string() : fmt::format("in \"{}\": ", difference.scene);
  if (!difference.level.empty())
    where += fmt::format("in the level \"{}\" that was left: ", difference.level);
  where += difference.thing;
  if (!difference.thing.empty() && !difference.field.empty()) where += ", ";
  return fmt::format("{}{}: {} and {}", where, difference.field, shown(difference.first),
                     shown(difference.second));
}

}  // namespace vole
