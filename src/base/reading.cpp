#include "vole/base/reading.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/names.hpp"

namespace vole {

Reader::Reader(const Node& table, Report& report, TableOf table_of)
    : table_(table), report_(report), of_(table_of) {}

const Node* Reader::take(std::string_view key, bool required) {
  asked_.emplace_back(key);
  const Node* node = table_.find(key);
  if (!node && required) report_.error(table_.where, fmt::format("\"{}\" is missing here", key));
  return node;
}

bool Reader::was_asked(std::string_view key) const {
  return std::find(asked_.begin(), asked_.end(), key) != asked_.end();
}

void Reader::read(const DescribedField& field, void* owner) {
  switch (field.sort) {
    case DescribedField::Sort::file:
      return read(field.key, field.in(owner), *field.type, field.rule);
    case DescribedField::Sort::state:
      return read_state(field.key, field.in(owner), *field.type, field.rule);
    case DescribedField::Sort::rest:
      return read_rest(field.in(owner), static_cast<const detail::NamedType&>(*field.type));
  }
}

void Reader::read(std::string_view key, void* value, const FieldType& type, const FieldRule& rule) {
  const bool required = rule.required && of_ == TableOf::file;
  if (const Node* node = take(key, required)) type.read(*node, value, rule, report_, of_);
}

void Reader::read_state(std::string_view key, void* value, const FieldType& type, const FieldRule& rule) {
  if (of_ != TableOf::state) return;
  const Node* const node = take(key, false);
  if (!node) return;
  type.read(*node, value, rule, report_, of_);
  if (const std::optional<double> number = type.as_number(value); number && rule.limited())
    detail::check_limits(*node, *number, rule, report_);
}

void Reader::read_rest(void* list, const detail::NamedType& type) {
  type.make_items(list, 0);
  rest_taken_ = true;
  if (!detail::check_items(table_, {}, of_, report_)) return;
  std::vector<const Node::Entry*> rest;
  for (const Node::Entry& entry : table_.entries)
    if (!was_asked(entry.key)) rest.push_back(&entry);
  type.make_items(list, rest.size());
  for (std::size_t i = 0; i < rest.size(); ++i) {
    const detail::NamedType::Item item = type.item_at(list, i);
    item.name = rest[i]->key;
    item.where = rest[i]->where;
    type.value_type().read(rest[i]->value, item.value, {}, report_, of_);
  }
}

void Reader::finish() {
  if (rest_taken_) return;
  for (const Node::Entry& entry : table_.entries) {
    if (!was_asked(entry.key))
      report_.error(entry.where, fmt::format("unknown key \"{}\"", entry.key),
                    did_you_mean(entry.key, asked_));
  }
}

namespace detail {

void report_type(const Node& node, std::string_view wanted, Report& report) {
  report.error(node.where, fmt::format("{} wanted here, not {}", wanted, to_text(node)));
}

bool check_limits(const Node& node, double value, const FieldRule& rule, Report& report) {
  if (rule.allows(value)) return true;
  const bool below = value < rule.least;
  report.error(node.where, fmt::format("{} is too {}; the {} is {}", value, below ? "small" : "large",
                                       below ? "least" : "most", below ? rule.least : rule.most));
  return false;
}

bool expect(const Node& node, Node::Type type, std::string_view wanted, Report& report) {
  if (node.type == type) return true;
  report_type(node, wanted, report);
  return false;
}

bool check_items(const Node& node, const FieldRule& rule, TableOf of, Report& report) {
  const std::size_t count = node.type == Node::Type::array ? node.items.size() : node.entries.size();
  if (of == TableOf::state || count <= rule.most_items) return true;
  report.error(node.where, fmt::format("{} items are too many here; the most is {}", count, rule.most_items));
  return false;
}

}  // namespace detail
}  // namespace vole
