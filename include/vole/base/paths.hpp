// Paths are UTF-8 everywhere in Vole, on every system; here they become the system's own and back.
#pragma once

#include <filesystem>
#include <string>
#include <string_view>

namespace vole {

std::filesystem::path to_path(std::string_view utf8);
// With '/' between names.
std::string to_utf8(const std::filesystem::path& path);

}  // namespace vole
