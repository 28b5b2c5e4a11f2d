// A file on its way: under a name of its own, removed when the program is ended.
#pragma once

#include <string>
#include <string_view>

namespace vole {

// Writes a new file in the folder under a name that nothing else has, with the access rights `like` has if it is there.
// Returns the path. Throws Error about `asked`, and leaves nothing then.
std::string write_partial(const std::string& folder, std::string_view content, const std::string& like,
                          const std::string& asked);
// It was renamed or removed: no longer to be cleaned up.
void forget_partial(const std::string& path);

// Writes to what is there already and stays: a device, a pipe. Throws Error.
void write_into(const std::string& path, std::string_view content, const std::string& asked);

// A handler for signals that end the program.
extern "C" void remove_partial_files_and_end(int signal);

// Whether this process may write the file that is there.
bool may_write(const std::string& path);

}  // namespace vole
