// The program `vole`: starts games, checks them, shows their files as pictures, packs them.
#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <cstdio>

#include "commands.hpp"
#include "outputs.hpp"
#include "vole/app/project.hpp"
#include "vole/asset/image.hpp"
#include "vole/base/error.hpp"
#include "vole/base/program.hpp"
#include "vole/version.hpp"

namespace {

int run(int argc, char** argv) {
  const std::string program = vole::program_path(argv[0]);
  CLI::App app("Vole: make 2D games in C++");
  app.set_version_flag("--version", "vole " + std::string(vole::version));
  app.require_subcommand(1);
  int code = 0;

  NewOptions new_options;
  CLI::App* const new_command = app.add_subcommand("new", "Write a small game that builds and runs");
  new_command->add_option("DIR", new_options.folder, "The folder to make; its name becomes the game's id")
      ->required();
  new_command->add_option("--title", new_options.title,
                          "The game's title; made from the folder's name when left out");
  new_command->callback([&] { code = new_game(new_options, program); });

  CheckOptions check_options;
  CLI::App* const check_command =
      app.add_subcommand("check", "Read every file of a game and report everything that is wrong");
  check_command->add_option("DIR", check_options.folder, "The game's folder; here when left out");
  check_command->add_flag("--json", check_options.json, "Print what was found as JSON");
  check_command->callback([&] { code = check(check_options); });

  PreviewOptions preview_options;
  CLI::App* const preview_command = app.add_subcommand(
      "preview",
      "Show a sheet, font, atlas, picture, tileset or level as a PNG, or clips in motion as a GIF");
  preview_command
      ->add_option("FILE", preview_options.file,
                   "NAME.sheet.toml, .font.toml, .atlas.toml, .png, .tileset.toml or .level.toml")
      ->required();
  preview_command->add_option("-o,--output", preview_options.output, "The PNG or GIF to write")->required();
  preview_command->add_option("--clip", preview_options.clip, "Only this clip or set of a sheet")
      ->type_name("NAME");
  preview_command
      ->add_option("--show", preview_options.show,
                   "Of a sheet: all of it, its clips on one line, or its clip rules")
      ->check(CLI::IsMember({"all", "baseline", "rules"}))
      ->capture_default_str();
  preview_command->add_flag("--watch", preview_options.watch,
                            "Draw again whenever a file of the game changes");
  preview_command->callback([&] { code = preview(preview_options); });

  AtlasOptions atlas_options;
  CLI::App* const atlas_command =
      app.add_subcommand("atlas", "Pack pictures onto pages, and write a C++ header of a game's names");
  atlas_command->add_option("DIR", atlas_options.folder, "A game's folder, or a folder of pictures")
      ->required();
  auto* const atlas_output =
      atlas_command->add_option("-o,--output", atlas_options.output, "The folder for pages and sheet file");
  auto* const atlas_header = atlas_command->add_option(
      "--header", atlas_options.header, "Where the header goes; alone: write nothing but the header");
  atlas_command->add_option("--name", atlas_options.name, "What the files are called")
      ->check(CLI::Validator(
          [](const std::string& name) {
            return is_file_name(name)
                       ? std::string()
                       : "is made of letters, digits, '-', '_' and '.', and begins with no '.'";
          },
          "NAME"))
      ->capture_default_str();
  atlas_command->add_option("--page", atlas_options.page, "The most pixels along a side of a page")
      ->check(CLI::Range(16, vole::Image::longest_side))
      ->capture_default_str();
  atlas_command->callback([&] {
    if (atlas_output->empty() && atlas_header->empty()) throw CLI::RequiredError("--output or --header");
    code = atlas(atlas_options);
  });

  SchemaOptions schema_options;
  CLI::App* const schema_command =
      app.add_subcommand("schema", "Write JSON Schemas of all files, for editors that complete and check");
  schema_command->add_option("-o,--output", schema_options.output, "The folder to put them in")
      ->capture_default_str();
  schema_command->callback([&] { code = schema(schema_options); });

  PackageOptions package_options;
  CLI::App* const package_command = app.add_subcommand("package", "Make the build to send");
  package_command->add_option("DIR", package_options.folder, "The game's folder; here when left out");
  package_command->add_option("--target", package_options.target, "What it is for")
      ->check(CLI::IsMember({"linux"}))
      ->capture_default_str();
  package_command->add_option("-o,--output", package_options.output, "The folder to put it in")
      ->capture_default_str();
  package_command
      ->add_option("--program", package_options.program, "Pack this program instead of building one")
      ->type_name("FILE");
  package_command->callback([&] { code = package(package_options, program); });

  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return app.exit(error) == 0 ? 0 : 2;
  }
  return code;
}

}  // namespace

int main(int argc, char** argv) {
  vole::clean_up_on_signals();
  try {
    return vole::with_output_written(run(argc, argv));
  } catch (const vole::Error& error) {
    fmt::print(stderr, "{}\n", error.what());
  } catch (const std::exception& error) {
    fmt::print(stderr, "error: {}\n", error.what());
  }
  return 1;
}
