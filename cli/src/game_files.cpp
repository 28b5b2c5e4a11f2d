#include "game_files.hpp"

#include <algorithm>
#include <filesystem>
#include <iterator>

#include "rules/rules.hpp"
#include "vole/app/project.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/level/tileset.hpp"

namespace {

using vole::Catalog;
using vole::TomlValue;

// What a file's key names as a picture; nothing when it does not, or the file is broken.
template <class Visit>
void each_picture_named(const TomlValue& root, const Visit& visit) {
  if (const TomlValue* picture = root.find("picture"); picture && picture->type == TomlValue::Type::text)
    visit(picture->text);
  if (const TomlValue* pages = root.find("pages"))
    for (const TomlValue& page : pages->items) visit(page.text);
}

template <class T>
void add_pictures_of(Catalog& catalog, bool own_name_too, std::set<std::string>& pictures) {
  for (const std::string& name : catalog.loose_names<T>()) {
    const std::string file = catalog.asset_path(name + std::string(vole::AssetType<T>::ending));
    if (!vole::file_exists(file)) continue;
    try {
      const TomlValue root = vole::read_toml(file);
      each_picture_named(root, [&](const std::string& written) {
        const std::string picture = vole::picture_name_beside(name, written);
        if (own_name_too || picture != name) pictures.insert(picture);
      });
      if (own_name_too && !root.find("picture") && !root.find("pages")) pictures.insert(name);
      const TomlValue* folder = root.find("folder");
      if (!folder || folder->type != TomlValue::Type::text) continue;
      const std::string start = vole::picture_name_beside(name, folder->text) + "/";
      for (const std::string& inside : catalog.loose_names<vole::Picture>())
        if (inside.starts_with(start) && inside.find('/', start.size()) == std::string::npos)
          pictures.insert(inside);
    } catch (const vole::Error&) {
      // `vole check` reports what is wrong with it.
    }
  }
}

}  // namespace

std::set<std::string> pictures_of_others(Catalog& catalog) {
  std::set<std::string> pictures;
  add_pictures_of<vole::Tileset>(catalog, true, pictures);
  add_pictures_of<vole::Atlas>(catalog, true, pictures);
  add_pictures_of<vole::Sheet>(catalog, false, pictures);
  return pictures;
}

std::set<std::string> pictures_of_tilesets(Catalog& catalog) {
  std::set<std::string> pictures;
  add_pictures_of<vole::Tileset>(catalog, true, pictures);
  std::erase_if(pictures, [&catalog](const std::string& name) {
    return !catalog.has<vole::Picture>(name) || vole::file_exists(catalog.asset_path(name + ".sheet.toml"));
  });
  return pictures;
}

std::vector<std::string> sheets_of_game(Catalog& catalog) {
  std::set<std::string> others = pictures_of_others(catalog);
  if (const std::string file = vole::join_path(catalog.root(), "game.toml"); vole::file_exists(file)) {
    const std::string icon = vole::read_project(file).icon.value;
    if (icon.starts_with("assets/") && icon.ends_with(".png"))
      others.insert(icon.substr(7, icon.size() - 11));
  }
  std::vector<std::string> names;
  for (const std::string& name : catalog.loose_names<vole::Sheet>()) {
    const bool has_file = vole::file_exists(catalog.asset_path(name + ".sheet.toml"));
    if (has_file || others.count(name) == 0) names.push_back(name);
  }
  return names;
}

std::vector<std::string> files_to_send(const std::string& root) {
  constexpr std::string_view folders[] = {"assets/", "levels/", "kinds/", "recordings/"};
  std::vector<std::string> files;
  vole::Report report;
  for (const std::string& file : vole::list_files(root)) {
    const bool in_folder = std::any_of(std::begin(folders), std::end(folders),
                                       [&](std::string_view folder) { return file.starts_with(folder); });
    if (!in_folder && file != "game.toml" && file != "controls.toml" && file != "kinds.toml") continue;
    files.push_back(file);
    report.gather([&] {
      vole::expect_inside(root, file, vole::FilePosition::whole_file(vole::join_path(root, file)));
    });
  }
  report.throw_if_errors();
  return files;
}

std::vector<std::string> files_with_names(const std::string& root) {
  std::vector<std::string> files = files_of_game(root);
  std::erase_if(files, [](const std::string& file) {
    if (file.find('/') == std::string::npos) return !file.ends_with(".toml");
    return !file.starts_with("assets/") && !file.starts_with("levels/") && !file.starts_with("kinds/");
  });
  return files;
}

std::string game_around(const std::string& path) {
  namespace fs = std::filesystem;
  for (fs::path folder = fs::absolute(path).lexically_normal();; folder = folder.parent_path()) {
    if (vole::file_exists((folder / "game.toml").string())) return folder.generic_string();
    if (folder == folder.parent_path()) return {};
  }
}
