// What several tests share.
#pragma once

#include <catch2/catch.hpp>
#include <filesystem>
#include <string>

#include "vole/asset/image.hpp"
#include "vole/base/files.hpp"
#include "vole/base/random.hpp"

// The folder of the repository, and of the allotment in it.
std::string source_folder();
std::string allotment_folder();

// A folder that goes away with this.
class TempFolder {
 public:
  TempFolder();
  ~TempFolder();
  TempFolder(const TempFolder&) = delete;
  TempFolder& operator=(const TempFolder&) = delete;

  std::string path(const std::string& name = {}) const;
  void write(const std::string& name, std::string_view content) const;
  void write_picture(const std::string& name, vole::IVec2 size, vole::Colour colour = vole::white) const;

 private:
  std::filesystem::path folder_;
};

// A small game in a folder: a sheet "mouse" (8 frames of 8 x 8), a tileset "soil", a level "patch", a kind
// "mouse".
void write_small_game(const TempFolder& folder);

// The message of the Error that the work throws, with the folder's path cut off; empty when it throws none.
template <class Work>
std::string error_of(const Work& work, const TempFolder& folder) {
  try {
    work();
  } catch (const vole::Error& error) {
    std::string text = error.what();
    const std::string prefix = folder.path() + "/";
    for (std::size_t at = text.find(prefix); at != std::string::npos; at = text.find(prefix))
      text.erase(at, prefix.size());
    return text;
  }
  return {};
}

// A whole number from 0 on, less than the count.
int below(vole::Random& chance, int count);

// The sides of a tile: half of the time those of a square.
vole::IVec2 some_sides(vole::Random& chance);

// How many random cases a test tries: `usual`, times VOLE_TIMES when that is in the environment, for long runs. Under sanitizers,
// where each takes ten times as long, `sanitized`: what they look for is found in fewer.
int cases(int usual, int sanitized);
inline int cases(int usual) {
  return cases(usual, usual);
}

// How often this program has called operator new.
std::int64_t allocations_so_far();
bool allocations_are_counted();

struct Ran {
  int code = 0;
  std::string output;  // both streams
};

// Runs a shell command.
Ran run_command(const std::string& command);
// The environment variable, which must be there.
std::string variable(const char* name);
// Runs `vole` with the rest of the line, in a folder.
Ran vole_in(const TempFolder& folder, const std::string& words);
// What `vole check` says, and that something is wrong, while a file has `by` in place of `what`.
std::string checked_with(const TempFolder& folder, const std::string& file, const std::string& what,
                         const std::string& by);
// The path of the program that runs the tests.
std::string program_of_test();
// A text as one word of a shell command.
std::string as_word(const std::string& text);
