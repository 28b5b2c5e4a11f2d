#include "folder_lock.hpp"

#include <chrono>
#include <thread>

#include "vole/base/error.hpp"
#include "vole/base/files.hpp"

namespace vole {

FolderLock::FolderLock(const std::string& folder) {
  const std::string file = join_path(folder, ".lock");
  constexpr int tries = 200;
  for (int i = 0; i < tries; ++i) {
    if (try_it(file)) return;
    std::this_thread::sleep_for(std::chrono::milliseconds(10));
  }
  throw Error(FilePosition::whole_file(folder), "another copy of the game is writing here, and does not end");
}

}  // namespace vole
