#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cstdio>

#include "command.hpp"
#include "vole/app/options.hpp"
#include "vole/base/names.hpp"
#include "vole/version.hpp"

CommandWord& CommandWord::needed() {
  option_->required();
  return *this;
}
CommandWord& CommandWord::value_name(const char* name) {
  option_->type_name(name);
  return *this;
}
CommandWord& CommandWord::one_of(const std::vector<std::string>& words) {
  option_->check(CLI::IsMember(words));
  return *this;
}
CommandWord& CommandWord::within(int least, int most) {
  option_->check(CLI::Range(least, most));
  return *this;
}
CommandWord& CommandWord::checked_by(std::function<std::string(const std::string& value)> wrong) {
  option_->check(CLI::Validator(std::move(wrong), "NAME"));
  return *this;
}
CommandWord& CommandWord::shows_default() {
  option_->capture_default_str();
  return *this;
}
CommandWord& CommandWord::shows_default(const char* text) {
  option_->default_str(text);
  return *this;
}
CommandWord& CommandWord::one_each_time() {
  option_->allow_extra_args(false);
  return *this;
}

CommandWord Command::word(const char* names, std::string& into, const char* help) {
  return CommandWord(*app_->add_option(names, into, help));
}
CommandWord Command::word(const char* names, std::vector<std::string>& into, const char* help) {
  return CommandWord(*app_->add_option(names, into, help));
}
CommandWord Command::word(const char* names, int& into, const char* help) {
  return CommandWord(*app_->add_option(names, into, help));
}
void Command::flag(const char* name, bool& into, const char* help) {
  app_->add_flag(name, into, help);
}
void Command::hide() {
  app_->group("");
}

CommandLine::CommandLine(std::string tool)
    : tool_(std::move(tool)), app_(std::make_unique<CLI::App>("Vole: make 2D games in C++", "vole")) {
  app_->set_version_flag("--version", "vole " + std::string(vole::version));
  app_->require_subcommand(0, 1);
  app_->footer(
      "`vole COMMAND --help` says more about each. Exit codes: 0 done and nothing wrong; 1 something is "
      "wrong\n"
      "with the files, or could not be done; 2 the command was not understood.");
}
CommandLine::~CommandLine() = default;

Command CommandLine::add(const char* name, const char* description, const char* examples,
                         std::function<int()> work) {
  CLI::App* const command = app_->add_subcommand(name, description);
  command->footer(fmt::format("Examples:\n{}", examples));
  command->callback([this, work = std::move(work)] {
    try {
      code_ = work();
    } catch (const WrongUsage& wrong) {
      throw CLI::ValidationError(wrong.what());
    }
  });
  return Command(*command);
}

bool CommandLine::is_command(const std::string& word) const {
  const std::vector<const CLI::App*> all = app().get_subcommands({});
  return std::any_of(all.begin(), all.end(),
                     [&](const CLI::App* command) { return command->get_name() == word; });
}

std::string CommandLine::wrong_command(int argc, char** argv) const {
  std::vector<std::string> names;
  std::string list;
  for (const CLI::App* command : app().get_subcommands({})) {
    if (command->get_group().empty()) continue;  // help-files
    names.push_back(command->get_name());
    list += fmt::format("  {:<9} {}\n", command->get_name(), command->get_description());
  }
  const std::string first = argc > 1 ? argv[1] : "";
  if (first.starts_with('-') || is_command(first)) return {};
  // A word that is cut short means the command that begins with it.
  const auto longer = std::find_if(names.begin(), names.end(), [&](const std::string& name) {
    return first.size() > 2 && name.starts_with(first);
  });
  const std::string hint =
      longer != names.end() ? fmt::format("did you mean \"{}\"?", *longer) : vole::did_you_mean(first, names);
  const std::string wrong =
      first.empty() ? "which command?" : fmt::format("no command \"{}\"; {}", first, hint);
  return fmt::format("vole: {}\n\n{}\n`vole COMMAND --help` says more about each.\n", wrong, list);
}

std::string CommandLine::wrong_option() const {
  const std::vector<CLI::App*> chosen = app_->get_subcommands();
  const CLI::App& command = chosen.empty() ? *app_ : *chosen.front();
  std::vector<std::string> names;
  for (const CLI::Option* option : command.get_options())
    for (const std::string& name : option->get_lnames()) names.push_back("--" + name);
  const std::vector<std::string> left = app_->remaining(true);
  return fmt::format("{}: {}\nRun with --help for more information.\n",
                     chosen.empty() ? "vole" : "vole " + command.get_name(),
                     vole::not_understood(left.empty() ? std::string() : left.front(), names));
}

int CommandLine::run(int argc, char** argv) {
  if (const std::string wrong = wrong_command(argc, argv); !wrong.empty()) {
    fmt::print(stderr, "{}", wrong);
    return 2;
  }
  try {
    app_->parse(argc, argv);
  } catch (const CLI::ExtrasError&) {
    fmt::print(stderr, "{}", wrong_option());
    return 2;
  } catch (const CLI::ParseError& error) {
    return app_->exit(error) == 0 ? 0 : 2;
  }
  return code_;
}
