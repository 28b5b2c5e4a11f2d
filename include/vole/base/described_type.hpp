// A described struct, once its description has been asked: its fields by name and place, and all that comes from them.
//
//   const DescribedType& type = described_type<Harvest>();
//   std::shared_ptr<void> harvest = type.make();
//   type.read(toml, harvest.get(), {}, report, TableOf::file);
#pragma once

#include <memory>
#include <new>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "vole/base/field_type.hpp"

namespace vole {

class Reader;

// The name of a type as its source has it, for messages: "Harvest".
template <class T>
constexpr std::string_view type_name() {
  // Both compilers write "... [T = Harvest]" or "[with T = Harvest; ...]".
  std::string_view text = __PRETTY_FUNCTION__;
  text.remove_prefix(text.find("T = ") + 4);
  text = text.substr(0, text.find_first_of(";]"));
  // Without its namespace.
  const std::size_t scope =
      text.find('<') == std::string_view::npos ? text.rfind("::") : std::string_view::npos;
  return scope == std::string_view::npos ? text : text.substr(scope + 2);
}

struct DescribedField {
  enum class Sort : std::uint8_t { file, state, rest };

  std::string key;
  Sort sort = Sort::file;
  std::size_t at = 0;  // bytes from the start of the struct
  const FieldType* type = nullptr;
  FieldRule rule;

  void* in(void* owner) const { return static_cast<char*>(owner) + at; }
  const void* in(const void* owner) const { return static_cast<const char*>(owner) + at; }
};

// A field that can be reckoned with: see field.hpp.
struct FieldInfo {
  std::string name;
  int parts = 0;             // 1: a number, 2: a pair, 4: a colour
  bool is_position = false;  // in pixels, or, of a pair of whole numbers, in cells
  bool in_cells = false;
  const DescribedField* field = nullptr;
};

namespace detail {

// Given to a description, gathers its fields.
class FieldLister {
 public:
  FieldLister(const void* owner, std::size_t size, std::string_view name);
  ~FieldLister();
  FieldLister(const FieldLister&) = delete;
  FieldLister& operator=(const FieldLister&) = delete;

  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& rule = {}) {
    add(key, DescribedField::Sort::file, &field, sizeof field, field_type<T>(), rule);
  }
  template <class T>
  void state(std::string_view key, T& field, const FieldRule& rule = {}) {
    add(key, DescribedField::Sort::state, &field, sizeof field, field_type<T>(), rule);
  }
  template <class T>
  void rest(Named<T>& fields) {
    add({}, DescribedField::Sort::rest, &fields, sizeof fields, field_type<Named<T>>(), {});
  }

  std::vector<DescribedField> take();

 private:
  void add(std::string_view key, DescribedField::Sort sort, const void* field, std::size_t size,
           const FieldType& type, const FieldRule& rule);

  const char* owner_;
  std::size_t size_;
  std::string_view name_;
  std::vector<DescribedField> fields_;
};

}  // namespace detail

// The fields of a struct in the order of its description, and how they are saved.
class FieldTable {
 public:
  // `owner` is any value of the type.
  FieldTable(std::vector<DescribedField> fields, const void* owner);

  const std::vector<DescribedField>& fields() const { return fields_; }
  const std::vector<FieldInfo>& numbers() const { return numbers_; }
  void write_state(StateWriter& out, const void* owner) const;
  void read_state(StateReader& in, void* owner) const;
  void move_origin(void* owner, const OriginMove& by) const;

 private:
  // Bytes that are saved as they lie in memory, or a field whose type does it.
  struct Step {
    std::size_t at = 0;
    std::size_t size = 0;
    const FieldType* type = nullptr;
    std::size_t end_of_checks = 0;  // those of this step come before
  };
  // What may be no value, or beyond its limits.
  struct Check {
    std::size_t at = 0;
    const FieldType* type = nullptr;
    FieldRule rule;
  };

  void add_steps(const DescribedField& field, const void* owner);
  void add_plain(std::size_t at, std::size_t size);

  std::vector<DescribedField> fields_;
  std::vector<Step> steps_;
  std::vector<Check> checks_;
  std::vector<std::size_t> movable_;  // fields that hold places in the level
  std::vector<FieldInfo> numbers_;
};

// The only field, for a struct that stands in files as that.
struct OnlyFieldOf {
  void* field = nullptr;
  const FieldType* type = nullptr;
  FieldRule rule;
  std::string_view format;
};

// How values of a type are made and ended in memory.
struct ValueMemory {
  std::size_t size;
  std::align_val_t alignment;
  void (*make)(void* at);  // nullptr: it cannot be made from nothing
  void (*end)(void* at);
};

class DescribedType final : public FieldType {
 public:
  struct Access {
    std::string_view name;
    ValueMemory memory;
    void (*list)(detail::FieldLister& lister, void* owner);  // its description
    OnlyFieldOf (*only_field)(void* owner);                  // nullptr: it stands in files as a table
  };
  explicit constexpr DescribedType(const Access& access) : access_(access) {}

  std::string_view name() const { return access_.name; }  // in C++
  std::size_t size() const override { return access_.memory.size; }
  const ValueMemory& memory() const { return access_.memory; }
  // Throws std::logic_error for a type without a default constructor; so does table() without an owner.
  std::shared_ptr<void> make() const;
  const FieldTable& table() const;
  // `owner` is any value of this type.
  const FieldTable& table(const void* owner) const {
    const FieldTable* const known = __atomic_load_n(&table_, __ATOMIC_ACQUIRE);
    return known ? *known : make_table(owner);
  }
  // Its own, small, by the order in which types were first asked for theirs: nothing that a game can see depends on it.
  std::size_t number() const {
    const std::size_t known = __atomic_load_n(&number_, __ATOMIC_RELAXED);
    return known != none ? known : give_number();
  }
  // Throws std::logic_error, with the field's name, where one is in files alone.
  void expect_state() const;

  // All but what it is read from: its keys may be those of a larger table.
  void read_fields(Reader& reader, void* owner) const;
  // The lines of a table; and on one line, as "{ worth = 1 }".
  std::string to_toml(const void* owner) const;
  std::string to_inline_toml(const void* owner) const;

  void read(const TomlValue&, void*, const FieldRule&, Report&, TableOf) const override;
  void write(TomlText&, const void*) const override;
  void write_state(StateWriter& out, const void* owner) const override {
    table(owner).write_state(out, owner);
  }
  void read_state(StateReader& in, void* owner) const override { table(owner).read_state(in, owner); }
  TomlValue schema(const FieldRule&) const override;
  bool has_items() const override { return true; }
  void visit_all(const FieldType&, void*, const std::function<void(void*)>&) const override;
  void move_origin(void* owner, const FieldRule&, const OriginMove& by) const override {
    table(owner).move_origin(owner, by);
  }

 private:
  static constexpr std::size_t none = ~std::size_t{0};

  const FieldTable& make_table(const void* owner) const;
  std::size_t give_number() const;

  Access access_;
  // Threads may ask at once. By the compiler's own loads and stores: <atomic> would be a tenth of what including vole.hpp costs.
  mutable std::size_t number_ = none;
  mutable const FieldTable* table_ = nullptr;  // once it was asked for
};

namespace detail {

template <class T>
concept WrittenAsOne = requires(T& value) {
  one_field(value).field;
};

template <class T>
void list_fields(FieldLister& lister, void* owner) {
  describe(lister, *static_cast<T*>(owner));
}
template <class T>
void make_value(void* at) {
  new (at) T();
}
template <class T>
void end_value(void* at) {
  static_cast<T*>(at)->~T();
}
template <class T>
OnlyFieldOf only_field(void* owner) {
  auto only = one_field(*static_cast<T*>(owner));
  using Field = std::remove_reference_t<decltype(only.field)>;
  return {&only.field, &field_type<Field>(), only.rule, only.format};
}

template <class T>
constexpr DescribedType::Access described_access() {
  DescribedType::Access access{type_name<T>(),
                               {sizeof(T), std::align_val_t{alignof(T)}, nullptr, &end_value<T>},
                               &list_fields<T>,
                               nullptr};
  if constexpr (std::is_default_constructible_v<T>) access.memory.make = &make_value<T>;
  if constexpr (WrittenAsOne<T>) access.only_field = &only_field<T>;
  return access;
}

template <class T>
requires NamedEnum<T>
struct TypeOf<T> {
  static constinit inline ChoiceType type{choice_names<T>.data(), choice_names<T>.size(), sizeof(T)};
};
template <class T>
requires(Described<T> && !NamedEnum<T>) struct TypeOf<T> {
  static constinit inline DescribedType type{described_access<T>()};
};
template <class T>
requires(OwnField<T> && !Described<T> && !NamedEnum<T>) struct TypeOf<T> {
  static constinit inline OwnType type{own_access<T>()};
};

template <class T>
concept BasicField = requires {
  type_of(Tag<T>{});
};

// For the messages of what does not compile: false for every type, but only once it is known.
template <class>
inline constexpr bool never = false;
// Declared for what is not compiled any further, and never defined.
const DescribedType& no_type();

}  // namespace detail

template <class T>
const FieldType& field_type() {
  if constexpr (detail::BasicField<T>) {
    return type_of(detail::Tag<T>{});
  } else if constexpr (requires { detail::TypeOf<T>::type; }) {
    return detail::TypeOf<T>::type;
  } else {
    static_assert(
        detail::never<T>,
        "a field of this type can be neither read nor saved: describe its struct, or hold numbers, texts, "
        "vectors, an Entity, or a std::vector or Named of these");
    return detail::no_type();
  }
}

// One for each type: two are of the same type when their addresses are equal.
template <class T>
const DescribedType& described_type() {
  if constexpr (Described<T>) {
    return detail::TypeOf<T>::type;
  } else {
    static_assert(detail::never<T>,
                  "this struct is not described: write beside it, before it is used, template <class V> void "
                  "describe(V& "
                  "v, MyStruct& it) { v(\"speed\", it.speed); }");
    return detail::no_type();
  }
}

}  // namespace vole
