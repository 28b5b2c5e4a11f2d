// hidden-name: an asset that cannot be had because another of the same name comes first.
#include "game_under_check.hpp"

void find_hidden_names(GameUnderCheck& game) {
  for (const std::string& name : game.catalog.loose_names<vole::Sheet>()) {
    const std::string file = "assets/" + name + ".sheet.toml";
    const std::string picture = "assets/" + name + ".png";
    const bool both = game.exists(file) && game.exists(picture);
    if (both) {
      std::set<std::string> used;
      game.add_files_of<vole::Sheet>(name, used);
      if (!used.empty() && used.count(picture) == 0)
        game.add("hidden-name", file,
                 fmt::format("the sheet \"{}\" hides the picture \"{}.png\" beside it, which it does not use",
                             name, name),
                 "name one of them otherwise");
    }
    for (const std::string& packed : vole::AssetType<vole::Sheet>::packed_names(game.catalog))
      if (packed == name)
        game.add("hidden-name", game.exists(file) ? file : picture,
                 fmt::format("hides the sheet \"{}\" of an atlas", name),
                 "pack the atlas again, or leave one out");
  }
  for (const std::string& name : game.catalog.loose_names<vole::Font>()) {
    const std::string font = "assets/" + name + ".font.toml", sheet = "assets/" + name + ".sheet.toml";
    if (game.exists(font) && game.exists(sheet))
      game.add("hidden-name", font,
               fmt::format("the font \"{}\" hides the one in {}.sheet.toml", name, name));
  }
}
