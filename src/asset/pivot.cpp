#include "vole/asset/pivot.hpp"

#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {

void read_field(const TomlValue& toml, Pivot& pivot, const FieldRule& rule, Report& report) {
  if (toml.type == TomlValue::Type::array) {
    pivot.word.reset();
    read_value(toml, pivot.pixel, rule, report);
  } else {
    read_value(toml, pivot.word, rule, report);
  }
}

TomlValue schema_field(const Pivot&, const FieldRule& rule) {
  return detail::either_schema({schema_of<Anchor>(), schema_of<IVec2>(rule)});
}

}  // namespace vole
