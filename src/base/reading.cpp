#include "vole/base/reading.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>

#include "vole/base/names.hpp"

namespace vole {

Reader::Reader(const Node& table, Report& report, TableOf table_of)
    : table_(table), report_(report), of_(table_of) {}

const Node* Reader::take(std::string_view key, bool required) {
  asked_.emplace_back(key);
  const Node* node = table_.find(key);
  if (!node && required) report_.error(table_.where, fmt::format("\"{}\" is missing here", key));
  return node;
}

bool Reader::was_asked(std::string_view key) const {
  return std::find(asked_.begin(), asked_.end(), key) != asked_.end();
}

void Reader::finish() {
  if (rest_taken_) return;
  for (const Node::Entry& entry : table_.entries) {
    if (!was_asked(entry.key))
      report_.error(entry.where, fmt::format("unknown key \"{}\"", entry.key),
                    did_you_mean(entry.key, asked_));
  }
}

namespace detail {
namespace {

void report_type(const Node& node, std::string_view wanted, Report& report) {
  report.error(node.where, fmt::format("{} wanted here, not {}", wanted, to_text(node)));
}

bool read_number(const Node& node, double& value, const FieldRule& rule, Report& report) {
  if (node.type != Node::Type::number && node.type != Node::Type::whole) {
    report_type(node, "a number", report);
    return false;
  }
  if (!std::isfinite(node.number)) {
    report.error(node.where, fmt::format("a finite number wanted here, not {}", node.number));
    return false;
  }
  if (!check_limits(node, node.number, rule, report)) return false;
  value = node.number;
  return true;
}

// The two items of a list, or nothing after reporting.
bool two_items(const Node& node, Report& report) {
  if (node.type == Node::Type::array && node.items.size() == 2) return true;
  report_type(node, "a pair like [16, 16]", report);
  return false;
}

}  // namespace

bool check_limits(const Node& node, double value, const FieldRule& rule, Report& report) {
  if (rule.allows(value)) return true;
  const bool below = value < rule.least;
  report.error(node.where, fmt::format("{} is too {}; the {} is {}", value, below ? "small" : "large",
                                       below ? "least" : "most", below ? rule.least : rule.most));
  return false;
}

bool expect(const Node& node, Node::Type type, std::string_view wanted, Report& report) {
  if (node.type == type) return true;
  report_type(node, wanted, report);
  return false;
}

void read_scalar(const Node& node, bool& value, const FieldRule&, Report& report) {
  if (expect(node, Node::Type::yes_no, "true or false", report)) value = node.yes;
}

void read_scalar(const Node& node, std::string& value, const FieldRule&, Report& report) {
  if (expect(node, Node::Type::text, "a text in quotes", report)) value = node.text;
}

void read_scalar(const Node& node, double& value, const FieldRule& rule, Report& report) {
  read_number(node, value, rule, report);
}

void read_scalar(const Node& node, float& value, const FieldRule& rule, Report& report) {
  double number = 0;
  FieldRule narrowed = rule;
  narrowed.least = std::max<double>(rule.least, std::numeric_limits<float>::lowest());
  narrowed.most = std::min<double>(rule.most, std::numeric_limits<float>::max());
  if (read_number(node, number, narrowed, report)) value = static_cast<float>(number);
}

void read_scalar(const Node& node, Vec2& value, const FieldRule& rule, Report& report) {
  if (!two_items(node, report)) return;
  read_scalar(node.items[0], value.x, rule, report);
  read_scalar(node.items[1], value.y, rule, report);
}

void read_scalar(const Node& node, IVec2& value, const FieldRule& rule, Report& report) {
  if (!two_items(node, report)) return;
  read_value(node.items[0], value.x, rule, report);
  read_value(node.items[1], value.y, rule, report);
}

void read_scalar(const Node& node, IRect& value, const FieldRule& rule, Report& report) {
  if (node.type != Node::Type::array || node.items.size() != 4)
    return report_type(node, "a box like [left, top, width, height]", report);
  int* const parts[] = {&value.at.x, &value.at.y, &value.size.x, &value.size.y};
  for (std::size_t i = 0; i < 4; ++i) read_value(node.items[i], *parts[i], rule, report);
}

void read_scalar(const Node& node, Rect& value, const FieldRule& rule, Report& report) {
  if (node.type != Node::Type::array || node.items.size() != 4)
    return report_type(node, "a box like [left, top, width, height]", report);
  float* const parts[] = {&value.at.x, &value.at.y, &value.size.x, &value.size.y};
  for (std::size_t i = 0; i < 4; ++i) read_scalar(node.items[i], *parts[i], rule, report);
}

void read_scalar(const Node& node, Entity& value, const FieldRule& rule, Report& report) {
  if (!two_items(node, report)) return;
  read_value(node.items[0], value.index, rule, report);
  read_value(node.items[1], value.generation, rule, report);
  if (value.generation % 2 == 0 && value != Entity{})
    report.error(node.where, "no thing has an even generation");
}

void read_scalar(const Node& node, Random& value, const FieldRule&, Report& report) {
  std::uint64_t bits = 0;
  const char* const end = node.text.data() + node.text.size();
  const auto parsed = std::from_chars(node.text.data(), end, bits, 16);
  if (node.type != Node::Type::text || parsed.ec != std::errc{} || parsed.ptr != end)
    return report_type(node, "hexadecimal digits in quotes", report);
  value = Random::from_state(bits);
}

void read_any_number(const Node& node, double& value, Report& report) {
  if (node.type != Node::Type::number && node.type != Node::Type::whole)
    return report_type(node, "a number", report);
  value = node.number;
}

namespace {

template <std::size_t count>
void read_any_parts(const Node& node, const std::array<float*, count>& parts, Report& report) {
  if (node.type != Node::Type::array || node.items.size() != count)
    return report_type(node, fmt::format("a list of {} numbers", count), report);
  for (std::size_t i = 0; i < count; ++i) {
    double number = 0;
    read_any_number(node.items[i], number, report);
    *parts[i] = static_cast<float>(number);
  }
}

}  // namespace

void read_any_pair(const Node& node, Vec2& value, Report& report) {
  read_any_parts<2>(node, {&value.x, &value.y}, report);
}

void read_any_rect(const Node& node, Rect& value, Report& report) {
  read_any_parts<4>(node, {&value.at.x, &value.at.y, &value.size.x, &value.size.y}, report);
}

void read_scalar(const Node& node, Vec4& value, const FieldRule&, Report& report) {
  read_any_parts<4>(node, {&value.x, &value.y, &value.z, &value.w}, report);
}

void report_count(const Node& node, std::size_t wanted, Report& report) {
  report.error(node.where, fmt::format("{} items wanted here, not {}", wanted, node.items.size()));
}

bool check_items(const Node& node, const FieldRule& rule, TableOf of, Report& report) {
  const std::size_t count = node.type == Node::Type::array ? node.items.size() : node.entries.size();
  if (of == TableOf::state || count <= rule.most_items) return true;
  report.error(node.where, fmt::format("{} items are too many here; the most is {}", count, rule.most_items));
  return false;
}

void read_scalar(const Node& node, Colour& value, const FieldRule&, Report& report) {
  const auto colour = node.type == Node::Type::text ? parse_colour(node.text) : std::nullopt;
  if (colour)
    value = *colour;
  else
    report_type(node, "a colour like \"#24352a\" or \"#24352a80\"", report);
}

void read_whole(const Node& node, std::int64_t& value, std::int64_t low, std::int64_t high,
                const FieldRule& rule, Report& report) {
  if (!expect(node, Node::Type::whole, "a whole number", report)) return;
  if (!check_limits(node, node.number, rule, report)) return;
  const FieldRule type_limits = vole::within(static_cast<double>(low), static_cast<double>(high));
  if (check_limits(node, node.number, type_limits, report)) value = node.whole;
}

int read_choice(const Node& node, const std::vector<std::string>& names, Report& report) {
  if (!expect(node, Node::Type::text, "a word in quotes", report)) return -1;
  const auto found = std::find(names.begin(), names.end(), node.text);
  if (found != names.end()) return static_cast<int>(found - names.begin());
  report.error(node.where, fmt::format("unknown word \"{}\"", node.text), did_you_mean(node.text, names));
  return -1;
}

}  // namespace detail
}  // namespace vole
