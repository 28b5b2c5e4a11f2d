// Held while files of a folder are replaced, so that two copies of a game do it one after the other.
#pragma once

#include <string>

namespace vole {

class FolderLock {
 public:
  // Waits at most two seconds. Throws Error where the folder cannot be written, or another copy holds it still.
  explicit FolderLock(const std::string& folder);
  ~FolderLock();
  FolderLock(const FolderLock&) = delete;
  FolderLock& operator=(const FolderLock&) = delete;

 private:
  // Whether this copy has it now. Throws Error.
  bool try_it(const std::string& file);

#if defined(_WIN32)
  void* held_ = nullptr;
#else
  int held_ = -1;
#endif
};

// What was written to a file, or renamed in a folder, is on the disk when this returns, where the system can say so.
void flush_file(const std::string& path);
void flush_folder(const std::string& path);

}  // namespace vole
