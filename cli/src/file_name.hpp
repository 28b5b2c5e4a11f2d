#pragma once

#include <string_view>

// Whether it can be the name of a file on every system, with nothing in it that TOML or C++ would take for more.
bool is_file_name(std::string_view name);
