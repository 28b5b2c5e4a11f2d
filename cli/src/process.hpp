// Running other programs. The only file of the tool that is tied to POSIX.
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

struct ProcessResult {
  int code = 0;        // 127 when it could not be started
  std::string output;  // what it wrote to its standard output
};

// A word as a shell wants it: in single quotes where it holds anything that a shell takes for something else.
std::string shell_word(const std::string& word);

enum class Complaints { shown, dropped };

// Runs a program found on the PATH and waits. No shell is involved. Its error output goes where ours goes, or
// nowhere; its standard output is returned, and `listen` gets each piece of it when it comes.
ProcessResult run_process(const std::vector<std::string>& words, Complaints complaints = Complaints::shown,
                          const std::function<void(std::string_view)>& listen = {});

// Whether there is a program of this name on the PATH.
bool program_exists(const std::string& name);
