// A described struct as TOML, its state fields included: what reading.hpp reads back as the same.
//
//   std::string lines = to_toml(bulb);                  // a table's lines
//   read(parse_toml(lines, "bulb"), again, report, TableOf::state);
#pragma once

#include <cstdint>

#include "vole/base/describe.hpp"

namespace vole {

namespace detail {

void write_key(std::string& out, std::string_view key);
void write_scalar(std::string& out, bool value);
void write_scalar(std::string& out, std::int64_t value);
void write_scalar(std::string& out, double value);
void write_scalar(std::string& out, float value);
void write_scalar(std::string& out, std::string_view value);
// 16 hexadecimal digits in quotes.
void write_bits(std::string& out, std::uint64_t bits);

}  // namespace detail

class Writer {
 public:
  enum class Layout : std::uint8_t { lines, one_line };
  explicit Writer(Layout layout = Layout::lines) : inline_(layout == Layout::one_line) {}

  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& = {}) {
    if constexpr (detail::IsOptional<T>::value) {
      if (field) (*this)(key, *field);
    } else {
      write_line(key, field);
    }
  }
  template <class T>
  void state(std::string_view key, T& field, const FieldRule& = {}) {
    (*this)(key, field);
  }
  template <class T>
  void rest(Named<T>& fields) {
    for (auto& item : fields) write_line(item.name, item.value);
  }

  const std::string& text() const { return out_; }
  // Of a table on one line: what stands between its braces.
  std::string without_last_comma() const { return out_.substr(0, out_.size() < 2 ? 0 : out_.size() - 2); }

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
    } else if constexpr (IsNamed<T>::value || IsVector<T>::value || IsArray<T>::value) {
      write_items(value);
    } else if constexpr (std::is_same_v<T, Vec2> || std::is_same_v<T, IVec2>) {
      write_parts(value.x, value.y);
    } else if constexpr (std::is_same_v<T, Vec4>) {
      write_parts(value.x, value.y, value.z, value.w);
    } else if constexpr (std::is_same_v<T, Rect> || std::is_same_v<T, IRect>) {
      write_parts(value.at.x, value.at.y, value.size.x, value.size.y);
    } else if constexpr (std::is_same_v<T, Entity>) {
      write_parts(value.index, value.generation);
    } else if constexpr (std::is_same_v<T, Random>) {
      write_bits(out_, value.state());
    } else if constexpr (std::is_same_v<T, Colour>) {
      write_scalar(out_, std::string_view(to_text(value)));
    } else if constexpr (NamedEnum<T>) {
      write_scalar(out_, std::string_view(enum_names(T{})[static_cast<std::size_t>(value)]));
    } else if constexpr (Described<T>) {
      Writer inner(Layout::one_line);
      describe(inner, value);
      out_ += "{ " + inner.without_last_comma() + " }";
    } else if constexpr (std::is_same_v<T, std::string>) {
      write_scalar(out_, std::string_view(value));
    } else if constexpr (std::is_same_v<T, bool> || std::is_floating_point_v<T>) {
      write_scalar(out_, value);
    } else if constexpr (std::is_integral_v<T> || std::is_enum_v<T>) {
      write_scalar(out_, static_cast<std::int64_t>(value));
    } else {
      static_assert(always_false<T>, "this type of field cannot be written: describe it");
    }
  }

  template <class First, class... Parts>
  void write_parts(First first, Parts... parts) {
    out_ += "[";
    write(first);
    ((out_ += ", ", write(parts)), ...);
    out_ += "]";
  }

  template <class Items>
  void write_items(Items& items) {
    constexpr bool named = detail::IsNamed<Items>::value;
    const bool one_a_line = !inline_ && !named && items.size() > 4;
    out_ += named ? "{ " : "[";
    for (std::size_t i = 0; i < items.size(); ++i) {
      if (i) out_ += one_a_line ? "," : ", ";
      if (one_a_line) out_ += "\n  ";
      if constexpr (named) {
        detail::write_key(out_, items[i].name);
        out_ += " = ";
        write(items[i].value);
      } else {
        write(items[i]);
      }
    }
    if (one_a_line) out_ += ",\n";
    out_ += named ? " }" : "]";
  }

  std::string out_;
  bool inline_ = false;
};

// As the lines of a table.
template <Described T>
std::string to_toml(const T& value) {
  Writer writer;
  describe(writer, const_cast<T&>(value));  // describe takes T& for readers; a writer changes nothing
  return writer.text();
}

// As a table on one line: "{ worth = 1 }".
template <Described T>
std::string to_inline_toml(const T& value) {
  Writer writer(Writer::Layout::one_line);
  describe(writer, const_cast<T&>(value));
  return "{ " + writer.without_last_comma() + " }";
}

}  // namespace vole
