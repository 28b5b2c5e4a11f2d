// The one way in which Vole writes files: whole or not at all, and several together.
//
//   FileSet files;
//   files.add("out/walk-1.png", bytes);           // beside its place, under a name that nothing else has
//   files.add("out/walk.atlas.toml", text);
//   files.put_in_place();                          // now they are there; until then nothing has changed
//
// A link is written through, to what it leads to. A device or pipe is written to and stays. A file that may not be
// written is refused, and a new file has the access rights of the one it replaces. What is not put in place is removed
// again, with the folders that were made for it; also when the program is ended by a signal (clean_up_on_signals).
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "vole/base/files.hpp"

namespace vole {

class FileSet {
 public:
  FileSet() = default;
  FileSet(const FileSet&) = delete;
  FileSet& operator=(const FileSet&) = delete;
  ~FileSet();

  // Makes missing folders. Throws Error when it cannot be written there, or when the disk is full.
  void add(const std::string& path, std::string_view content);
  void add(const std::string& path, const Bytes& content);
  // In the order in which they were added. Throws Error; files before the one that failed are then in place.
  void put_in_place();

 private:
  struct Part {
    std::string asked;  // the path as it was given, for messages
    std::string place;  // where it goes
    std::string part;   // where it is; empty: `content` goes to a device
    std::string content;
  };
  void make_folders(const std::string& folder, const std::string& asked);

  std::vector<Part> parts_;
  std::vector<std::string> made_folders_;
};

// Throws Error when a file could not be written there; leaves nothing.
void expect_writable(const std::string& path);

// What is in the file; empty when there is none. Throws Error when it does not begin with this mark: then it is somebody's
// own.
std::string expect_made_by_vole(const std::string& path, std::string_view mark);

// Throws Error, with `why`, when the output is one of these files, by whatever name.
void refuse_to_replace(const std::string& output, const std::vector<std::string>& inputs,
                       std::string_view why);

}  // namespace vole
