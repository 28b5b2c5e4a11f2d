// The only file that includes the TOML library: it is heavy, and its types stay behind Node.
#define TOML_HEADER_ONLY 1
#include <toml++/toml.h>

#include <algorithm>
#include <sstream>

#include "vole/base/node.hpp"

namespace vole {
namespace {

class Converter {
 public:
  explicit Converter(std::string_view file) : file_(std::make_shared<const std::string>(file)) {}

  Place place(const toml::source_region& source) const {
    return {file_, static_cast<int>(source.begin.line), static_cast<int>(source.begin.column)};
  }

  Node convert(const toml::node& from) const {
    Node node;
    node.place = place(from.source());
    switch (from.type()) {
      case toml::node_type::table:
        fill_table(node, *from.as_table());
        break;
      case toml::node_type::array:
        node.type = Node::Type::array;
        for (const toml::node& item : *from.as_array()) node.items.push_back(convert(item));
        break;
      case toml::node_type::string:
        node.type = Node::Type::text;
        node.text = from.as_string()->get();
        break;
      case toml::node_type::integer:
        node.type = Node::Type::whole;
        node.whole = from.as_integer()->get();
        node.number = static_cast<double>(node.whole);
        break;
      case toml::node_type::floating_point:
        node.type = Node::Type::number;
        node.number = from.as_floating_point()->get();
        break;
      case toml::node_type::boolean:
        node.type = Node::Type::yes_no;
        node.yes = from.as_boolean()->get();
        break;
      default:
        fill_date(node, from);
        break;
    }
    return node;
  }

 private:
  void fill_table(Node& node, const toml::table& table) const {
    node.type = Node::Type::table;
    for (const auto& [key, value] : table)
      node.entries.push_back({std::string(key.str()), place(key.source()), convert(value)});
    // The library keeps keys sorted; games want the order of the file (clip rules, layers, legends).
    std::stable_sort(
        node.entries.begin(), node.entries.end(), [](const Node::Entry& a, const Node::Entry& b) {
          return std::pair(a.place.line, a.place.column) < std::pair(b.place.line, b.place.column);
        });
  }

  static void fill_date(Node& node, const toml::node& from) {
    node.type = Node::Type::date;
    std::ostringstream text;
    from.visit([&text](const auto& value) {
      if constexpr (toml::is_date<decltype(value)> || toml::is_time<decltype(value)> ||
                    toml::is_date_time<decltype(value)>)
        text << value.get();
    });
    node.text = text.str();
  }

  std::shared_ptr<const std::string> file_;
};

}  // namespace

Node parse_toml(std::string_view text, std::string_view file) {
  const Converter converter(file);
  try {
    const toml::table table = toml::parse(text);
    Node root = converter.convert(table);
    root.place.line = 1;
    root.place.column = 1;
    return root;
  } catch (const toml::parse_error& error) {
    throw Error(converter.place(error.source()), "not valid TOML: " + std::string(error.description()));
  }
}

}  // namespace vole
