#include "option_words.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <charconv>

#include "vole/app/options.hpp"
#include "vole/base/names.hpp"

namespace vole {
namespace {

constexpr std::size_t help_column = 26, help_width = 100;

bool is_option(const std::string& word) {
  return word.size() > 1 && word.front() == '-';
}

std::vector<std::string> names_with_help(std::span<const OptionWord> options) {
  std::vector<std::string> names{"--help"};
  for (const OptionWord& option : options) names.push_back(option.name);
  return names;
}

// The text in lines, each after the first begun at the column of help.
std::string wrapped(std::string_view text) {
  std::string out;
  std::size_t width = help_column;
  while (!text.empty()) {
    const std::size_t end = std::min(text.find(' '), text.size());
    if (width + end >= help_width) {
      out += '\n' + std::string(help_column, ' ');
      width = help_column;
    } else if (width > help_column) {
      out += ' ';
    }
    out += text.substr(0, end);
    width += end + 1;
    text.remove_prefix(std::min(end + 1, text.size()));
  }
  return out;
}

std::string help_line(std::string_view name, std::string_view help) {
  std::string line = fmt::format("  {}", name);
  line += line.size() + 2 > help_column ? '\n' + std::string(help_column, ' ')
                                        : std::string(help_column - line.size(), ' ');
  return line + wrapped(help) + '\n';
}

}  // namespace

std::string take_words(std::span<const std::string> words, std::span<const OptionWord> options) {
  for (std::size_t i = 0; i < words.size(); ++i) {
    const std::size_t equals = words[i].find('=');
    const std::string name = words[i].substr(0, equals);
    const auto option = std::find_if(options.begin(), options.end(),
                                     [&name](const OptionWord& each) { return each.name == name; });
    if (option == options.end()) return not_understood(words[i], names_with_help(options));
    std::string value;
    const bool value_follows = i + 1 < words.size() && !is_option(words[i + 1]);
    if (equals != std::string::npos) {
      if (option->value == OptionWord::Value::none) return fmt::format("{} takes no value", name);
      value = words[i].substr(equals + 1);
    } else if (option->value == OptionWord::Value::needed) {
      if (i + 1 == words.size())
        return fmt::format("{} needs a value: {} {}", name, name, option->value_name);
      value = words[++i];
    } else if (option->value == OptionWord::Value::optional && value_follows) {
      value = words[++i];
    }
    if (const std::string wrong = option->take(value); !wrong.empty())
      return fmt::format("{}: {}", name, wrong);
  }
  return {};
}

std::string help_text(std::string_view title, std::string_view program, std::span<const OptionWord> options) {
  std::string text = fmt::format("{}\nUsage: {} [OPTIONS]\n\nOptions:\n", title, program);
  text += help_line("-h, --help", "Print this, and end");
  for (const OptionWord& option : options)
    text += help_line(option.value == OptionWord::Value::none
                          ? option.name
                          : fmt::format("{} {}", option.name, option.value_name),
                      option.help);
  return text;
}

std::string take_whole(const std::string& text, std::uint64_t least, std::uint64_t most,
                       std::uint64_t& number) {
  const char* const end = text.data() + text.size();
  std::uint64_t read_here = 0;
  const auto parsed = std::from_chars(text.data(), end, read_here);
  if (parsed.ec != std::errc{} || parsed.ptr != end || read_here < least || read_here > most)
    return fmt::format("a whole number from {} to {} is wanted, not \"{}\"", least, most, text);
  number = read_here;
  return {};
}

}  // namespace vole
