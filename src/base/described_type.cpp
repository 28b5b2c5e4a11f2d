#include "vole/base/described_type.hpp"

#include <fmt/core.h>

#include <deque>
#include <mutex>
#include <stdexcept>

#include "vole/base/positions.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"

namespace vole {

detail::FieldLister::FieldLister(const void* owner, std::size_t size, std::string_view name)
    : owner_(static_cast<const char*>(owner)), size_(size), name_(name) {}

detail::FieldLister::~FieldLister() = default;

std::vector<DescribedField> detail::FieldLister::take() {
  return std::move(fields_);
}

void detail::FieldLister::add(std::string_view key, DescribedField::Sort sort, const void* field,
                              std::size_t size, const FieldType& type, const FieldRule& rule) {
  const auto at = static_cast<std::size_t>(static_cast<const char*>(field) - owner_);
  if (at > size_ || size > size_ - at)
    throw std::logic_error(
        fmt::format("\"{}\" of {} is no member of it: only members can be described", key, name_));
  if (rule.is_position && !type.can_be_position())
    throw std::logic_error("position() is for a Vec2, a Rect or an IVec2");
  fields_.push_back({std::string(key), sort, at, &type, rule});
}

FieldTable::FieldTable(std::vector<DescribedField> fields, const void* owner) : fields_(std::move(fields)) {
  for (const DescribedField& field : fields_) add_steps(field, owner);
  for (std::size_t i = 0; i < fields_.size(); ++i) {
    const DescribedField& field = fields_[i];
    if (field.rule.is_position || field.type->has_items()) movable_.push_back(i);
    if (const int parts = field.type->parts(); parts > 0)
      numbers_.push_back(
          {field.key, parts, field.rule.is_position, field.type == &field_type<IVec2>(), &field});
  }
}

// Neighbours in memory that are neighbours in the state too are copied at once.
void FieldTable::add_plain(std::size_t at, std::size_t size) {
  if (!steps_.empty() && !steps_.back().type && steps_.back().at + steps_.back().size == at)
    steps_.back().size += size;
  else
    steps_.push_back({at, size, nullptr, checks_.size()});
}

void FieldTable::add_steps(const DescribedField& field, const void* owner) {
  const bool limited = field.sort == DescribedField::Sort::state && field.rule.limited() &&
                       field.type->as_number(field.in(owner)).has_value();
  if (const auto* const inner = dynamic_cast<const DescribedType*>(field.type)) {
    const FieldTable& table = inner->table(field.in(owner));
    std::size_t check = 0;
    for (const Step& step : table.steps_) {
      if (step.type)
        steps_.push_back({field.at + step.at, step.size, step.type, 0});
      else
        add_plain(field.at + step.at, step.size);
      for (; check < step.end_of_checks; ++check) {
        checks_.push_back(table.checks_[check]);
        checks_.back().at += field.at;
      }
      steps_.back().end_of_checks = checks_.size();
    }
    return;
  }
  if (field.type->plain_size() > 0) {
    add_plain(field.at, field.type->plain_size());
    if (field.type->may_be_broken() || limited) checks_.push_back({field.at, field.type, {}});
  } else {
    steps_.push_back({field.at, 0, field.type, 0});
    if (limited) checks_.push_back({field.at, field.type, {}});
  }
  if (limited) checks_.back().rule = field.rule;
  steps_.back().end_of_checks = checks_.size();
}

void FieldTable::write_state(StateWriter& out, const void* owner) const {
  for (const Step& step : steps_) {
    const void* const from = static_cast<const char*>(owner) + step.at;
    if (step.type)
      step.type->write_state(out, from);
    else
      out.add(from, step.size);
  }
}

void FieldTable::read_state(StateReader& in, void* owner) const {
  std::size_t check = 0;
  for (const Step& step : steps_) {
    void* const to = static_cast<char*>(owner) + step.at;
    if (step.type)
      step.type->read_state(in, to);
    else
      in.take(to, step.size);
    for (; check < step.end_of_checks; ++check) {
      const Check& each = checks_[check];
      const void* const value = static_cast<const char*>(owner) + each.at;
      if (!each.type->is_sound(value)) StateReader::broken();
      if (each.rule.limited() && !each.rule.allows(*each.type->as_number(value))) StateReader::broken();
    }
  }
}

void FieldTable::move_origin(void* owner, const OriginMove& by) const {
  for (const std::size_t index : movable_) {
    const DescribedField& field = fields_[index];
    field.type->move_origin(field.in(owner), field.rule, by);
  }
}

std::shared_ptr<void> DescribedType::make() const {
  const ValueMemory& memory = access_.memory;
  if (!memory.make) throw std::logic_error(fmt::format("{} cannot be made from nothing", name()));
  const auto free = [&memory](void* at) { ::operator delete(at, memory.alignment); };
  std::unique_ptr<void, decltype(free)> room(::operator new(memory.size, memory.alignment), free);
  memory.make(room.get());
  return std::shared_ptr<void>(room.release(), [&memory](void* at) {
    memory.end(at);
    ::operator delete(at, memory.alignment);
  });
}

const FieldTable& DescribedType::table() const {
  const FieldTable* const known = __atomic_load_n(&table_, __ATOMIC_ACQUIRE);
  return known ? *known : make_table(make().get());
}

const FieldTable& DescribedType::make_table(const void* owner) const {
  static std::mutex one_at_a_time;
  static std::deque<FieldTable> all;  // which types point into
  detail::FieldLister lister(owner, size(), name());
  access_.list(lister, const_cast<void*>(owner));  // it looks at addresses alone
  FieldTable made(lister.take(), owner);           // asks for the tables of what is within
  const std::lock_guard lock(one_at_a_time);
  if (const FieldTable* const known = table_) return *known;
  all.push_back(std::move(made));
  __atomic_store_n(&table_, &all.back(), __ATOMIC_RELEASE);
  return all.back();
}

std::size_t DescribedType::give_number() const {
  static std::mutex one_at_a_time;
  static std::size_t next = 0;
  const std::lock_guard lock(one_at_a_time);
  if (number_ == none) __atomic_store_n(&number_, next++, __ATOMIC_RELAXED);
  return number_;
}

void DescribedType::expect_state() const {
  for (const DescribedField& field : table().fields())
    if (!field.type->has_state())
      throw std::logic_error(fmt::format(
          "\"{}\" of {} is of a type that stands in files alone: it cannot be saved", field.key, name()));
}

void DescribedType::read_fields(Reader& reader, void* owner) const {
  for (const DescribedField& field : table(owner).fields()) reader.read(field, owner);
}

void DescribedType::read(const TomlValue& toml, void* value, const FieldRule&, Report& report,
                         TableOf of) const {
  if (access_.only_field && of == TableOf::file) {
    const OnlyFieldOf only = access_.only_field(value);
    return only.type->read(toml, only.field, only.rule, report, of);
  }
  if (!detail::expect(toml, TomlValue::Type::table, "a table", report)) return;
  Reader reader(toml, report, of);
  read_fields(reader, value);
  reader.finish();
}

namespace {

// Calls add(key, type, value) for each key that stands in the table.
template <class Add>
void each_key(const FieldTable& table, const void* owner, const Add& add) {
  for (const DescribedField& field : table.fields()) {
    const void* const value = field.in(owner);
    if (field.sort != DescribedField::Sort::rest) {
      if (field.type->is_there(value)) add(field.key, *field.type, value);
      continue;
    }
    const auto& rest = static_cast<const detail::NamedType&>(*field.type);
    for (std::size_t i = 0; i < rest.count(value); ++i) {
      const auto item = rest.item_at(const_cast<void*>(value), i);
      add(item.name, rest.value_type(), item.value);
    }
  }
}

}  // namespace

std::string DescribedType::to_toml(const void* owner) const {
  TomlText out;
  each_key(table(owner), owner, [&](std::string_view key, const FieldType& type, const void* value) {
    out.add_key(key);
    out.add_plain(" = ");
    type.write(out, value);
    out.add_plain("\n");
  });
  return out.text();
}

std::string DescribedType::to_inline_toml(const void* owner) const {
  TomlText out(TomlText::Layout::one_line);
  write(out, owner);
  return out.text();
}

void DescribedType::write(TomlText& out, const void* value) const {
  const TomlText::Layout around = out.layout();
  out.use(TomlText::Layout::one_line);
  std::string_view before = "{ ";
  each_key(table(value), value, [&](std::string_view key, const FieldType& type, const void* field) {
    out.add_plain(before);
    out.add_key(key);
    out.add_plain(" = ");
    type.write(out, field);
    before = ", ";
  });
  out.add_plain(before == "{ " ? "{  }" : " }");
  out.use(around);
}

TomlValue DescribedType::schema(const FieldRule&) const {
  const std::shared_ptr<void> sample = make();
  if (access_.only_field) {
    const OnlyFieldOf only = access_.only_field(sample.get());
    TomlValue schema = only.type->schema(only.rule);
    if (!only.format.empty()) detail::put(schema, "format", detail::text_toml(only.format));
    return schema;
  }
  TomlValue properties, required;
  required.type = TomlValue::Type::array;
  TomlValue others = detail::yes_no_toml(false);  // of keys that are not listed
  for (const DescribedField& field : table(sample.get()).fields()) {
    if (field.sort == DescribedField::Sort::state) continue;
    if (field.sort == DescribedField::Sort::rest) {
      others = static_cast<const detail::NamedType&>(*field.type).value_type().schema({});
      continue;
    }
    TomlValue schema = field.type->schema(field.rule);
    if (std::optional<TomlValue> usual = field.type->default_toml(field.in(sample.get()));
        usual && !field.rule.required)
      detail::put(schema, "default", std::move(*usual));
    detail::put(properties, field.key, std::move(schema));
    if (field.rule.required) required.items.push_back(detail::text_toml(field.key));
  }
  TomlValue schema = detail::type_schema("object");
  detail::put(schema, "properties", std::move(properties));
  if (!required.items.empty()) detail::put(schema, "required", std::move(required));
  detail::put(schema, "additionalProperties", std::move(others));
  return schema;
}

void DescribedType::visit_all(const FieldType& wanted, void* value,
                              const std::function<void(void*)>& visit) const {
  if (this == &wanted) return visit(value);
  for (const DescribedField& field : table(value).fields())
    field.type->visit_all(wanted, field.in(value), visit);
}

}  // namespace vole
