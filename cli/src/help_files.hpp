// Man pages and completions, made from the same words as --help.
#pragma once

#include <CLI/CLI.hpp>
#include <string>

// vole.1 and vole-COMMAND.1 for each command, vole.bash, _vole (zsh) and vole.fish in the folder. Returns 0.
int write_help_files(const CLI::App& app, const std::string& folder);
