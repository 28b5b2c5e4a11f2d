#include "vole/base/program.hpp"

#include <filesystem>

#include "vole/base/paths.hpp"

#if defined(_WIN32)
#define WIN32_LEAN_AND_MEAN
#include <windows.h>
#endif

namespace vole {

#if defined(_WIN32)

std::string program_path(const std::string& called) {
  // Paths may be longer than MAX_PATH; the function cuts them off without a word.
  std::wstring path(32768, L'\0');
  const DWORD length = GetModuleFileNameW(nullptr, path.data(), static_cast<DWORD>(path.size()));
  if (length == 0 || length == path.size()) return called;
  path.resize(length);
  return to_utf8(std::filesystem::path(path));
}

#elif defined(__EMSCRIPTEN__)

// A page has no program on a disk: its files are mounted beside "/".
std::string program_path(const std::string&) {
  return "/program";
}

#else

std::string program_path(const std::string& called) {
  std::error_code failed;
  const auto self = std::filesystem::read_symlink("/proc/self/exe", failed);
  return to_utf8(failed ? std::filesystem::absolute(to_path(called), failed) : self);
}

#endif

}  // namespace vole
