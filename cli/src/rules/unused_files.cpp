// unused-file: an asset that nothing names.
#include "game_under_check.hpp"

namespace {

template <class T>
void use_mentioned(GameUnderCheck& game, std::string_view scope, std::set<std::string>& used) {
  for (const std::string& name : game.catalog.names<T>())
    if (game.sources.mention(scope, name) ||
        game.named.count(fmt::format("{} {}", vole::AssetType<T>::word, name)) != 0)
      game.add_files_of<T>(name, used);
}

// A file of an asset that cannot be loaded is reported already.
bool is_broken(GameUnderCheck& game, const std::string& file) {
  const auto breaks = [&]<class T>(T*, std::string_view folder, std::string_view ending) {
    if (!file.starts_with(folder) || !file.ends_with(ending)) return false;
    try {
      game.catalog.get<T>(file.substr(folder.size(), file.size() - folder.size() - ending.size()));
    } catch (const vole::Error&) {
      return true;
    }
    return false;
  };
  return breaks(static_cast<vole::Sheet*>(nullptr), "assets/", ".sheet.toml") ||
         breaks(static_cast<vole::Tileset*>(nullptr), "assets/", ".tileset.toml") ||
         breaks(static_cast<vole::Font*>(nullptr), "assets/", ".font.toml") ||
         breaks(static_cast<vole::Picture*>(nullptr), "assets/", ".png") ||
         breaks(static_cast<vole::Level*>(nullptr), "levels/", ".level.toml");
}

}  // namespace

void find_unused_files(GameUnderCheck& game) {
  // Without the code, or with a file that names assets unread, it is not known what is used.
  if (!game.sources.any() || !game.all_read) return;
  std::set<std::string> used{game.project.icon.value};
  // What a level is made of is used also where no code names the level yet.
  for (const std::string& name : game.catalog.names<vole::Level>()) {
    std::set<std::string> its;
    game.add_files_of<vole::Level>(name, its);
    its.erase("levels/" + name + ".level.toml");
    used.insert(its.begin(), its.end());
  }
  use_mentioned<vole::Level>(game, "level", used);
  use_mentioned<vole::Sheet>(game, "sheet", used);
  use_mentioned<vole::Font>(game, "font", used);
  use_mentioned<vole::Tileset>(game, "tileset", used);
  use_mentioned<vole::Picture>(game, "sheet", used);
  for (const std::string& file : game.files) {
    const bool sound = file.ends_with(".wav") || file.ends_with(".ogg");
    if (file.starts_with("assets/") && sound &&
        game.sources.mention("sound", file.substr(7, file.size() - 11)))
      used.insert(file);
  }
  for (const std::string& file : game.files) {
    const bool asset = file.starts_with("assets/") || file.starts_with("levels/");
    if (!asset || used.count(file) != 0 || Sources::is_code(file) || is_broken(game, file)) continue;
    game.add("unused-file", file, "this file is not used: no kind, level or code names it");
  }
}
