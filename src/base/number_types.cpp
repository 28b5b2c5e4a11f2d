// Fields that are true or false, whole numbers, and numbers.
#include "number_types.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <limits>

namespace vole::detail {
namespace {

class BoolType final : public PlainType<bool> {
 public:
  void read(const TomlValue& toml, void* value, const FieldRule&, Report& report, TableOf) const override {
    if (expect(toml, TomlValue::Type::yes_no, "true or false", report)) in(value) = toml.yes;
  }
  void write(TomlText& out, const void* value) const override { out.add(in(value)); }
  // A bool must hold nothing but 0 and 1.
  bool may_be_broken() const override { return true; }
  bool is_sound(const void* value) const override { return *static_cast<const unsigned char*>(value) <= 1; }
  TomlValue schema(const FieldRule&) const override { return type_schema("boolean"); }
  std::optional<TomlValue> default_toml(const void* value) const override { return yes_no_toml(in(value)); }
};

bool read_whole(const TomlValue& toml, std::int64_t& value, const FieldRule& type_limits,
                const FieldRule& rule, Report& report) {
  if (!expect(toml, TomlValue::Type::whole, "a whole number", report)) return false;
  if (!check_limits(toml, toml.number, rule, report)) return false;
  if (!check_limits(toml, toml.number, type_limits, report)) return false;
  value = toml.whole;
  return true;
}

template <class T>
class WholeType final : public PlainType<T> {
  using PlainType<T>::in;
  using Limits = std::numeric_limits<T>;

 public:
  void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
            TableOf of) const override {
    // A file's whole numbers are signed and 64 bits wide: larger ones are their bits.
    constexpr bool wide = sizeof(T) == 8 && std::is_unsigned_v<T>;
    const bool state = of == TableOf::state;
    const auto low =
        wide && state ? std::numeric_limits<std::int64_t>::min() : static_cast<std::int64_t>(Limits::min());
    const auto high =
        wide ? std::numeric_limits<std::int64_t>::max() : static_cast<std::int64_t>(Limits::max());
    const FieldRule type_limits = within(static_cast<double>(low), static_cast<double>(high));
    std::int64_t whole = 0;
    if (read_whole(toml, whole, type_limits, state ? FieldRule{} : rule, report))
      in(value) = static_cast<T>(whole);
  }
  void write(TomlText& out, const void* value) const override {
    out.add(static_cast<std::int64_t>(in(value)));
  }
  // Whole numbers have the same width in a state on every machine, whatever `long` is there.
  std::size_t plain_size() const override { return width == sizeof(T) ? sizeof(T) : 0; }
  void write_state(StateWriter& out, const void* value) const override {
    const auto fixed = static_cast<Fixed>(in(value));
    out.add(&fixed, sizeof fixed);
  }
  void read_state(StateReader& in_state, void* value) const override {
    Fixed fixed{};
    in_state.take(&fixed, sizeof fixed);
    in(value) = static_cast<T>(fixed);
  }
  TomlValue schema(const FieldRule& rule) const override {
    return number_schema(true, rule, static_cast<double>(Limits::min()), static_cast<double>(Limits::max()));
  }
  std::optional<TomlValue> default_toml(const void* value) const override {
    return number_toml(static_cast<double>(in(value)), true);
  }
  std::optional<double> as_number(const void* value) const override { return static_cast<double>(in(value)); }
  int parts() const override { return 1; }
  Vec4 parts_of(const void* value) const override { return Vec4(static_cast<float>(in(value)), 0, 0, 0); }
  void put_parts(void* value, Vec4 to, const FieldRule& rule) const override {
    in(value) = whole_part<T>(part_within(to.x, rule));
  }

 private:
  static constexpr bool as_it_is = sizeof(T) <= 2 || std::is_same_v<T, int> || std::is_same_v<T, unsigned>;
  using Fixed =
      std::conditional_t<as_it_is, T, std::conditional_t<std::is_signed_v<T>, std::int64_t, std::uint64_t>>;
  static constexpr std::size_t width = sizeof(Fixed);
};

template <class T>
class NumberType final : public PlainType<T> {
  using PlainType<T>::in;

 public:
  void read(const TomlValue& toml, void* value, const FieldRule& rule, Report& report,
            TableOf of) const override {
    read_number(toml, in(value), rule, report, of);
  }
  void write(TomlText& out, const void* value) const override { out.add(in(value)); }
  TomlValue schema(const FieldRule& rule) const override { return plain_number_schema(rule); }
  std::optional<TomlValue> default_toml(const void* value) const override {
    return number_toml(static_cast<double>(in(value)), false);
  }
  std::optional<double> as_number(const void* value) const override { return static_cast<double>(in(value)); }
  int parts() const override { return 1; }
  Vec4 parts_of(const void* value) const override { return Vec4(static_cast<float>(in(value)), 0, 0, 0); }
  void put_parts(void* value, Vec4 to, const FieldRule& rule) const override {
    in(value) = static_cast<T>(part_within(to.x, rule));
  }
};

bool is_number(const TomlValue& toml, Report& report) {
  if (toml.type == TomlValue::Type::number || toml.type == TomlValue::Type::whole) return true;
  report_type(toml, "a number", report);
  return false;
}

}  // namespace

void read_number(const TomlValue& toml, double& value, const FieldRule& rule, Report& report, TableOf of) {
  if (!is_number(toml, report)) return;
  // A written state has numbers as they are, also those that are not finite.
  if (of == TableOf::file) {
    if (!std::isfinite(toml.number))
      return report.error(toml.where, "a finite number wanted here, not " + fmt::format("{}", toml.number));
    if (!check_limits(toml, toml.number, rule, report)) return;
  }
  value = toml.number;
}

void read_number(const TomlValue& toml, float& value, const FieldRule& rule, Report& report, TableOf of) {
  double number = static_cast<double>(value);
  FieldRule narrowed = rule;
  narrowed.least = std::max<double>(rule.least, std::numeric_limits<float>::lowest());
  narrowed.most = std::min<double>(rule.most, std::numeric_limits<float>::max());
  read_number(toml, number, narrowed, report, of);
  value = static_cast<float>(number);
}

TomlValue plain_number_schema(const FieldRule& rule) {
  return number_schema(false, rule, -FieldRule::no_limit, FieldRule::no_limit);
}

float part_within(float part, const FieldRule& rule) {
  return static_cast<float>(std::clamp(static_cast<double>(part), rule.least, rule.most));
}

const FieldType& type_of(Tag<bool>) {
  static const BoolType type;
  return type;
}
const FieldType& type_of(Tag<signed char>) {
  static const WholeType<signed char> type;
  return type;
}
const FieldType& type_of(Tag<unsigned char>) {
  static const WholeType<unsigned char> type;
  return type;
}
const FieldType& type_of(Tag<short>) {
  static const WholeType<short> type;
  return type;
}
const FieldType& type_of(Tag<unsigned short>) {
  static const WholeType<unsigned short> type;
  return type;
}
const FieldType& type_of(Tag<int>) {
  static const WholeType<int> type;
  return type;
}
const FieldType& type_of(Tag<unsigned>) {
  static const WholeType<unsigned> type;
  return type;
}
const FieldType& type_of(Tag<long>) {
  static const WholeType<long> type;
  return type;
}
const FieldType& type_of(Tag<unsigned long>) {
  static const WholeType<unsigned long> type;
  return type;
}
const FieldType& type_of(Tag<long long>) {
  static const WholeType<long long> type;
  return type;
}
const FieldType& type_of(Tag<unsigned long long>) {
  static const WholeType<unsigned long long> type;
  return type;
}
const FieldType& type_of(Tag<float>) {
  static const NumberType<float> type;
  return type;
}
const FieldType& type_of(Tag<double>) {
  static const NumberType<double> type;
  return type;
}

}  // namespace vole::detail
