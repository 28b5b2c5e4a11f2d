// Described once: list a struct's fields in one place, and read, check, write and hash it from that list.
//
//   struct Bulb { int worth = 1; float ripe = 0; };
//   template <class V> void describe(V& v, Bulb& b) {
//     v("worth", b.worth, within(1, 100));   // a field of the file, with its limits
//     v.state("ripe", b.ripe);               // changes while the game runs: saved and hashed, not in files
//   }
//
//   Bulb bulb;
//   read(node, bulb, report);                // unknown keys and wrong types go to the report
//   Hash hash;  add_to(hash, bulb);
//   std::string toml = to_toml(bulb);
//
// A field may be a bool, a number, a std::string, Vec2, IVec2, IRect, Colour, an enum with enum_names,
// another described struct, std::vector or std::optional of these, Named (a table with keys of the writer's
// choice), Located (a value that keeps its place), a Node (left as it is), or a type with its own read_field.
#pragma once

#include <array>
#include <cmath>
#include <cstdint>
#include <limits>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/error.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/node.hpp"
#include "vole/base/rect.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// What must hold for a field. For a Vec2 the limits hold for each part, for a list for each item.
struct FieldRule {
  bool required = false;
  double least = -std::numeric_limits<double>::max();
  double most = std::numeric_limits<double>::max();

  constexpr FieldRule within(double from, double to) const { return {required, from, to}; }
};

// The file must have this field.
constexpr FieldRule needed() {
  return {true};
}
constexpr FieldRule within(double least, double most) {
  return FieldRule{}.within(least, most);
}

// A value with the place it was read from, for messages about it later on.
template <class T>
struct Located {
  T value{};
  Place place;
};

// A table whose keys the writer of the file chooses, in the order of the file.
template <class T>
struct NamedItem {
  std::string name;
  Place place;  // of the name
  T value{};
};
template <class T>
using Named = std::vector<NamedItem<T>>;

namespace detail {

struct AnyVisitor {
  template <class T>
  void operator()(std::string_view, T&, const FieldRule& = {}) {}
  template <class T>
  void state(std::string_view, T&) {}
};

template <class T>
struct IsVector : std::false_type {};
template <class T>
struct IsVector<std::vector<T>> : std::true_type {};
template <class T>
struct IsNamed : std::false_type {};
template <class T>
struct IsNamed<Named<T>> : std::true_type {};
template <class T>
struct IsOptional : std::false_type {};
template <class T>
struct IsOptional<std::optional<T>> : std::true_type {};
template <class T>
struct IsLocated : std::false_type {};
template <class T>
struct IsLocated<Located<T>> : std::true_type {};

template <class T>
inline constexpr bool always_false = false;

void read_scalar(const Node& node, bool& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, std::string& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, double& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, float& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, Vec2& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, IVec2& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, IRect& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, Colour& value, const FieldRule& rule, Report& report);
// Within the rule and [low, high]; leaves the value alone and reports otherwise.
void read_whole(const Node& node, std::int64_t& value, std::int64_t low, std::int64_t high,
                const FieldRule& rule, Report& report);
// The index of the text among the names, or -1 after reporting.
int read_choice(const Node& node, const std::vector<std::string>& names, Report& report);
bool expect(const Node& node, Node::Type type, std::string_view wanted, Report& report);

void write_key(std::string& out, std::string_view key);
void write_scalar(std::string& out, bool value);
void write_scalar(std::string& out, std::int64_t value);
void write_scalar(std::string& out, double value);
void write_scalar(std::string& out, float value);
void write_scalar(std::string& out, std::string_view value);

}  // namespace detail

template <class T>
concept Described = requires(detail::AnyVisitor& v, T& value) {
  describe(v, value);
};

// An enum with a function `constexpr auto enum_names(Kind)` that returns a std::array of its names, in order.
template <class T>
concept NamedEnum = std::is_enum_v<T> && requires(T value) {
  enum_names(value).size();
};

// Reads the fields of one table; finish() reports the keys that nobody asked for.
class Reader {
 public:
  // Both must outlive the reader.
  Reader(const Node& table, Report& report);

  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& rule = {});
  template <class T>
  void state(std::string_view, T&) {}

  void finish();

 private:
  const Node* take(std::string_view key, bool required);

  const Node& table_;
  Report& report_;
  std::vector<std::string> asked_;
};

// Reads one value, of any type a field may have.
template <class T>
void read_value(const Node& node, T& value, const FieldRule& rule, Report& report) {
  using namespace detail;
  if constexpr (std::is_same_v<T, Node>) {
    value = node;
  } else if constexpr (IsLocated<T>::value) {
    value.place = node.place;
    read_value(node, value.value, rule, report);
  } else if constexpr (IsOptional<T>::value) {
    value.emplace();
    read_value(node, *value, rule, report);
  } else if constexpr (IsNamed<T>::value) {
    if (!expect(node, Node::Type::table, "a table", report)) return;
    value.clear();
    for (const Node::Entry& entry : node.entries) {
      value.push_back({entry.key, entry.place, {}});
      read_value(entry.value, value.back().value, rule, report);
    }
  } else if constexpr (IsVector<T>::value) {
    if (!expect(node, Node::Type::array, "a list", report)) return;
    value.clear();
    for (const Node& item : node.items) read_value(item, value.emplace_back(), rule, report);
  } else if constexpr (NamedEnum<T>) {
    const auto names = enum_names(T{});
    const int index = read_choice(node, std::vector<std::string>(names.begin(), names.end()), report);
    if (index >= 0) value = static_cast<T>(index);
  } else if constexpr (Described<T>) {
    if (!expect(node, Node::Type::table, "a table", report)) return;
    Reader reader(node, report);
    describe(reader, value);
    reader.finish();
  } else if constexpr (std::is_integral_v<T> && !std::is_same_v<T, bool>) {
    static_assert(sizeof(T) < 8 || std::is_signed_v<T>, "a file's whole numbers are signed and 64 bits wide");
    std::int64_t whole = static_cast<std::int64_t>(value);
    read_whole(node, whole, static_cast<std::int64_t>(std::numeric_limits<T>::min()),
               static_cast<std::int64_t>(std::numeric_limits<T>::max()), rule, report);
    value = static_cast<T>(whole);
  } else if constexpr (requires { read_field(node, value, rule, report); }) {
    read_field(node, value, rule, report);
  } else {
    read_scalar(node, value, rule, report);
  }
}

template <class T>
void Reader::operator()(std::string_view key, T& field, const FieldRule& rule) {
  if (const Node* node = take(key, rule.required)) read_value(*node, field, rule, report_);
}

// Reads a described struct from a table. Fields that the table leaves out keep their values.
template <Described T>
void read(const Node& node, T& value, Report& report) {
  read_value(node, value, {}, report);
}

// Adds every field to a checksum.
class Hasher {
 public:
  explicit Hasher(Hash& hash) : hash_(hash) {}

  template <class T>
  void operator()(std::string_view, T& field, const FieldRule& = {}) {
    add(field);
  }
  template <class T>
  void state(std::string_view, T& field) {
    add(field);
  }

 private:
  template <class T>
  void add(T& value) {
    using namespace detail;
    if constexpr (IsLocated<T>::value) {
      add(value.value);
    } else if constexpr (IsOptional<T>::value) {
      hash_.add(std::uint64_t{value.has_value()});
      if (value) add(*value);
    } else if constexpr (IsNamed<T>::value) {
      for (auto& item : value) {
        hash_.add(std::string_view(item.name));
        add(item.value);
      }
    } else if constexpr (IsVector<T>::value) {
      hash_.add(std::uint64_t{value.size()});
      for (auto& item : value) add(item);
    } else if constexpr (std::is_same_v<T, Vec2>) {
      hash_.add(value.x);
      hash_.add(value.y);
    } else if constexpr (std::is_same_v<T, IVec2>) {
      hash_.add(std::int64_t{value.x});
      hash_.add(std::int64_t{value.y});
    } else if constexpr (std::is_same_v<T, IRect>) {
      add(value.at);
      add(value.size);
    } else if constexpr (std::is_same_v<T, Colour>) {
      hash_.add(std::uint64_t{value.r} | std::uint64_t{value.g} << 8 | std::uint64_t{value.b} << 16 |
                std::uint64_t{value.a} << 24);
    } else if constexpr (std::is_same_v<T, std::string>) {
      hash_.add(std::string_view(value));
    } else if constexpr (std::is_floating_point_v<T>) {
      hash_.add(value);
    } else if constexpr (std::is_integral_v<T> || std::is_enum_v<T>) {
      hash_.add(static_cast<std::int64_t>(value));
    } else if constexpr (Described<T>) {
      describe(*this, value);
    } else {
      static_assert(always_false<T>, "this type of field has no place in a checksum");
    }
  }

  Hash& hash_;
};

template <Described T>
void add_to(Hash& hash, const T& value) {
  Hasher hasher(hash);
  describe(hasher,
           const_cast<T&>(value));  // a describe function takes T& for readers; a hasher changes nothing
}

// Writes a described struct as the lines of a TOML table, state fields included.
class Writer {
 public:
  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& = {}) {
    if constexpr (detail::IsOptional<T>::value) {
      if (field) (*this)(key, *field);
      return;
    } else {
      write_line(key, field);
    }
  }
  template <class T>
  void state(std::string_view key, T& field) {
    (*this)(key, field);
  }

  const std::string& text() const { return out_; }

 private:
  template <class T>
  void write_line(std::string_view key, T& field) {
    detail::write_key(out_, key);
    out_ += " = ";
    write(field);
    out_ += inline_ ? ", " : "\n";
  }

  template <class T>
  void write(T& value) {
    using namespace detail;
    if constexpr (IsLocated<T>::value) {
      write(value.value);
    } else if constexpr (IsNamed<T>::value || IsVector<T>::value) {
      write_items(value);
    } else if constexpr (std::is_same_v<T, Vec2> || std::is_same_v<T, IVec2>) {
      out_ += "[";
      write(value.x);
      out_ += ", ";
      write(value.y);
      out_ += "]";
    } else if constexpr (std::is_same_v<T, IRect>) {
      out_ += "[";
      for (const int part : {value.at.x, value.at.y, value.size.x, value.size.y}) {
        write_scalar(out_, std::int64_t{part});
        out_ += ", ";
      }
      out_.resize(out_.size() - 2);
      out_ += "]";
    } else if constexpr (std::is_same_v<T, Colour>) {
      write_scalar(out_, std::string_view(to_text(value)));
    } else if constexpr (NamedEnum<T>) {
      write_scalar(out_, std::string_view(enum_names(T{})[static_cast<std::size_t>(value)]));
    } else if constexpr (Described<T>) {
      Writer inner;
      inner.inline_ = true;
      describe(inner, value);
      out_ += "{ " + inner.without_last_comma() + " }";
    } else if constexpr (std::is_same_v<T, std::string>) {
      write_scalar(out_, std::string_view(value));
    } else if constexpr (std::is_same_v<T, bool> || std::is_floating_point_v<T>) {
      write_scalar(out_, value);
    } else {
      write_scalar(out_, static_cast<std::int64_t>(value));
    }
  }

  template <class Items>
  void write_items(Items& items) {
    constexpr bool named = detail::IsNamed<Items>::value;
    const bool one_a_line = !inline_ && items.size() > 4;
    out_ += named ? "{ " : "[";
    for (std::size_t i = 0; i < items.size(); ++i) {
      if (i) out_ += one_a_line && !named ? "," : ", ";
      if (one_a_line && !named) out_ += "\n  ";
      if constexpr (named) {
        detail::write_key(out_, items[i].name);
        out_ += " = ";
        write(items[i].value);
      } else {
        write(items[i]);
      }
    }
    if (one_a_line && !named) out_ += ",\n";
    out_ += named ? " }" : "]";
  }

  std::string without_last_comma() const { return out_.substr(0, out_.size() < 2 ? 0 : out_.size() - 2); }

  std::string out_;
  bool inline_ = false;
};

template <Described T>
std::string to_toml(const T& value) {
  Writer writer;
  describe(writer, const_cast<T&>(value));
  return writer.text();
}

}  // namespace vole
