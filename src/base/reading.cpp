#include "vole/base/reading.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/names.hpp"

namespace vole {

Reader::Reader(const TomlValue& table, Report& report, TableOf table_of)
    : table_(table), report_(report), of_(table_of) {}

const TomlValue* Reader::take(std::string_view key, bool required) {
  asked_.emplace_back(key);
  const TomlValue* toml = table_.find(key);
  if (!toml && required) report_.error(table_.where, fmt::format("\"{}\" is missing here", key));
  return toml;
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
  if (const TomlValue* toml = take(key, required)) type.read(*toml, value, rule, report_, of_);
}

void Reader::read_state(std::string_view key, void* value, const FieldType& type, const FieldRule& rule) {
  if (of_ != TableOf::state) return;
  const TomlValue* const toml = take(key, false);
  if (!toml) return;
  type.read(*toml, value, rule, report_, of_);
  if (const std::optional<double> number = type.as_number(value); number && rule.limited())
    detail::check_limits(*toml, *number, rule, report_);
}

void Reader::read_rest(void* list, const detail::NamedType& type) {
  type.make_items(list, 0);
  rest_taken_ = true;
  if (!detail::check_items(table_, {}, of_, report_)) return;
  std::vector<const TomlValue::Entry*> rest;
  for (const TomlValue::Entry& entry : table_.entries)
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
  for (const TomlValue::Entry& entry : table_.entries) {
    if (!was_asked(entry.key))
      report_.error(entry.where, fmt::format("unknown key \"{}\"", entry.key),
                    did_you_mean(entry.key, asked_));
  }
}

namespace detail {

void report_type(const TomlValue& toml, std::string_view wanted, Report& report) {
  report.error(toml.where, fmt::format("{} wanted here, not {}", wanted, to_text(toml)));
}

bool check_limits(const TomlValue& toml, double value, const FieldRule& rule, Report& report) {
  if (rule.allows(value)) return true;
  const bool below = value < rule.least;
  report.error(toml.where, fmt::format("{} is too {}; the {} is {}", value, below ? "small" : "large",
                                       below ? "least" : "most", below ? rule.least : rule.most));
  return false;
}

bool expect(const TomlValue& toml, TomlValue::Type type, std::string_view wanted, Report& report) {
  if (toml.type == type) return true;
  report_type(toml, wanted, report);
  return false;
}

bool check_items(const TomlValue& toml, const FieldRule& rule, TableOf of, Report& report) {
  const std::size_t count = toml.type == TomlValue::Type::array ? toml.items.size() : toml.entries.size();
  if (of == TableOf::state || count <= rule.most_items) return true;
  report.error(toml.where, fmt::format("{} items are too many here; the most is {}", count, rule.most_items));
  return false;
}

}  // namespace detail
}  // namespace vole
