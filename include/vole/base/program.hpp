// The running program.
#pragma once

#include <string>

namespace vole {

// The path of the running program; `called` is its argv[0], for systems that cannot tell.
std::string program_path(const std::string& called);

}  // namespace vole
