// What the TOML parser says about a file that is not TOML, in the words of our messages.
#pragma once

#include <string>
#include <string_view>

namespace vole {

// "Error while parsing array: expected comma or closing ']', saw 'b'" gives
// "a comma or \"]\" expected here, not \"b\"".
std::string toml_message(std::string_view from_parser);

}  // namespace vole
