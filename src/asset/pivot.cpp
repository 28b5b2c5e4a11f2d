#include "vole/asset/pivot.hpp"

#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {

void read_field(const Node& node, Pivot& pivot, const FieldRule& rule, Report& report) {
  if (node.type == Node::Type::array) {
    pivot.word.reset();
    read_value(node, pivot.pixel, rule, report);
  } else {
    read_value(node, pivot.word, rule, report);
  }
}

Node schema_field(const Pivot&, const FieldRule& rule) {
  return detail::either_schema({schema_of<Anchor>(), schema_of<IVec2>(rule)});
}

}  // namespace vole
