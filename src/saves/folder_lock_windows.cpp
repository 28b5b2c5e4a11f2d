#if defined(_WIN32)

#include <windows.h>

#include "folder_lock.hpp"
#include "vole/base/error.hpp"
#include "vole/base/paths.hpp"

namespace vole {

// Open for one copy at a time.
bool FolderLock::try_it(const std::string& file) {
  const HANDLE opened = CreateFileW(to_path(file).c_str(), GENERIC_READ | GENERIC_WRITE, 0, nullptr,
                                    OPEN_ALWAYS, FILE_ATTRIBUTE_HIDDEN, nullptr);
  if (opened != INVALID_HANDLE_VALUE) {
    held_ = opened;
    return true;
  }
  if (GetLastError() != ERROR_SHARING_VIOLATION)
    throw Error(FilePosition::whole_file(file), "cannot be written");
  return false;
}

FolderLock::~FolderLock() {
  if (held_) CloseHandle(held_);
}

void flush_file(const std::string& path) {
  const HANDLE opened = CreateFileW(to_path(path).c_str(), GENERIC_WRITE, FILE_SHARE_READ | FILE_SHARE_WRITE,
                                    nullptr, OPEN_EXISTING, FILE_ATTRIBUTE_NORMAL, nullptr);
  if (opened == INVALID_HANDLE_VALUE) return;
  FlushFileBuffers(opened);
  CloseHandle(opened);
}
void flush_folder(const std::string&) {}

}  // namespace vole

#endif
