// What a game or the tool may write over. An output replaces an older output of its own kind, which says in itself that Vole made it;
// any other file only where the user says so. What is read while it is written is never replaced.
//
//   OutputFiles outputs(force);
//   outputs.keep(replayed, "is the recording that is replayed");
//   outputs.add("shot.png", OutputKind::picture);   // throws Error where it may not be written
#pragma once

#include <cstdint>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "vole/base/files.hpp"

namespace vole {

enum class OutputKind : std::uint8_t { picture, recording, state };

// Whether the file is an output of this kind. An empty file is one of any kind.
bool is_output(const std::string& path, OutputKind kind);

// A PNG that says that it is an output: other programs skip what says so.
Bytes marked_as_output(Bytes png);
// The text with which an output of this kind says so: the first line of a recording or a state, a comment in a picture.
std::string_view output_mark(OutputKind kind);

class OutputFiles {
 public:
  // With `force`, files that are no outputs of Vole are replaced too.
  explicit OutputFiles(bool force) : force_(force) {}

  // This file is not replaced, whatever is said; `why` is like "is the recording that is replayed".
  void keep(const std::string& input, std::string_view why);
  // Throws Error when the file cannot be written, is to be kept, or was added already; and without force when there is another file of
  // this name.
  void add(const std::string& path, OutputKind kind);

 private:
  bool force_;
  std::vector<std::pair<std::string, std::string>> kept_;
};

}  // namespace vole
