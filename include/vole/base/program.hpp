// The running program: where it is, how it was started and is ended, and whether its output arrived.
#pragma once

#include <string>
#include <vector>

namespace vole {

// The path of the running program; `called` is its argv[0], for systems that cannot tell.
std::string program_path(const std::string& called);

// The words that the program was started with, in UTF-8. Windows gives main() its words in an encoding in which many
// names cannot be written: when `argv` is what main() got, the system is asked again.
std::vector<std::string> program_words(int argc, const char* const* argv);
#if defined(_WIN32)
std::vector<std::string> program_words(int argc, const wchar_t* const* argv);
#endif

// What the environment says under a name, in UTF-8; empty where it says nothing.
std::string environment(const char* name);

// The signals by which a person or the system asks a program to end.
const std::vector<int>& end_signals();
// Has the handler called for each of them, except those that whoever started the program has it ignore (as nohup does).
void handle_end_signals(void (*handler)(int signal));
// From now on such a signal removes files that were only begun, and ends the program. A limit on the size of files
// makes writing fail in place of ending the program.
void clean_up_on_signals();
// From now on the first such signal only makes end_signal() tell of it, so that a game can end by itself; one that
// comes two seconds later or more ends the program as above.
void end_by_itself_on_signals();
// The signal that came; 0: none.
int end_signal();

// Writes out what the standard output holds back. Returns `code`, or 1 after a message when the output could not be
// written, as on a full disk.
int with_output_written(int code);

}  // namespace vole
