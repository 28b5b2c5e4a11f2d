#include "command_line.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cstdio>

#include "help_files.hpp"
#include "outputs.hpp"
#include "vole/app/options.hpp"
#include "vole/asset/image.hpp"
#include "vole/base/names.hpp"
#include "vole/version.hpp"

CommandLine::CommandLine(std::string tool)
    : tool_(std::move(tool)), app_("Vole: make 2D games in C++", "vole") {
  app_.set_version_flag("--version", "vole " + std::string(vole::version));
  app_.require_subcommand(0, 1);
  app_.footer(
      "`vole COMMAND --help` says more about each. Exit codes: 0 done and nothing wrong; 1 something is "
      "wrong\n"
      "with the files, or could not be done; 2 the command was not understood.");
  add_new();
  add_check();
  add_preview();
  add_recording();
  add_level();
  add_atlas();
  add_schema();
  add_package();
  add_setup();
  add_help_files();
}

CLI::App* CommandLine::add(const char* name, const char* description, const char* examples,
                           std::function<int()> work) {
  CLI::App* const command = app_.add_subcommand(name, description);
  command->footer(fmt::format("Examples:\n{}", examples));
  command->callback([this, work = std::move(work)] { code_ = work(); });
  return command;
}

void CommandLine::add_new() {
  CLI::App* const command = add("new", "Write a small game that builds and runs",
                                "  vole new my-game\n"
                                "  vole new my-game --title \"The Long Way Home\" --view top",
                                [this] { return new_game(new_, tool_); });
  command->add_option("DIR", new_.folder, "The folder to make; its name becomes the game's id")->required();
  command->add_option("--title", new_.title, "The game's title; made from the folder's name when left out")
      ->type_name("TEXT");
  command->add_option("--view", new_.view, "Whether the game is seen from the side or from the top")
      ->check(CLI::IsMember({"side", "top"}))
      ->capture_default_str();
}

void CommandLine::add_check() {
  CLI::App* const command = add("check", "Read every file of a game and report everything that is wrong",
                                "  vole check\n"
                                "  vole check my-game --json",
                                [this] { return check(check_); });
  command->add_option("DIR", check_.folder, "The game's folder; here when left out");
  command->add_flag("--json", check_.json, "Print what was found as JSON");
}

void CommandLine::add_preview() {
  CLI::App* const command = add(
      "preview", "Show a sheet, font, atlas, picture, tileset or level as a PNG, or clips in motion as a GIF",
      "  vole preview assets/robin.sheet.toml -o robin.png\n"
      "  vole preview assets/robin.sheet.toml --clip hop -o hop.gif --watch\n"
      "  vole preview levels/wall.level.toml -o wall.png",
      [this] { return preview(preview_); });
  command
      ->add_option("FILE", preview_.file,
                   "NAME.sheet.toml, .font.toml, .atlas.toml, .png, .tileset.toml, .level.toml or kinds.toml")
      ->required();
  command->add_option("-o,--output", preview_.output, "The PNG or GIF to write")
      ->type_name("FILE")
      ->required();
  command->add_option("--clip", preview_.clip, "Only this clip or set of a sheet")->type_name("NAME");
  command
      ->add_option(
          "--kind", preview_.kind,
          "Only this kind of kinds.toml, with its fields and where they are written; of a level: who gets "
          "where, with --show reach")
      ->type_name("NAME");
  command
      ->add_option(
          "--show", preview_.show,
          "Of a sheet: all of it, its clips on one line, its clip rules, or the bodies of what "
          "shows it; of a "
          "level: what is solid, its light, or where --kind gets to; of a tileset: the cases of its groups; "
          "of kinds.toml: how --kind jumps, or its mind")
      ->check(
          CLI::IsMember({"all", "baseline", "edges", "jump", "light", "mind", "reach", "rules", "shapes"}))
      ->capture_default_str();
  command->add_flag("--watch", preview_.watch, "Draw again whenever a file of the game changes");
}

void CommandLine::add_recording() {
  CLI::App* const command = add("recording", "Say what recordings hold, and of two where they part",
                                "  vole recording recordings/harvest.run\n"
                                "  vole recording before.run after.run --game build/my-game",
                                [this] { return show_recordings(recording_); });
  command->add_option("FILE", recording_.files, "Recordings, as --record writes them")->required();
  command->add_option("--game", recording_.game, "The game's program: it plays two recordings side by side")
      ->type_name("PROGRAM");
}

void CommandLine::add_level() {
  CLI::App* const command =
      add("level", "Make a level of pictures, or of CSV with numbers, that were drawn elsewhere",
          "  vole level import ground.png --table garden.toml -o my-game/levels/garden.level.toml\n"
          "  vole level import back.csv front.csv --table garden.toml -o my-game/levels/garden.level.toml\n\n"
          "The table says what each colour or number stands for:\n\n"
          "  tileset = \"garden\"\n"
          "  [colours]\n"
          "  \"#3f5a36\" = \"turf\"\n"
          "  \"#b3485a\" = { kind = \"berry\" }\n"
          "  [numbers]\n"
          "  0 = \"\"\n"
          "  17 = \"rise, mirrored\"",
          [this] { return import_level(import_); });
  command->add_option("WORK", import_.work, "What to do")->check(CLI::IsMember({"import"}))->required();
  command->add_option("FILE", import_.files, "A PNG or CSV: each becomes a layer of its name")->required();
  command->add_option("--table", import_.table, "The table, as TOML")->type_name("FILE")->required();
  command->add_option("-o,--output", import_.output, "The level to write: levels/NAME.level.toml of a game")
      ->type_name("FILE")
      ->required();
}

void CommandLine::add_atlas() {
  CLI::App* const command = add("atlas", "Pack pictures onto pages, and write a C++ header of a game's names",
                                "  vole atlas my-game -o my-game/packed\n"
                                "  vole atlas pictures -o packed --name icons --page 2048\n"
                                "  vole atlas my-game --header src/names.hpp",
                                [this] {
                                  if (atlas_.output.empty() && atlas_.header.empty())
                                    throw CLI::RequiredError("--output or --header");
                                  return atlas(atlas_);
                                });
  command->add_option("DIR", atlas_.folder, "A game's folder, or a folder of pictures")->required();
  command->add_option("-o,--output", atlas_.output, "The folder for pages and sheet file")->type_name("DIR");
  command->add_option("--header", atlas_.header, "Where the header goes; alone: write nothing but the header")
      ->type_name("FILE");
  command->add_option("--name", atlas_.name, "What the files are called")
      ->check(CLI::Validator(
          [](const std::string& name) {
            return is_file_name(name)
                       ? std::string()
                       : "is made of letters, digits, '-', '_' and '.', and begins with no '.'";
          },
          "NAME"))
      ->capture_default_str();
  command->add_option("--page", atlas_.page, "The most pixels along a side of a page")
      ->check(CLI::Range(16, vole::Image::longest_side))
      ->capture_default_str();
}

void CommandLine::add_schema() {
  CLI::App* const command =
      add("schema", "Write JSON Schemas of all files, for editors that complete and check",
          "  vole schema -o schemas", [this] { return schema(schema_); });
  command->add_option("-o,--output", schema_.output, "The folder to put them in")
      ->type_name("DIR")
      ->capture_default_str();
}

void CommandLine::add_package() {
  CLI::App* const command =
      add("package", "Make the build to send",
          "  vole package my-game -o builds\n"
          "  vole package my-game --target linux --target windows -o builds\n"
          "  vole package my-game --target web --serve",
          [this] {
            const auto& targets = package_.targets;
            if (package_.serve && std::find(targets.begin(), targets.end(), "web") == targets.end())
              throw CLI::ValidationError("--serve", "shows the page of --target web");
            if (!package_.program.empty() && targets.size() > 1)
              throw CLI::ValidationError("--program", "is for one --target");
            return package(package_, tool_);
          });
  command->add_option("DIR", package_.folder, "The game's folder; here when left out");
  command->add_option("--target", package_.targets, "What it is for; may be given more than once")
      ->check(CLI::IsMember({"linux", "web", "windows"}))
      ->allow_extra_args(false)
      ->type_name("TARGET")
      ->default_str("linux");
  command->add_option("-o,--output", package_.output, "The folder to put it in")
      ->type_name("DIR")
      ->capture_default_str();
  command->add_option("--program", package_.program, "Pack this program instead of building one")
      ->type_name("FILE");
  command->add_flag("--serve", package_.serve, "Show the page of --target web to browsers of this machine");
}

void CommandLine::add_setup() {
  CLI::App* const command = add("setup", "Install and build, once, what packages for other systems need",
                                "  vole setup web\n"
                                "  vole setup windows",
                                [this] { return setup(setup_, tool_); });
  command->add_option("TARGET", setup_.target, "The system")
      ->check(CLI::IsMember({"web", "windows"}))
      ->required();
}

// For the build that installs them; not among the commands that are listed.
void CommandLine::add_help_files() {
  CLI::App* const command =
      add("help-files", "Write the man pages, and the files by which shells complete these words",
          "  vole help-files -o help", [this] { return write_help_files(app_, help_folder_); });
  command->group("");
  command->add_option("-o,--output", help_folder_, "The folder to put them in")->required();
}

bool CommandLine::is_command(const std::string& word) const {
  const std::vector<const CLI::App*> all = app_.get_subcommands({});
  return std::any_of(all.begin(), all.end(),
                     [&](const CLI::App* command) { return command->get_name() == word; });
}

std::string CommandLine::wrong_command(int argc, char** argv) const {
  std::vector<std::string> names;
  std::string list;
  for (const CLI::App* command : app_.get_subcommands({})) {
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
  const std::vector<CLI::App*> chosen = app_.get_subcommands();
  const CLI::App& command = chosen.empty() ? app_ : *chosen.front();
  std::vector<std::string> names;
  for (const CLI::Option* option : command.get_options())
    for (const std::string& name : option->get_lnames()) names.push_back("--" + name);
  const std::vector<std::string> left = app_.remaining(true);
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
    app_.parse(argc, argv);
  } catch (const CLI::ExtrasError&) {
    fmt::print(stderr, "{}", wrong_option());
    return 2;
  } catch (const CLI::ParseError& error) {
    return app_.exit(error) == 0 ? 0 : 2;
  }
  return code_;
}
