// Fields that are pairs of numbers, rectangles, and lists of four.
#include <array>

#include "number_types.hpp"
#include "vole/base/positions.hpp"

namespace vole::detail {
namespace {

// Whether it is a list of so many; reports otherwise. What stands in a state is never wrong in the same way as a file.
bool is_list(const TomlValue& toml, std::size_t count, std::string_view wanted, TableOf of, Report& report) {
  if (toml.type == TomlValue::Type::array && toml.items.size() == count) return true;
  const std::string plain = "a list of " + std::to_string(count) + " numbers";
  report_type(toml, of == TableOf::file ? wanted : std::string_view(plain), report);
  return false;
}

constexpr std::string_view pair_wanted = "a pair like [16, 16]";
constexpr std::string_view box_wanted = "a box like [left, top, width, height]";

template <class V>
class PairType final : public PlainType<V> {
  using PlainType<V>::in;
  using Part = typename V::value_type;

 public:
  void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
            TableOf of) const override {
    if (!is_list(toml, 2, pair_wanted, of, report)) return;
    for (int i = 0; i < 2; ++i)
      part_type().read(toml.items[static_cast<std::size_t>(i)], &in(value)[i], rule, report, of);
  }
  void write(TomlText& out, const void* value) const override {
    if constexpr (std::is_integral_v<Part>)
      add_parts(out, std::int64_t{in(value).x}, std::int64_t{in(value).y});
    else
      add_parts(out, in(value).x, in(value).y);
  }
  TomlValue schema(const FieldRule& rule) const override { return tuple_schema(part_type().schema(rule), 2); }
  int parts() const override { return 2; }
  Vec4 parts_of(const void* value) const override {
    return Vec4(static_cast<float>(in(value).x), static_cast<float>(in(value).y), 0, 0);
  }
  void put_parts(void* value, Vec4 to, const FieldRule& rule) const override {
    in(value) = V(part_as<Part>(part_within(to.x, rule)), part_as<Part>(part_within(to.y, rule)));
  }
  bool can_be_position() const override { return true; }
  void move_origin(void* value, const FieldRule& rule, const OriginMove& by) const override {
    if (!rule.is_position) return;
    if constexpr (std::is_integral_v<Part>)
      in(value) += by.cells;
    else
      in(value) += by.pixels;
  }

 private:
  static const FieldType& part_type() { return type_of(Tag<Part>{}); }
};

template <class R>
class RectType final : public PlainType<R> {
  using PlainType<R>::in;
  using Part = typename R::Scalar;

 public:
  void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
            TableOf of) const override {
    if (!is_list(toml, 4, box_wanted, of, report)) return;
    R& rect = in(value);
    Part* const parts[] = {&rect.at.x, &rect.at.y, &rect.size.x, &rect.size.y};
    for (std::size_t i = 0; i < 4; ++i) part_type().read(toml.items[i], parts[i], rule, report, of);
  }
  void write(TomlText& out, const void* value) const override {
    const R& rect = in(value);
    if constexpr (std::is_integral_v<Part>)
      add_parts(out, std::int64_t{rect.at.x}, std::int64_t{rect.at.y}, std::int64_t{rect.size.x},
                std::int64_t{rect.size.y});
    else
      add_parts(out, rect.at.x, rect.at.y, rect.size.x, rect.size.y);
  }
  TomlValue schema(const FieldRule& rule) const override { return tuple_schema(part_type().schema(rule), 4); }
  bool can_be_position() const override { return std::is_floating_point_v<Part>; }
  void move_origin(void* value, const FieldRule& rule, const OriginMove& by) const override {
    if constexpr (std::is_floating_point_v<Part>)
      if (rule.is_position) in(value).at += by.pixels;
  }

 private:
  static const FieldType& part_type() { return type_of(Tag<Part>{}); }
};

class FourType final : public PlainType<Vec4> {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule&, Report& report, TableOf) const override {
    if (!is_list(toml, 4, "a list of 4 numbers", TableOf::file, report)) return;
    for (int i = 0; i < 4; ++i)
      read_number(toml.items[static_cast<std::size_t>(i)], in(value)[i], {}, report, TableOf::state);
  }
  void write(TomlText& out, const void* value) const override {
    const Vec4& four = in(value);
    add_parts(out, four.x, four.y, four.z, four.w);
  }
  TomlValue schema(const FieldRule&) const override { return tuple_schema(plain_number_schema({}), 4); }
};

}  // namespace

const FieldType& type_of(Tag<Vec2>) {
  static const PairType<Vec2> type;
  return type;
}
const FieldType& type_of(Tag<IVec2>) {
  static const PairType<IVec2> type;
  return type;
}
const FieldType& type_of(Tag<Vec4>) {
  static const FourType type;
  return type;
}
const FieldType& type_of(Tag<Rect>) {
  static const RectType<Rect> type;
  return type;
}
const FieldType& type_of(Tag<IRect>) {
  static const RectType<IRect> type;
  return type;
}

}  // namespace vole::detail
