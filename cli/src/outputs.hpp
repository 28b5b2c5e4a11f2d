// What a command may write, and what it must leave alone.
#pragma once

#include <string>
#include <string_view>
#include <vector>

// Whether it can be the name of a file on every system, with nothing in it that TOML or C++ would take for more.
bool is_file_name(std::string_view name);

// Throws Error when the output is a file that the game in this folder consists of.
void expect_no_game_file(const std::string& output, const std::string& game_folder);
