// Paths are UTF-8 everywhere in Vole, on every system; here they become the system's own and back.
#pragma once

#include <filesystem>
#include <string>
#include <string_view>

namespace vole {

std::filesystem::path to_path(std::string_view utf8);
// With '/' between names.
std::string to_utf8(const std::filesystem::path& path);

// Whether Windows has this name for a device, so that no file there can have it, whatever comes after a '.'. In small letters.
bool is_windows_device(std::string_view name);

}  // namespace vole
