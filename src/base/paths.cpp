#include "vole/base/paths.hpp"

namespace vole {

std::filesystem::path to_path(std::string_view utf8) {
  // From char a path is taken in the system's narrow encoding, which is not UTF-8 everywhere.
  return std::filesystem::path(std::u8string(utf8.begin(), utf8.end()));
}

std::string to_utf8(const std::filesystem::path& path) {
  const std::u8string text = path.generic_u8string();
  return std::string(text.begin(), text.end());
}

bool is_windows_device(std::string_view name) {
  const bool port = name.size() == 4 && (name.starts_with("com") || name.starts_with("lpt")) &&
                    name[3] >= '0' && name[3] <= '9';
  return port || name == "con" || name == "prn" || name == "aux" || name == "nul";
}

}  // namespace vole
