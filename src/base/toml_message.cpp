#include "toml_message.hpp"

#include <fmt/core.h>

#include <array>
#include <utility>

namespace vole {
namespace {

using Words = std::pair<std::string_view, std::string_view>;

template <std::size_t count>
std::string_view in_our_words(std::string_view theirs, const std::array<Words, count>& words) {
  for (const auto& [from, to] : words)
    if (theirs == from) return to;
  return theirs;
}

// What was being read where the file or the line ended.
constexpr std::array unfinished{
    Words{"array", "a list; its \"]\" is missing"},
    Words{"inline table", "an inline table; its \"}\" is missing"},
    Words{"string", "a text; its closing quote is missing"},
    Words{"key", "a key"},
    Words{"key-value pair", "a key with its value"},
    Words{"table header", "a table's name; its \"]\" is missing"},
};

constexpr std::array words_for_wanted{
    Words{"comma or closing ']'", "a comma or \"]\""},
    Words{"comma or closing '}'", "a comma or \"}\""},
    Words{"value or closing ']'", "a value or \"]\""},
    Words{"key or closing '}'", "a key or \"}\""},
    Words{"key-value pair or closing '}'", "a key or \"}\""},
    Words{"key-value pair", "a key with its value"},
    Words{"value", "a value"},
    Words{"nan", "a value"},
    Words{"inf", "a value"},
    Words{"true", "a value"},
    Words{"false", "a value"},
    Words{"value-terminator", "the end of the value"},
    Words{"a comment or whitespace", "the end of the line"},
    Words{"keys, tables, whitespace or comments", "a key or a [table]"},
    Words{"bare key starting character or string delimiter", "a key"},
    Words{"decimal digit", "a digit"},
    Words{"digit", "a digit"},
};

constexpr std::array words_for_seen{
    Words{"'\\n'", "the end of the line"},
    Words{"'\\r'", "the end of the line"},
    Words{"EOF", "the end of the file"},
    Words{"comma", "a comma"},
    Words{"closing '}' (dangling comma)", "\"}\" after a comma"},
};

// 'b' as "b".
std::string in_double_quotes(std::string_view quoted) {
  if (quoted.size() < 3 || quoted.front() != '\'' || quoted.back() != '\'') return std::string(quoted);
  return fmt::format("\"{}\"", quoted.substr(1, quoted.size() - 2));
}

}  // namespace

std::string toml_message(std::string_view from_parser) {
  constexpr std::string_view start = "Error while parsing ";
  std::string_view scope, text = from_parser;
  if (const std::size_t colon = text.find(": "); text.starts_with(start) && colon != std::string_view::npos) {
    scope = text.substr(start.size(), colon - start.size());
    text.remove_prefix(colon + 2);
  }
  if (text.find("end-of-file") != std::string_view::npos ||
      text.find("end-of-line") != std::string_view::npos)
    return fmt::format("the {} ends inside {}", text.find("file") != std::string_view::npos ? "file" : "line",
                       in_our_words(scope, unfinished));
  if (text.starts_with("cannot redefine existing ")) {
    const std::size_t first = text.find('\''), last = text.find('\'', first + 1);
    if (last != std::string_view::npos)
      return fmt::format("\"{}\" is defined twice", text.substr(first + 1, last - first - 1));
  }
  constexpr std::string_view expected = "expected ", saw = ", saw ";
  if (const std::size_t at = text.rfind(saw); text.starts_with(expected) && at != std::string_view::npos) {
    const std::string_view found = in_our_words(text.substr(at + saw.size()), words_for_seen);
    return fmt::format(
        "{} expected here, not {}",
        in_double_quotes(in_our_words(text.substr(expected.size(), at - expected.size()), words_for_wanted)),
        in_double_quotes(found));
  }
  if (text.starts_with("unescaped control character"))
    return "the line ends inside a text; its closing quote is missing, or it holds a control character";
  if (text.find("leading zero") != std::string_view::npos) return "a number does not begin with 0";
  if (text.find("could not determine value type") != std::string_view::npos) return "a value expected here";
  return fmt::format("not valid TOML: {}", text);
}

}  // namespace vole
