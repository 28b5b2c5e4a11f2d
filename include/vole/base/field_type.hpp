// What can be done with a field, by its type alone: reading, writing, state, schema and the rest ask this one object, and know
// nothing of the type themselves.
//
//   const FieldType& type = field_type<Vec2>();
//   type.write_state(out, &pose.at);
//
// A type of field is added here: a class derived from FieldType, and a type_of() that returns the one of it.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"

namespace vole {

struct OriginMove;
class Random;
class StateReader;
class StateWriter;
class TomlText;

// What a table is: part of a file that a person wrote, or of a written state. A state holds state fields too, and its values may be beyond the
// limits for files, where the game has put them there.
enum class TableOf : std::uint8_t { file, state };

class FieldType {
 public:
  constexpr FieldType() = default;
  FieldType(const FieldType&) = delete;
  FieldType& operator=(const FieldType&) = delete;

  // From TOML: what is wrong goes to the report, and then the value stays as it is, or is in part as it was read.
  virtual void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
                    TableOf of) const = 0;
  virtual void write(TomlText& out, const void* value) const = 0;
  // As bytes, and back. Reading throws Error for bytes that no program writes.
  virtual void write_state(StateWriter& out, const void* value) const = 0;
  virtual void read_state(StateReader& in, void* value) const = 0;
  virtual TomlValue schema(const FieldRule& rule) const = 0;

  // Whether it can be saved at all: what stands in files alone cannot.
  virtual bool has_state() const { return true; }
  // False for what is written by leaving it out.
  virtual bool is_there(const void*) const { return true; }
  // How many bytes it has in a state where these are the ones that it has in memory; 0 where they are others.
  virtual std::size_t plain_size() const { return 0; }
  // Whether such bytes, once they are there, may be no value; and whether they are one.
  virtual bool may_be_broken() const { return false; }
  virtual bool is_sound(const void*) const { return true; }
  // A number by its value.
  virtual std::optional<double> as_number(const void*) const { return std::nullopt; }
  // The default that a schema tells, where it does.
  virtual std::optional<TomlValue> default_toml(const void* value) const;

  // What can be reckoned with: 1 part for a number, 2 for a pair, 4 for a colour (red, green, blue and alpha up to 255).
  virtual int parts() const { return 0; }
  virtual Vec4 parts_of(const void* value) const;
  // Brought within what the field may be; whole numbers are rounded.
  virtual void put_parts(void* value, Vec4 parts, const FieldRule& rule) const;
  virtual std::size_t size() const { return plain_size(); }

  // Whether it consists of values: a list, a struct.
  virtual bool has_items() const { return false; }
  // Calls visit for itself if it is of this type, or else for each value of that type within it, however deep.
  virtual void visit_all(const FieldType& wanted, void* value, const std::function<void(void*)>& visit) const;
  // Whether position() makes sense for it; and moves it where the rule says it is one, or what is one within it.
  virtual bool can_be_position() const { return false; }
  virtual void move_origin(void*, const FieldRule&, const OriginMove&) const {}

 protected:
  constexpr ~FieldType() = default;
};

// The one of a type; for any that a field may have, with described_type.hpp.
template <class T>
const FieldType& field_type();

namespace detail {

template <class T>
struct Tag {};

const FieldType& type_of(Tag<bool>);
const FieldType& type_of(Tag<signed char>);
const FieldType& type_of(Tag<unsigned char>);
const FieldType& type_of(Tag<short>);
const FieldType& type_of(Tag<unsigned short>);
const FieldType& type_of(Tag<int>);
const FieldType& type_of(Tag<unsigned>);
const FieldType& type_of(Tag<long>);
const FieldType& type_of(Tag<unsigned long>);
const FieldType& type_of(Tag<long long>);
const FieldType& type_of(Tag<unsigned long long>);
const FieldType& type_of(Tag<float>);
const FieldType& type_of(Tag<double>);
const FieldType& type_of(Tag<std::string>);
const FieldType& type_of(Tag<Vec2>);
const FieldType& type_of(Tag<IVec2>);
const FieldType& type_of(Tag<Vec4>);
const FieldType& type_of(Tag<Rect>);
const FieldType& type_of(Tag<IRect>);
const FieldType& type_of(Tag<Colour>);
const FieldType& type_of(Tag<Entity>);
const FieldType& type_of(Tag<Random>);
const FieldType& type_of(Tag<TomlValue>);

using GetType = const FieldType& (*)();

// What is within a value of another type: a list's items, what is optional, what has a place in the file.
class HolderType : public FieldType {
 public:
  // The type is asked for when it is needed first, since a struct may hold lists of its own type.
  explicit constexpr HolderType(GetType get_item) : get_item_(get_item) {}
  bool has_state() const override { return item().has_state(); }
  bool has_items() const override { return true; }
  bool can_be_position() const override { return item().can_be_position(); }

 protected:
  const FieldType& item() const { return get_item_(); }

 private:
  GetType get_item_;
};

// The items of a list, one after the other in memory.
struct ListItems {
  void* first;
  std::size_t count;
};
constexpr std::size_t as_many_as_there_are = ~std::size_t{0};
struct ListAccess {
  std::size_t item_size;
  // The items of a list; before that it gets so many new ones, where a count is given.
  ListItems (*items)(void* list, std::size_t new_count);
};
template <class T>
ListItems list_items(void* list, std::size_t new_count) {
  auto& items = *static_cast<std::vector<T>*>(list);
  if (new_count != as_many_as_there_are) {
    items.clear();
    items.resize(new_count);
  }
  return {items.data(), items.size()};
}

class ListType final : public HolderType {
 public:
  constexpr ListType(GetType get_item, const ListAccess& access) : HolderType(get_item), access_(access) {}
  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  void write_state(StateWriter&, const void*) const override;
  void read_state(StateReader&, void*) const override;
  TomlValue schema(const FieldRule&) const override;
  void visit_all(const FieldType&, void*, const std::function<void(void*)>&) const override;
  void move_origin(void*, const FieldRule&, const OriginMove&) const override;

 private:
  ListAccess access_;
};

class ArrayType final : public HolderType {
 public:
  constexpr ArrayType(GetType get_item, std::size_t item_size, std::size_t count)
      : HolderType(get_item), item_size_(item_size), count_(count) {}
  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  void write_state(StateWriter&, const void*) const override;
  void read_state(StateReader&, void*) const override;
  TomlValue schema(const FieldRule&) const override;
  void visit_all(const FieldType&, void*, const std::function<void(void*)>&) const override;
  void move_origin(void*, const FieldRule&, const OriginMove&) const override;

 private:
  std::size_t item_size_, count_;
};

// A table with keys of the writer's choice: a list of NamedItem.
class NamedType final : public HolderType {
 public:
  constexpr NamedType(GetType get_item, const ListAccess& access, std::size_t value_at)
      : HolderType(get_item), access_(access), value_at_(value_at) {}
  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  void write_state(StateWriter&, const void*) const override;
  void read_state(StateReader&, void*) const override;
  TomlValue schema(const FieldRule&) const override;
  void visit_all(const FieldType&, void*, const std::function<void(void*)>&) const override;
  void move_origin(void*, const FieldRule&, const OriginMove&) const override;

  // For what takes the keys that a struct does not list.
  struct Item {
    std::string& name;
    FilePosition& where;
    void* value;
  };
  void make_items(void* list, std::size_t new_count) const { access_.items(list, new_count); }
  std::size_t count(const void* list) const;
  Item item_at(void* list, std::size_t index) const;
  const FieldType& value_type() const { return item(); }

 private:
  ListAccess access_;
  std::size_t value_at_;  // in an item
};

struct OptionalAccess {
  enum class Ask : std::uint8_t { find, make, reset };
  // nullptr where there is none.
  void* (*value)(void* optional, Ask ask);
};
template <class T>
void* optional_value(void* value, OptionalAccess::Ask ask) {
  auto& optional = *static_cast<std::optional<T>*>(value);
  if (ask == OptionalAccess::Ask::make) optional.emplace();
  if (ask == OptionalAccess::Ask::reset) optional.reset();
  return optional ? &*optional : nullptr;
}
class OptionalType final : public HolderType {
 public:
  constexpr OptionalType(GetType get_item, const OptionalAccess& access)
      : HolderType(get_item), access_(access) {}
  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  void write_state(StateWriter&, const void*) const override;
  void read_state(StateReader&, void*) const override;
  TomlValue schema(const FieldRule& rule) const override;
  bool is_there(const void* value) const override;
  void visit_all(const FieldType&, void*, const std::function<void(void*)>&) const override;
  void move_origin(void*, const FieldRule&, const OriginMove&) const override;

 private:
  const void* find(const void* value) const;

  OptionalAccess access_;
};

class LocatedType final : public HolderType {
 public:
  constexpr LocatedType(GetType get_item, std::size_t where_at) : HolderType(get_item), where_at_(where_at) {}
  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  void write_state(StateWriter&, const void*) const override;
  void read_state(StateReader&, void*) const override;
  TomlValue schema(const FieldRule& rule) const override;
  void visit_all(const FieldType&, void*, const std::function<void(void*)>&) const override;
  void move_origin(void*, const FieldRule&, const OriginMove&) const override;

 private:
  FilePosition& where(void* located) const;

  std::size_t where_at_;  // the value itself comes first
};

// One of several words.
class ChoiceType final : public FieldType {
 public:
  constexpr ChoiceType(const std::string_view* names, std::size_t count, std::size_t size)
      : names_(names), count_(count), size_(size) {}
  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  void write_state(StateWriter&, const void*) const override;
  void read_state(StateReader&, void*) const override;
  TomlValue schema(const FieldRule&) const override;
  std::size_t plain_size() const override { return size_; }
  bool may_be_broken() const override { return true; }
  bool is_sound(const void* value) const override { return index(value) < count_; }

 private:
  std::uint64_t index(const void* value) const;

  std::vector<std::string> names() const;

  const std::string_view* names_;
  std::size_t count_;
  std::size_t size_;
};

// A type that is in files alone and has a read_field of its own; a schema_field, and a write_field if it is written too.
struct OwnAccess {
  void (*read)(const TomlValue& toml, void* value, const FieldRule& rule, Report& report);
  TomlValue (*schema)(const FieldRule& rule);       // nullptr: it has none
  void (*write)(TomlText& out, const void* value);  // the same
};
class OwnType final : public FieldType {
 public:
  explicit constexpr OwnType(const OwnAccess& access) : access_(access) {}
  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  [[noreturn]] void write_state(StateWriter&, const void*) const override;
  [[noreturn]] void read_state(StateReader&, void*) const override;
  TomlValue schema(const FieldRule&) const override;
  bool has_state() const override { return false; }

 private:
  OwnAccess access_;
};

template <class T>
concept OwnField = requires(const TomlValue& toml, T& value, const FieldRule& rule, Report& report) {
  read_field(toml, value, rule, report);
};

template <class T>
constexpr OwnAccess own_access() {
  OwnAccess access{[](const TomlValue& toml, void* value, const FieldRule& rule, Report& report) {
                     read_field(toml, *static_cast<T*>(value), rule, report);
                   },
                   nullptr, nullptr};
  if constexpr (requires(const FieldRule& rule) { schema_field(T{}, rule); })
    access.schema = [](const FieldRule& rule) { return schema_field(T{}, rule); };
  if constexpr (requires(TomlText & out, const T& value) { write_field(out, value); })
    access.write = [](TomlText& out, const void* value) { write_field(out, *static_cast<const T*>(value)); };
  return access;
}

// The words of an enum, as texts that stay.
template <class T>
inline constexpr auto choice_names = [] {
  constexpr auto names = enum_names(T{});
  std::array<std::string_view, names.size()> texts;
  for (std::size_t i = 0; i < names.size(); ++i) texts[i] = names[i];
  return texts;
}();

// The one of each type. All are made before the program runs, so none is asked for too early.
template <class T>
struct TypeOf;
template <class T>
struct TypeOf<std::vector<T>> {
  static constinit inline ListType type{&field_type<T>, {sizeof(T), &list_items<T>}};
};
template <class T>
struct TypeOf<Named<T>> {
  static constexpr std::size_t value_at() {
    constexpr std::size_t head = sizeof(std::string) + sizeof(FilePosition);
    return (head + alignof(T) - 1) / alignof(T) * alignof(T);
  }
  static constinit inline NamedType type{
      &field_type<T>, {sizeof(NamedItem<T>), &list_items<NamedItem<T>>}, value_at()};
};
template <class T, std::size_t count>
struct TypeOf<std::array<T, count>> {
  static constinit inline ArrayType type{&field_type<T>, sizeof(T), count};
};
template <class T>
struct TypeOf<std::optional<T>> {
  static constinit inline OptionalType type{&field_type<T>, {&optional_value<T>}};
};
template <class T>
struct TypeOf<Located<T>> {
  static constexpr std::size_t where_at() {
    return (sizeof(T) + alignof(FilePosition) - 1) / alignof(FilePosition) * alignof(FilePosition);
  }
  static constinit inline LocatedType type{&field_type<T>, where_at()};
};

}  // namespace detail

}  // namespace vole
