#include "vole/asset/pivot.hpp"

namespace vole {

void read_field(const Node& node, Pivot& pivot, const FieldRule& rule, Report& report) {
  if (node.type == Node::Type::array) {
    pivot.word.reset();
    read_value(node, pivot.pixel, rule, report);
  } else {
    read_value(node, pivot.word, rule, report);
  }
}

}  // namespace vole
