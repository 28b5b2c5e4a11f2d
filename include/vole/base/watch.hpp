// Tells when files below some folders change: by the system's own notice where there is one, else by looking
// at them now and then.
#pragma once

#include <memory>
#include <string>
#include <vector>

namespace vole {

class FileWatch {
 public:
  virtual ~FileWatch() = default;
  // Whether anything was written, made, renamed or removed since the call before. Never waits. Files whose names begin
  // with a dot do not count.
  virtual bool changed() = 0;
};

struct WatchedFolders {
  std::vector<std::string> deep;         // with all that is below
  std::vector<std::string> shallow;      // the files right in it
  std::vector<std::string> except = {};  // files that do not count: what the one who watches writes there
};

// Folders that are not there are left out until they are.
std::unique_ptr<FileWatch> watch_files(const WatchedFolders& folders);
// The one that looks; for systems that give no notice, and folders from which none comes (network drives).
std::unique_ptr<FileWatch> watch_files_by_looking(const WatchedFolders& folders);

}  // namespace vole
