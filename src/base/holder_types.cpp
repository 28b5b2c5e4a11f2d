// Fields that hold values of another type: lists, tables with keys of the writer's choice, what may be missing, what has a place
// in its file. Words and types with a reading of their own are here too.
#include <fmt/core.h>

#include <algorithm>
#include <cstring>
#include <stdexcept>

#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"

namespace vole {

namespace detail {
namespace {

char* at(void* items, std::size_t index, std::size_t size) {
  return static_cast<char*>(items) + index * size;
}
const char* at(const void* items, std::size_t index, std::size_t size) {
  return static_cast<const char*>(items) + index * size;
}
ListItems items_of(const ListAccess& access, const void* list) {
  return access.items(const_cast<void*>(list), as_many_as_there_are);  // then nothing is changed
}

// A text that keeps its position is a name, unless its field says otherwise.
FieldRule rule_of_name(const FieldRule& rule) {
  FieldRule its = rule;
  if (its.empty_text == EmptyText::usual) its.empty_text = EmptyText::refused;
  return its;
}

// Items that lie in memory as they do in a state.
bool lie_alike(const FieldType& item, std::size_t size) {
  return item.plain_size() == size;
}

void write_items(StateWriter& out, const void* items, std::size_t count, std::size_t size,
                 const FieldType& item) {
  if (lie_alike(item, size)) return out.add(items, count * size);
  for (std::size_t i = 0; i < count; ++i) item.write_state(out, at(items, i, size));
}

void read_items(StateReader& in, void* items, std::size_t count, std::size_t size, const FieldType& item) {
  if (lie_alike(item, size) && !item.may_be_broken()) return in.take(items, count * size);
  for (std::size_t i = 0; i < count; ++i) item.read_state(in, at(items, i, size));
}

// One item a line where there are many.
void add_items(TomlText& out, const void* items, std::size_t count, std::size_t size, const FieldType& item) {
  const bool one_a_line = out.layout() == TomlText::Layout::lines && count > 4;
  out.add_plain("[");
  for (std::size_t i = 0; i < count; ++i) {
    if (i > 0) out.add_plain(one_a_line ? "," : ", ");
    if (one_a_line) out.add_plain("\n  ");
    item.write(out, at(items, i, size));
  }
  out.add_plain(one_a_line ? ",\n]" : "]");
}

}  // namespace

void ListType::read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
                    TableOf of) const {
  if (!expect(toml, TomlValue::Type::array, "a list", report)) return;
  if (!check_items(toml, rule, of, report)) return;
  const ListItems items = access_.items(value, toml.items.size());
  for (std::size_t i = 0; i < items.count; ++i)
    item().read(toml.items[i], at(items.first, i, access_.item_size), rule, report, of);
}
void ListType::write(TomlText& out, const void* value) const {
  const ListItems items = items_of(access_, value);
  add_items(out, items.first, items.count, access_.item_size, item());
}
void ListType::write_state(StateWriter& out, const void* value) const {
  const ListItems items = items_of(access_, value);
  out.add_count(items.count);
  write_items(out, items.first, items.count, access_.item_size, item());
}
void ListType::read_state(StateReader& in, void* value) const {
  const ListItems items = access_.items(value, in.take_count());
  read_items(in, items.first, items.count, access_.item_size, item());
}
TomlValue ListType::schema(const FieldRule& rule) const {
  TomlValue schema = type_schema("array");
  put(schema, "items", item().schema(rule));
  put(schema, "maxItems", number_toml(static_cast<double>(rule.most_items), true));
  return schema;
}
void ListType::visit_all(const FieldType& wanted, void* value,
                         const std::function<void(void*)>& visit) const {
  if (this == &wanted) return visit(value);
  const ListItems items = items_of(access_, value);
  for (std::size_t i = 0; i < items.count; ++i)
    item().visit_all(wanted, at(items.first, i, access_.item_size), visit);
}
void ListType::move_origin(void* value, const FieldRule& rule, const OriginMove& by) const {
  const ListItems items = items_of(access_, value);
  for (std::size_t i = 0; i < items.count; ++i)
    item().move_origin(at(items.first, i, access_.item_size), rule, by);
}

void ArrayType::read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
                     TableOf of) const {
  if (!expect(toml, TomlValue::Type::array, "a list", report)) return;
  if (toml.items.size() != count_)
    return report.error(toml.where, fmt::format("{} items wanted here, not {}", count_, toml.items.size()));
  for (std::size_t i = 0; i < count_; ++i)
    item().read(toml.items[i], at(value, i, item_size_), rule, report, of);
}
void ArrayType::write(TomlText& out, const void* value) const {
  add_items(out, value, count_, item_size_, item());
}
void ArrayType::write_state(StateWriter& out, const void* value) const {
  write_items(out, value, count_, item_size_, item());
}
void ArrayType::read_state(StateReader& in, void* value) const {
  read_items(in, value, count_, item_size_, item());
}
TomlValue ArrayType::schema(const FieldRule& rule) const {
  return tuple_schema(item().schema(rule), static_cast<int>(count_));
}
void ArrayType::visit_all(const FieldType& wanted, void* value,
                          const std::function<void(void*)>& visit) const {
  if (this == &wanted) return visit(value);
  for (std::size_t i = 0; i < count_; ++i) item().visit_all(wanted, at(value, i, item_size_), visit);
}
void ArrayType::move_origin(void* value, const FieldRule& rule, const OriginMove& by) const {
  for (std::size_t i = 0; i < count_; ++i) item().move_origin(at(value, i, item_size_), rule, by);
}

namespace {

// Name and position come first in every NamedItem, whatever its value.
struct ItemHead {
  std::string name;
  FilePosition where;
};

}  // namespace

std::size_t NamedType::count(const void* list) const {
  return items_of(access_, list).count;
}
NamedType::Item NamedType::item_at(void* list, std::size_t index) const {
  char* const item = at(items_of(access_, list).first, index, access_.item_size);
  auto& head = *reinterpret_cast<ItemHead*>(item);
  return {head.name, head.where, item + value_at_};
}
void NamedType::read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
                     TableOf of) const {
  if (!expect(toml, TomlValue::Type::table, "a table", report)) return;
  if (!check_items(toml, rule, of, report)) return;
  access_.items(value, toml.entries.size());
  for (std::size_t i = 0; i < toml.entries.size(); ++i) {
    const Item each = item_at(value, i);
    each.name = toml.entries[i].key;
    each.where = toml.entries[i].where;
    item().read(toml.entries[i].value, each.value, rule, report, of);
  }
}
void NamedType::write(TomlText& out, const void* value) const {
  out.add_plain("{ ");
  for (std::size_t i = 0; i < count(value); ++i) {
    const Item each = item_at(const_cast<void*>(value), i);
    if (i > 0) out.add_plain(", ");
    out.add_key(each.name);
    out.add_plain(" = ");
    item().write(out, each.value);
  }
  out.add_plain(" }");
}
void NamedType::write_state(StateWriter& out, const void* value) const {
  out.add_count(count(value));
  for (std::size_t i = 0; i < count(value); ++i) {
    const Item each = item_at(const_cast<void*>(value), i);
    type_of(Tag<std::string>{}).write_state(out, &each.name);
    item().write_state(out, each.value);
  }
}
void NamedType::read_state(StateReader& in, void* value) const {
  const std::size_t items = in.take_count();
  access_.items(value, items);
  for (std::size_t i = 0; i < items; ++i) {
    const Item each = item_at(value, i);
    type_of(Tag<std::string>{}).read_state(in, &each.name);
    item().read_state(in, each.value);
  }
}
TomlValue NamedType::schema(const FieldRule& rule) const {
  TomlValue schema = type_schema("object");
  put(schema, "additionalProperties", item().schema(rule));
  put(schema, "maxProperties", number_toml(static_cast<double>(rule.most_items), true));
  return schema;
}
void NamedType::visit_all(const FieldType& wanted, void* value,
                          const std::function<void(void*)>& visit) const {
  if (this == &wanted) return visit(value);
  for (std::size_t i = 0; i < count(value); ++i) item().visit_all(wanted, item_at(value, i).value, visit);
}
void NamedType::move_origin(void* value, const FieldRule& rule, const OriginMove& by) const {
  for (std::size_t i = 0; i < count(value); ++i) item().move_origin(item_at(value, i).value, rule, by);
}

const void* OptionalType::find(const void* value) const {
  return access_.value(const_cast<void*>(value), OptionalAccess::Ask::find);
}
bool OptionalType::is_there(const void* value) const {
  return find(value) != nullptr;
}
void OptionalType::read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
                        TableOf of) const {
  item().read(toml, access_.value(value, OptionalAccess::Ask::make), rule, report, of);
}
void OptionalType::write(TomlText& out, const void* value) const {
  const void* const held = find(value);
  if (!held) throw std::logic_error("what is missing cannot stand in a list: TOML has no word for it");
  item().write(out, held);
}
void OptionalType::write_state(StateWriter& out, const void* value) const {
  const void* const held = find(value);
  const bool is_there = held != nullptr;
  out.add(&is_there, sizeof is_there);
  if (held) item().write_state(out, held);
}
void OptionalType::read_state(StateReader& in, void* value) const {
  bool is_there = false;
  type_of(Tag<bool>{}).read_state(in, &is_there);
  if (!is_there) return void(access_.value(value, OptionalAccess::Ask::reset));
  void* const held = access_.value(value, OptionalAccess::Ask::find);
  item().read_state(in, held ? held : access_.value(value, OptionalAccess::Ask::make));
}
TomlValue OptionalType::schema(const FieldRule& rule) const {
  return item().schema(rule);
}
void OptionalType::visit_all(const FieldType& wanted, void* value,
                             const std::function<void(void*)>& visit) const {
  if (this == &wanted) return visit(value);
  if (void* const held = access_.value(value, OptionalAccess::Ask::find))
    item().visit_all(wanted, held, visit);
}
void OptionalType::move_origin(void* value, const FieldRule& rule, const OriginMove& by) const {
  if (void* const held = access_.value(value, OptionalAccess::Ask::find)) item().move_origin(held, rule, by);
}

FilePosition& LocatedType::where(void* located) const {
  return *reinterpret_cast<FilePosition*>(static_cast<char*>(located) + where_at_);
}
void LocatedType::read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
                       TableOf of) const {
  where(value) = toml.where;
  item().read(toml, value, rule_of_name(rule), report, of);
}
void LocatedType::write(TomlText& out, const void* value) const {
  item().write(out, value);
}
void LocatedType::write_state(StateWriter& out, const void* value) const {
  item().write_state(out, value);
}
void LocatedType::read_state(StateReader& in, void* value) const {
  where(value) = {};
  item().read_state(in, value);
}
TomlValue LocatedType::schema(const FieldRule& rule) const {
  return item().schema(rule_of_name(rule));
}
void LocatedType::visit_all(const FieldType& wanted, void* value,
                            const std::function<void(void*)>& visit) const {
  if (this == &wanted) return visit(value);
  item().visit_all(wanted, value, visit);
}
void LocatedType::move_origin(void* value, const FieldRule& rule, const OriginMove& by) const {
  item().move_origin(value, rule, by);
}

std::vector<std::string> ChoiceType::names() const {
  return {names_, names_ + count_};
}
std::uint64_t ChoiceType::index(const void* value) const {
  std::uint64_t index = 0;
  if (size_ == 1) {
    index = *static_cast<const std::uint8_t*>(value);
  } else {
    std::uint32_t wide = 0;
    std::memcpy(&wide, value, std::min(sizeof wide, size_));
    index = wide;
  }
  return index;
}
void ChoiceType::read(const TomlValue& toml, void* value, const FieldRule&, Report& report, TableOf) const {
  if (!expect(toml, TomlValue::Type::text, "a word in quotes", report)) return;
  std::uint64_t index = 0;
  while (index < count_ && names_[index] != toml.text) ++index;
  if (index == count_)
    return report.error(toml.where, fmt::format("unknown word \"{}\"", toml.text),
                        did_you_mean(toml.text, names()));
  std::memcpy(value, &index, size_);
}
void ChoiceType::write(TomlText& out, const void* value) const {
  out.add(is_sound(value) ? names_[index(value)] : std::string_view());
}
void ChoiceType::write_state(StateWriter& out, const void* value) const {
  out.add(value, size_);
}
void ChoiceType::read_state(StateReader& in, void* value) const {
  in.take(value, size_);
  if (!is_sound(value)) StateReader::broken();
}
TomlValue ChoiceType::schema(const FieldRule&) const {
  return choice_schema(names());
}

void OwnType::read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report, TableOf) const {
  access_.read(toml, value, rule, report);
}
TomlValue OwnType::schema(const FieldRule& rule) const {
  if (!access_.schema) throw std::logic_error("a type with a read_field of its own has no schema_field");
  return access_.schema(rule);
}
void OwnType::write(TomlText& out, const void* value) const {
  if (!access_.write) throw std::logic_error("a type with a read_field of its own has no write_field");
  access_.write(out, value);
}
void OwnType::write_state(StateWriter&, const void*) const {
  throw std::logic_error("a type with a read_field of its own stands in files alone: it has no state");
}
void OwnType::read_state(StateReader&, void*) const {
  throw std::logic_error("a type with a read_field of its own stands in files alone: it has no state");
}

}  // namespace detail
}  // namespace vole
