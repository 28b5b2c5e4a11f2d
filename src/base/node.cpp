#include "vole/base/node.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/describe.hpp"
#include "vole/base/files.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/writing.hpp"

namespace vole {

Node::Node() = default;
Node::Node(const Node&) = default;
Node::Node(Node&&) noexcept = default;
Node& Node::operator=(const Node&) = default;
Node& Node::operator=(Node&&) noexcept = default;
Node::~Node() = default;

const Node* Node::find(std::string_view key) const {
  const auto found =
      std::find_if(entries.begin(), entries.end(), [key](const Entry& e) { return e.key == key; });
  return found == entries.end() ? nullptr : &found->value;
}

Node* Node::find(std::string_view key) {
  return const_cast<Node*>(static_cast<const Node*>(this)->find(key));
}

void Node::merge(const Node& over) {
  for (const Entry& entry : over.entries) {
    Node* mine = find(entry.key);
    if (!mine)
      entries.push_back(entry);
    else if (mine->type == Type::table && entry.value.type == Type::table)
      mine->merge(entry.value);
    else
      *mine = entry.value;
  }
}

std::string to_text(const Node& node) {
  switch (node.type) {
    case Node::Type::table:
      return "a table";
    case Node::Type::array:
      return fmt::format("a list of {}", node.items.size());
    case Node::Type::text:
      return fmt::format("the text \"{}\"", node.text);
    case Node::Type::whole:
      return fmt::format("the number {}", node.whole);
    case Node::Type::number:
      return fmt::format("the number {}", node.number);
    case Node::Type::yes_no:
      return node.yes ? "true" : "false";
    case Node::Type::date:
      return fmt::format("the date {}", node.text);
  }
  return {};
}

std::string to_toml(const Node& node) {
  std::string out;
  switch (node.type) {
    case Node::Type::table:
      for (const Node::Entry& entry : node.entries) {
        out += out.empty() ? "{ " : ", ";
        out += toml_key(entry.key) + " = " + to_toml(entry.value);
      }
      return out.empty() ? "{}" : out + " }";
    case Node::Type::array:
      for (const Node& item : node.items) out += (out.empty() ? "" : ", ") + to_toml(item);
      return "[" + out + "]";
    case Node::Type::text:
      return in_quotes(node.text);
    case Node::Type::whole:
      return fmt::format("{}", node.whole);
    case Node::Type::number:
      return toml_number(node.number);
    case Node::Type::yes_no:
      return node.yes ? "true" : "false";
    case Node::Type::date:
      return node.text;
  }
  return out;
}

Node read_toml(const std::string& path, std::size_t most_bytes) {
  return parse_toml(read_text(path, most_bytes), path);
}

}  // namespace vole
