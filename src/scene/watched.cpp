#include "vole/scene/watched.hpp"

#include "selected_things.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/writing.hpp"

namespace vole::detail {

std::string watched_text(const FieldType& type, const void* value) {
  TomlText out(TomlText::Layout::one_line);
  type.write(out, value);
  return out.text();
}

bool read_watched(const FieldType& type, const std::string& text, void* value) {
  Report report;
  report.gather([&] {
    const TomlValue toml = parse_toml("value = " + text, "a state");
    if (toml.entries.size() != 1) return report.error(toml.where, "no value");
    type.read(toml.entries.front().value, value, {}, report, TableOf::state);
  });
  return !report.has_errors();
}

std::int64_t ticks_of(const Stage& stage) {
  return stage.ticks();
}
const Entities& entities_of(const Stage& stage) {
  return stage.entities();
}
bool is_meant(const Stage& stage, Entity thing, const ThingSelector& which) {
  return fits(stage, thing, which);
}

}  // namespace vole::detail
