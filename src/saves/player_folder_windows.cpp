// Windows: application data.
#if defined(_WIN32)

#include "vole/base/files.hpp"
#include "vole/base/program.hpp"
#include "vole/saves/player_folder.hpp"

namespace vole {

std::string player_folder(const std::string& id) {
  const std::string data = environment("APPDATA");
  return data.empty() || id.empty() ? std::string() : join_path(data, id);
}

}  // namespace vole

#endif
