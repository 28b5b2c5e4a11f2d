// Linux, by the XDG Base Directory Specification; and pages, whose folder below /home the page fills from the browser's storage
// (hosts/web/page/page.js).
#if !defined(_WIN32)

#include "vole/base/files.hpp"
#include "vole/base/program.hpp"
#include "vole/saves/player_folder.hpp"

namespace vole {

std::string player_folder(const std::string& id) {
  if (id.empty()) return {};
  if (const std::string data = environment("XDG_DATA_HOME"); !data.empty()) return join_path(data, id);
  const std::string home = environment("HOME");
  return home.empty() ? std::string() : join_path(join_path(home, ".local/share"), id);
}

}  // namespace vole

#endif
