// The words of a command line, taken apart by a list of options. It reads what games answer and no more; the program vole, with
// its commands, has a library for this.
#pragma once

#include <functional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace vole {

struct OptionWord {
  enum class Value { none, needed, optional };

  std::string name;        // "--ticks"
  std::string value_name;  // "N", for the help
  Value value = Value::none;
  std::string help;
  // Takes the value, an empty one where there is none; returns what is wrong with it, or nothing.
  std::function<std::string(const std::string& value)> take;
};

// Takes all words after the program's name, as "--ticks 5" or "--ticks=5". Returns what is wrong, or nothing.
std::string take_words(std::span<const std::string> words, std::span<const OptionWord> options);

// What --help prints.
std::string help_text(std::string_view title, std::string_view program, std::span<const OptionWord> options);

// A whole number from 0 on of at most `most`; returns what is wrong.
std::string take_whole(const std::string& text, std::uint64_t least, std::uint64_t most,
                       std::uint64_t& number);

}  // namespace vole
