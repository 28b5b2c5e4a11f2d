#include "vole/base/describe.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "vole/base/names.hpp"

namespace vole {

Reader::Reader(const Node& table, Report& report) : table_(table), report_(report) {}

const Node* Reader::take(std::string_view key, bool required) {
  asked_.emplace_back(key);
  const Node* node = table_.find(key);
  if (!node && required) report_.error(table_.place, fmt::format("\"{}\" is missing here", key));
  return node;
}

void Reader::finish() {
  for (const Node::Entry& entry : table_.entries) {
    if (std::find(asked_.begin(), asked_.end(), entry.key) == asked_.end())
      report_.error(entry.place, fmt::format("unknown key \"{}\"", entry.key),
                    did_you_mean(entry.key, asked_));
  }
}

namespace detail {
namespace {

void report_type(const Node& node, std::string_view wanted, Report& report) {
  report.error(node.place, fmt::format("{} wanted here, not {}", wanted, to_text(node)));
}

bool check_limits(const Node& node, double value, const FieldRule& rule, Report& report) {
  if (value >= rule.least && value <= rule.most) return true;
  const bool below = value < rule.least;
  report.error(node.place, fmt::format("{} is too {}; the {} is {}", value, below ? "small" : "large",
                                       below ? "least" : "most", below ? rule.least : rule.most));
  return false;
}

bool read_number(const Node& node, double& value, const FieldRule& rule, Report& report) {
  if (node.type != Node::Type::number && node.type != Node::Type::whole) {
    report_type(node, "a number", report);
    return false;
  }
  if (!std::isfinite(node.number)) {
    report.error(node.place, fmt::format("a finite number wanted here, not {}", node.number));
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
  report.error(node.place, fmt::format("unknown word \"{}\"", node.text), did_you_mean(node.text, names));
  return -1;
}

void write_key(std::string& out, std::string_view key) {
  const auto plain = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_' || c == '-';
  };
  if (!key.empty() && std::all_of(key.begin(), key.end(), plain))
    out += key;
  else
    write_scalar(out, key);
}

void write_scalar(std::string& out, bool value) {
  out += value ? "true" : "false";
}

void write_scalar(std::string& out, std::int64_t value) {
  out += fmt::format("{}", value);
}

void write_scalar(std::string& out, double value) {
  const std::string text = fmt::format("{}", value);
  out += text;
  if (text.find_first_of(".en") == std::string::npos) out += ".0";
}

void write_scalar(std::string& out, float value) {
  const std::string text = fmt::format("{}", value);
  out += text;
  if (text.find_first_of(".en") == std::string::npos) out += ".0";
}

void write_scalar(std::string& out, std::string_view value) {
  out += '"';
  for (const char c : value) {
    if (c == '"' || c == '\\')
      out += std::string{'\\', c};
    else if (static_cast<unsigned char>(c) < 0x20 || c == 0x7f)
      out += fmt::format("\\u{:04x}", static_cast<unsigned char>(c));
    else
      out += c;
  }
  out += '"';
}

}  // namespace detail
}  // namespace vole
