// A described struct from a TOML table.
//
//   Bulb bulb;
//   read(node, bulb, report);      // unknown keys and wrong types go to the report
#pragma once

#include <cstdint>

#include "vole/base/describe.hpp"

namespace vole {

// What a table is: part of a file that a person wrote, or of a written state, which holds state fields too and whose
// values are beyond the limits for files where the game has put them there.
enum class TableOf : std::uint8_t { file, state };

namespace detail {

void read_scalar(const Node& node, bool& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, std::string& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, double& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, float& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, Vec2& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, IVec2& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, Rect& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, IRect& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, Colour& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, Entity& value, const FieldRule& rule, Report& report);
void read_scalar(const Node& node, Random& value, const FieldRule& rule, Report& report);
// As they are, also those that are not finite.
void read_any_number(const Node& node, double& value, Report& report);
void read_any_pair(const Node& node, Vec2& value, Report& report);
void read_any_rect(const Node& node, Rect& value, Report& report);
void read_scalar(const Node& node, Vec4& value, const FieldRule& rule, Report& report);
// Within the rule and [low, high]; leaves the value alone and reports otherwise.
void read_whole(const Node& node, std::int64_t& value, std::int64_t low, std::int64_t high,
                const FieldRule& rule, Report& report);
// The index of the text among the names, or -1 after reporting.
int read_choice(const Node& node, const std::vector<std::string>& names, Report& report);
// Whether it holds; reports otherwise.
bool check_limits(const Node& node, double value, const FieldRule& rule, Report& report);
bool expect(const Node& node, Node::Type type, std::string_view wanted, Report& report);
void report_count(const Node& node, std::size_t wanted, Report& report);
// Whether a list or table of a file has no more items than the rule allows; reports otherwise.
bool check_items(const Node& node, const FieldRule& rule, TableOf of, Report& report);

}  // namespace detail

// Reads the fields of one table; finish() reports the keys that were not read.
class Reader {
 public:
  // Both must outlive the reader.
  Reader(const Node& table, Report& report, TableOf table_of = TableOf::file);

  template <class T>
  void operator()(std::string_view key, T& field, const FieldRule& rule = {});
  template <class T>
  void state(std::string_view key, T& field, const FieldRule& rule = {});
  template <class T>
  void rest(Named<T>& fields);

  void finish();

 private:
  const Node* take(std::string_view key, bool required);
  bool was_asked(std::string_view key) const;

  const Node& table_;
  Report& report_;
  TableOf of_;
  std::vector<std::string> asked_;
  bool rest_taken_ = false;
};

// Reads one value, of any type a field may have.
template <class T>
void read_value(const Node& node, T& value, const FieldRule& rule, Report& report,
                TableOf of = TableOf::file) {
  using namespace detail;
  if constexpr (std::is_same_v<T, Node>) {
    value = node;
  } else if constexpr (IsLocated<T>::value) {
    value.where = node.where;
    read_value(node, value.value, rule, report, of);
  } else if constexpr (IsOptional<T>::value) {
    value.emplace();
    read_value(node, *value, rule, report, of);
  } else if constexpr (IsNamed<T>::value) {
    if (!expect(node, Node::Type::table, "a table", report)) return;
    if (!check_items(node, rule, of, report)) return;
    value.clear();
    for (const Node::Entry& entry : node.entries) {
      value.push_back({entry.key, entry.where, {}});
      read_value(entry.value, value.back().value, rule, report, of);
    }
  } else if constexpr (IsVector<T>::value) {
    if (!expect(node, Node::Type::array, "a list", report)) return;
    if (!check_items(node, rule, of, report)) return;
    value.clear();
    for (const Node& item : node.items) {
      typename T::value_type read_here{};
      read_value(item, read_here, rule, report, of);
      value.push_back(std::move(read_here));
    }
  } else if constexpr (IsArray<T>::value) {
    if (!expect(node, Node::Type::array, "a list", report)) return;
    if (node.items.size() != value.size()) return report_count(node, value.size(), report);
    for (std::size_t i = 0; i < value.size(); ++i) read_value(node.items[i], value[i], rule, report, of);
  } else if constexpr (NamedEnum<T>) {
    const auto names = enum_names(T{});
    const int index = read_choice(node, std::vector<std::string>(names.begin(), names.end()), report);
    if (index >= 0) value = static_cast<T>(index);
  } else if constexpr (Described<T>) {
    if constexpr (WrittenAsOne<T>)
      if (of == TableOf::file)
        return read_value(node, one_field(value).field, one_field(value).rule, report, of);
    if (!expect(node, Node::Type::table, "a table", report)) return;
    Reader reader(node, report, of);
    describe(reader, value);
    reader.finish();
  } else if constexpr (std::is_integral_v<T> && !std::is_same_v<T, bool>) {
    // A file's whole numbers are signed and 64 bits wide: larger ones are their bits.
    constexpr bool wide = sizeof(T) == 8 && std::is_unsigned_v<T>;
    std::int64_t whole = static_cast<std::int64_t>(value);
    const std::int64_t low = !wide                  ? static_cast<std::int64_t>(std::numeric_limits<T>::min())
                             : of == TableOf::state ? std::numeric_limits<std::int64_t>::min()
                                                    : 0;
    read_whole(node, whole, low,
               wide ? std::numeric_limits<std::int64_t>::max()
                    : static_cast<std::int64_t>(std::numeric_limits<T>::max()),
               of == TableOf::state ? FieldRule{} : rule, report);
    value = static_cast<T>(whole);
  } else if constexpr (requires { read_field(node, value, rule, report); }) {
    read_field(node, value, rule, report);
  } else if constexpr (std::is_floating_point_v<T>) {
    if (of == TableOf::file) return read_scalar(node, value, rule, report);
    double number = static_cast<double>(value);
    read_any_number(node, number, report);
    value = static_cast<T>(number);
  } else if constexpr (std::is_same_v<T, Vec2>) {
    of == TableOf::file ? read_scalar(node, value, rule, report) : read_any_pair(node, value, report);
  } else if constexpr (std::is_same_v<T, Rect>) {
    of == TableOf::file ? read_scalar(node, value, rule, report) : read_any_rect(node, value, report);
  } else {
    read_scalar(node, value, of == TableOf::file ? rule : FieldRule{}, report);
  }
}

template <class T>
void Reader::operator()(std::string_view key, T& field, const FieldRule& rule) {
  const bool required = rule.required && of_ == TableOf::file;
  if (const Node* node = take(key, required)) read_value(*node, field, rule, report_, of_);
}

template <class T>
void Reader::state(std::string_view key, T& field, const FieldRule& rule) {
  if (of_ != TableOf::state) return;
  const Node* const node = take(key, false);
  if (!node) return;
  read_value(*node, field, rule, report_, of_);
  if constexpr (std::is_arithmetic_v<T>)
    if (rule.limited()) detail::check_limits(*node, static_cast<double>(field), rule, report_);
}

template <class T>
void Reader::rest(Named<T>& fields) {
  fields.clear();
  rest_taken_ = true;
  if (!detail::check_items(table_, {}, of_, report_)) return;
  for (const Node::Entry& entry : table_.entries) {
    if (was_asked(entry.key)) continue;
    fields.push_back({entry.key, entry.where, {}});
    read_value(entry.value, fields.back().value, {}, report_, of_);
  }
}

// Reads a described struct from a table. Fields that the table leaves out keep their values.
template <Described T>
void read(const Node& node, T& value, Report& report, TableOf of = TableOf::file) {
  read_value(node, value, {}, report, of);
}

}  // namespace vole
