// Man pages and completions, made from the same words as --help.
#include <fmt/core.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <vector>

#include "command.hpp"
#include "commands.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/version.hpp"

namespace {

std::vector<const CLI::App*> commands_of(const CLI::App& app) {
  std::vector<const CLI::App*> commands = app.get_subcommands({});
  std::erase_if(commands, [](const CLI::App* command) { return command->get_group().empty(); });
  return commands;
}

// Those with dashes; --help is among them.
std::vector<const CLI::Option*> switches_of(const CLI::App& command) {
  std::vector<const CLI::Option*> options = command.get_options();
  std::erase_if(options, [](const CLI::Option* option) { return option->get_positional(); });
  return options;
}

std::vector<const CLI::Option*> words_of(const CLI::App& command) {
  std::vector<const CLI::Option*> options = command.get_options();
  std::erase_if(options, [](const CLI::Option* option) { return !option->get_positional(); });
  return options;
}

std::vector<std::string> names_of(const CLI::Option& option) {
  std::vector<std::string> names;
  for (const std::string& name : option.get_snames()) names.push_back("-" + name);
  for (const std::string& name : option.get_lnames()) names.push_back("--" + name);
  return names;
}

bool takes_value(const CLI::Option& option) {
  return option.get_items_expected_max() > 0;
}

// "side" and "top" of an option that is one of them: what the parser calls its type is "TEXT:{side,top}".
std::vector<std::string> choices_of(const CLI::Option& option) {
  const std::string type = option.get_type_name();
  const std::size_t open = type.find('{'), close = type.find('}');
  std::vector<std::string> choices;
  if (open == std::string::npos || close == std::string::npos) return choices;
  for (std::size_t at = open + 1; at < close;) {
    const std::size_t end = std::min(type.find(',', at), close);
    choices.push_back(type.substr(at, end - at));
    at = end + 1;
  }
  return choices;
}

// What stands for its value: FILE, DIR, or the words it may be.
std::string value_of(const CLI::Option& option) {
  const std::vector<std::string> choices = choices_of(option);
  if (!choices.empty()) return vole::joined(choices, "|");
  const std::string type = option.get_type_name();
  return type.substr(0, type.find_first_of(": "));
}

// Man pages are written in roff: a dash is a minus sign, a line must not begin with a dot, a backslash is doubled.
std::string roff(std::string_view text) {
  std::string out;
  for (const char c : text) {
    if (c == '\\')
      out += "\\\\";
    else if (c == '-')
      out += "\\-";
    else if (c == '\'' && (out.empty() || out.back() == '\n'))
      out += "\\&'";
    else if (c == '.' && (out.empty() || out.back() == '\n'))
      out += "\\&.";
    else
      out += c;
  }
  return out;
}

std::string bold(std::string_view text) {
  return fmt::format("\\fB{}\\fR", roff(text));
}

std::string title_line(const std::string& page) {
  std::string upper = page;
  for (char& c : upper)
    if (c >= 'a' && c <= 'z') c = static_cast<char>(c - 'a' + 'A');
  return fmt::format(".TH {} 1 \"\" \"vole {}\" \"Vole\"\n", upper, vole::version);
}

constexpr std::string_view exit_codes =
    ".SH EXIT STATUS\n.TP\n0\nDone, and nothing is wrong.\n.TP\n1\nSomething is wrong with the files, or "
    "could not be "
    "done; what and where is said on the error output, or by\n.B vole check\non the standard "
    "output.\n.TP\n2\nThe "
    "command was not understood.\n";

std::string option_lines(const CLI::App& command) {
  std::string text;
  for (const CLI::Option* option : words_of(command))
    text +=
        fmt::format(".TP\n\\fI{}\\fR\n{}.\n", roff(option->get_name(true)), roff(option->get_description()));
  for (const CLI::Option* option : switches_of(command)) {
    std::vector<std::string> names;
    for (const std::string& name : names_of(*option)) names.push_back(bold(name));
    text += fmt::format(".TP\n{}", vole::joined(names, ", "));
    if (takes_value(*option)) text += fmt::format(" \\fI{}\\fR", roff(value_of(*option)));
    text += fmt::format("\n{}.", roff(option->get_description()));
    if (!option->get_default_str().empty())
      text += fmt::format(" When left out: {}.", roff(option->get_default_str()));
    text += "\n";
  }
  return text;
}

std::string synopsis(const CLI::App& command) {
  std::string line = fmt::format(".B vole {}\n", command.get_name());
  for (const CLI::Option* option : words_of(command)) {
    const std::string word = fmt::format("\\fI{}\\fR", roff(option->get_name(true)));
    line += option->get_required() ? fmt::format("{} ", word) : fmt::format("[{}] ", word);
  }
  return line + "[\\fIoptions\\fR]\n";
}

std::string command_page(const CLI::App& command) {
  const std::string name = fmt::format("vole-{}", command.get_name());
  const std::string footer = command.get_footer();
  const std::string examples = footer.substr(std::min(footer.find('\n') + 1, footer.size()));
  return title_line(name) +
         fmt::format(".SH NAME\n{} \\- {}\n", roff(name), roff(command.get_description())) +
         ".SH SYNOPSIS\n" + synopsis(command) + ".SH OPTIONS\n" + option_lines(command) +
         fmt::format(".SH EXAMPLES\n.nf\n{}\n.fi\n", roff(examples)) + std::string(exit_codes) +
         ".SH SEE ALSO\n.BR vole (1)\n";
}

std::string main_page(const CLI::App& app) {
  std::string text = title_line("vole");
  text +=
      ".SH NAME\nvole \\- make 2D games in C++\n.SH SYNOPSIS\n.B vole\n\\fIcommand\\fR "
      "[\\fIoptions\\fR]\n.br\n"
      ".B vole \\-\\-version\n.SH COMMANDS\n";
  std::string also;
  for (const CLI::App* command : commands_of(app)) {
    text += fmt::format(".TP\n{}\n{}.\n", bold(command->get_name()), roff(command->get_description()));
    also += fmt::format("{}.BR vole\\-{} (1)", also.empty() ? "" : ",\n", roff(command->get_name()));
  }
  return text + std::string(exit_codes) + ".SH SEE ALSO\n" + also + "\n";
}

std::string bash(const CLI::App& app) {
  std::vector<std::string> names;
  std::string cases;
  for (const CLI::App* command : commands_of(app)) {
    names.push_back(command->get_name());
    std::vector<std::string> words;
    std::string values;
    for (const CLI::Option* option : switches_of(*command)) {
      const std::vector<std::string> own = names_of(*option);
      words.insert(words.end(), own.begin(), own.end());
      if (const std::vector<std::string> choices = choices_of(*option); !choices.empty())
        values += fmt::format("        {}) COMPREPLY=($(compgen -W \"{}\" -- \"$word\")); return ;;\n",
                              vole::joined(own, "|"), vole::joined(choices, " "));
    }
    cases += fmt::format("    {})\n      case \"$before\" in\n{}      esac\n      options=\"{}\" ;;\n",
                         command->get_name(), values, vole::joined(words, " "));
  }
  return fmt::format(
      "# Completes the words of vole in bash.\n"
      "_vole() {{\n"
      "  local word=\"${{COMP_WORDS[COMP_CWORD]}}\" before=\"${{COMP_WORDS[COMP_CWORD-1]}}\" options=\"\"\n"
      "  if [ \"$COMP_CWORD\" -eq 1 ]; then\n"
      "    COMPREPLY=($(compgen -W \"{} --help --version\" -- \"$word\"))\n"
      "    return\n"
      "  fi\n"
      "  case \"${{COMP_WORDS[1]}}\" in\n"
      "{}"
      "  esac\n"
      "  if [[ \"$word\" == -* ]]; then\n"
      "    COMPREPLY=($(compgen -W \"$options\" -- \"$word\"))\n"
      "  else\n"
      "    COMPREPLY=($(compgen -f -- \"$word\"))\n"
      "  fi\n"
      "}}\n"
      "complete -o filenames -F _vole vole\n",
      vole::joined(names, " "), cases);
}

// In single quotes of a shell, with what zsh's _arguments reads as its own marked.
std::string for_zsh(std::string_view text) {
  std::string out;
  for (const char c : text) {
    if (c == '\'')
      out += "'\\''";
    else if (c == '[' || c == ']' || c == ':')
      out += fmt::format("\\{}", c);
    else
      out += c;
  }
  return out;
}

std::string zsh(const CLI::App& app) {
  std::string list, cases;
  for (const CLI::App* command : commands_of(app)) {
    list += fmt::format("    '{}:{}'\n", command->get_name(), for_zsh(command->get_description()));
    std::string arguments;
    for (const CLI::Option* option : switches_of(*command))
      for (const std::string& name : names_of(*option)) {
        const std::vector<std::string> choices = choices_of(*option);
        std::string value;
        if (takes_value(*option))
          value = choices.empty() ? fmt::format(":{}:_files", for_zsh(value_of(*option)))
                                  : fmt::format(":word:({})", vole::joined(choices, " "));
        arguments += fmt::format(" \\\n        '{}[{}]{}'", name, for_zsh(option->get_description()), value);
      }
    cases += fmt::format("    {})\n      _arguments{} \\\n        '*:file:_files' ;;\n", command->get_name(),
                         arguments);
  }
  return fmt::format(
      "#compdef vole\n"
      "# Completes the words of vole in zsh.\n"
      "_vole() {{\n"
      "  local -a commands\n"
      "  commands=(\n{}  )\n"
      "  if (( CURRENT == 2 )); then\n"
      "    _describe command commands\n"
      "    return\n"
      "  fi\n"
      "  local command=$words[2]\n"
      "  shift words\n"
      "  (( CURRENT-- ))\n"
      "  case $command in\n{}"
      "  esac\n"
      "}}\n"
      "_vole \"$@\"\n",
      list, cases);
}

std::string for_fish(std::string_view text) {
  std::string out;
  for (const char c : text) {
    if (c == '\'' || c == '\\') out += '\\';
    out += c;
  }
  return out;
}

std::string fish(const CLI::App& app) {
  std::string text = "# Completes the words of vole in fish.\n";
  for (const CLI::App* command : commands_of(app))
    text += fmt::format("complete -c vole -n __fish_use_subcommand -f -a {} -d '{}'\n", command->get_name(),
                        for_fish(command->get_description()));
  for (const CLI::App* command : commands_of(app))
    for (const CLI::Option* option : switches_of(*command)) {
      text += fmt::format("complete -c vole -n '__fish_seen_subcommand_from {}'", command->get_name());
      for (const std::string& name : option->get_snames()) text += fmt::format(" -s {}", name);
      for (const std::string& name : option->get_lnames()) text += fmt::format(" -l {}", name);
      const std::vector<std::string> choices = choices_of(*option);
      if (!choices.empty())
        text += fmt::format(" -x -a '{}'", vole::joined(choices, " "));
      else if (takes_value(*option))
        text += " -r";
      text += fmt::format(" -d '{}'\n", for_fish(option->get_description()));
    }
  return text;
}

// vole.1 and vole-COMMAND.1 for each command, vole.bash, _vole (zsh) and vole.fish.
void write_help_files(const CLI::App& app, const std::string& folder) {
  vole::FileSet files;
  files.add(vole::join_path(folder, "vole.1"), main_page(app));
  for (const CLI::App* command : commands_of(app))
    files.add(vole::join_path(folder, fmt::format("vole-{}.1", command->get_name())), command_page(*command));
  files.add(vole::join_path(folder, "vole.bash"), bash(app));
  files.add(vole::join_path(folder, "_vole"), zsh(app));
  files.add(vole::join_path(folder, "vole.fish"), fish(app));
  files.put_in_place();
}

}  // namespace

// For the build that installs them; not among the commands that are listed.
void add_help_files(CommandLine& line) {
  const auto folder = std::make_shared<std::string>();
  Command command =
      line.add("help-files", "Write the man pages, and the files by which shells complete these words",
               "  vole help-files -o help", [&line, folder] {
                 write_help_files(line.app(), *folder);
                 return 0;
               });
  command.hide();
  command.word("-o,--output", *folder, "The folder to put them in").needed();
}
