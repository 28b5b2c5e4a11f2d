#include "vole/scene/component_types.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

#include "vole/base/names.hpp"
#include "vole/scene/components.hpp"

namespace vole {

void read_field(const Node& node, Carries& carries, const FieldRule& rule, Report& report) {
  read_value(node, carries.things, rule, report);
}

Node schema_field(const Carries&, const FieldRule& rule) {
  return schema_of<decltype(Carries::things)>(rule);
}

ComponentTypes::ComponentTypes() {
  add<Body>("body");
  add<Sprite>("sprite");
  add<Person>("person");
  add<SideMover>("side_mover");
  add<Carries>("carries");
}

void ComponentTypes::add(Type type) {
  const auto at =
      std::lower_bound(types_.begin(), types_.end(), type.name,
                       [](const Type& known, const std::string& name) { return known.name < name; });
  if (at != types_.end() && at->name == type.name)
    throw std::logic_error("two components are named \"" + type.name + "\"");
  types_.insert(at, std::move(type));
}

const ComponentTypes::Type* ComponentTypes::find(std::string_view name) const {
  const auto found =
      std::find_if(types_.begin(), types_.end(), [name](const Type& t) { return t.name == name; });
  return found == types_.end() ? nullptr : &*found;
}

void ComponentTypes::check_tracks(const Sheet& sheet, Unknown unknown, Report& report) const {
  for (const Track& track : sheet.tracks)
    for (const TrackField& wanted : track.fields) {
      const Type* type = find(wanted.component);
      if (!type) {
        if (unknown == Unknown::told)
          report.error(wanted.place, fmt::format("no component \"{}\"", wanted.component),
                       did_you_mean(wanted.component, names()));
        continue;
      }
      const std::vector<FieldInfo>& fields = type->fields();
      const auto found = std::find_if(fields.begin(), fields.end(),
                                      [&](const FieldInfo& field) { return field.name == wanted.field; });
      if (found == fields.end())
        report.error(
            wanted.place,
            fmt::format("\"{}\" has no number, pair or colour \"{}\"", wanted.component, wanted.field),
            did_you_mean(wanted.field, names_of(fields)));
      else if (found->parts != wanted.parts)
        report.error(wanted.place, fmt::format("\"{}\" of \"{}\" is {}", wanted.field, wanted.component,
                                               word_for_parts(found->parts)));
    }
}

std::vector<std::string> ComponentTypes::names() const {
  return names_of(types_);
}

}  // namespace vole
