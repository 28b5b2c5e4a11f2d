// How a command of `vole` declares its words, beside what it does with them; what parses them is in command_line.cpp.
//
//   void add_schema(CommandLine& line) {
//     const auto output = std::make_shared<std::string>(".");
//     Command command = line.add("schema", "Write JSON Schemas of all files", "  vole schema -o schemas",
//                                [output] { return write_schemas(*output); });
//     command.word("-o,--output", *output, "The folder to put them in").value_name("DIR").shows_default();
//   }
#pragma once

#include <functional>
#include <memory>
#include <stdexcept>
#include <string>
#include <vector>

namespace CLI {
class App;
class Option;
}  // namespace CLI

// Thrown by a command whose words do not go together: it is reported as any other wrong word is, with exit code 2.
struct WrongUsage : std::runtime_error {
  using std::runtime_error::runtime_error;
};

// One word of a command: an option with its value, or what stands by itself.
class CommandWord {
 public:
  explicit CommandWord(CLI::Option& option) : option_(&option) {}

  CommandWord& needed();
  // What stands for the value in --help.
  CommandWord& value_name(const char* name);
  CommandWord& one_of(const std::vector<std::string>& words);
  CommandWord& within(int least, int most);
  // `wrong` returns what is wrong with a value, or nothing.
  CommandWord& checked_by(std::function<std::string(const std::string& value)> wrong);
  // --help tells the value that it has when it is left out.
  CommandWord& shows_default();
  CommandWord& shows_default(const char* text);
  // Each time it is given it takes one value.
  CommandWord& one_each_time();

 private:
  CLI::Option* option_;
};

class Command {
 public:
  explicit Command(CLI::App& app) : app_(&app) {}

  // "DIR" stands by itself; "-o,--output" comes before its value. What is given goes into the variable, which must live as long as
  // the command's work.
  CommandWord word(const char* names, std::string& into, const char* help);
  CommandWord word(const char* names, std::vector<std::string>& into, const char* help);
  CommandWord word(const char* names, int& into, const char* help);
  void flag(const char* name, bool& into, const char* help);
  // Not among the commands that are listed.
  void hide();

 private:
  CLI::App* app_;
};

// The commands of `vole`.
class CommandLine {
 public:
  // `tool` is the path of the program itself.
  explicit CommandLine(std::string tool);
  ~CommandLine();
  CommandLine(const CommandLine&) = delete;
  CommandLine& operator=(const CommandLine&) = delete;

  // `work` returns the exit code: 0, or 1 when it found something wrong; what it cannot do it throws as vole::Error.
  Command add(const char* name, const char* description, const char* examples, std::function<int()> work);

  const std::string& tool() const { return tool_; }
  const CLI::App& app() const { return *app_; }
  // Runs the command and returns the exit code: what the command returns, or 2 for words that are none.
  int run(int argc, char** argv);

 private:
  bool is_command(const std::string& word) const;
  // What is said when no command is named, or one that there is not; empty otherwise.
  std::string wrong_command(int argc, char** argv) const;
  // The same for an option that there is not.
  std::string wrong_option() const;

  std::string tool_;
  std::unique_ptr<CLI::App> app_;
  int code_ = 0;
};
