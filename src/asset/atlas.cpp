#include "vole/asset/atlas.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "sheet_file.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

struct AtlasText {
  std::vector<Located<std::string>> pages;
  Named<SheetText> sheets;
  CheckNotes check;
};
template <class V>
void describe(V& v, AtlasText& atlas) {
  v("pages", atlas.pages, needed().items(1024));
  v("sheets", atlas.sheets, needed());
  v("check", atlas.check);
}

// The catalog's atlases; a broken one holds nothing, and is reported when it is asked for itself.
template <class Visit>
void each_atlas(Catalog& catalog, const Visit& visit) {
  for (const std::string& name : catalog.listed_atlases()) {
    try {
      visit(name, *catalog.get<Atlas>(name));
    } catch (const Error&) {
    }
  }
}

// The file of the first atlas with a sheet of this name that will do; empty when there is none.
template <class Check>
std::string find_in_atlases(Catalog& catalog, std::string_view name, const Check& will_do) {
  std::string path;
  each_atlas(catalog, [&](const std::string& atlas_name, const Atlas& atlas) {
    const auto sheet = atlas.find(name);
    if (path.empty() && sheet && will_do(*sheet))
      path = catalog.asset_path(fmt::format("{}{}", atlas_name, atlas_ending));
  });
  return path;
}

template <class Check>
std::vector<std::string> names_in_atlases(Catalog& catalog, const Check& will_do) {
  std::vector<std::string> names;
  each_atlas(catalog, [&](const std::string&, const Atlas& atlas) {
    for (const auto& sheet : atlas.sheets)
      if (will_do(*sheet)) names.push_back(sheet->name);
  });
  return names;
}

}  // namespace

std::shared_ptr<const Sheet> Atlas::find(std::string_view sheet_name) const {
  const auto found = std::lower_bound(sheets.begin(), sheets.end(), sheet_name,
                                      [](const std::shared_ptr<const Sheet>& sheet, std::string_view wanted) {
                                        return sheet->name < wanted;
                                      });
  return found != sheets.end() && (*found)->name == sheet_name ? *found : nullptr;
}

Atlas AssetType<Atlas>::load(Loading& loading) {
  Report report;
  AtlasText text;
  const TomlValue root = read_toml(loading.path());
  read(root, text, report);
  report.throw_if_errors();
  Atlas atlas;
  atlas.name = loading.name();
  std::vector<std::string> page_names;
  for (const auto& written : text.pages) {
    const Asset<Picture> page = picture_beside(loading, written, root.where);
    atlas.pages.push_back(page.shared());
    page_names.push_back(page.name());
  }
  for (const auto& item : text.sheets) {
    auto sheet = std::make_shared<Sheet>();
    sheet->name = item.name;
    sheet->columns = item.value.columns;
    if (item.value.colour) {
      add_stand_in(item.value, item.where, *sheet);
    } else {
      sheet->pictures = atlas.pages;
      sheet->picture_names = page_names;
      add_named_frames(item.value, atlas.pages, *sheet, report);
    }
    if (sheet->frames.empty())
      report.error(item.where, fmt::format("sheet \"{}\" has no frames", item.name));
    else
      complete_sheet(item.value, *sheet, report);
    atlas.sheets.push_back(std::move(sheet));
  }
  report.throw_if_errors();
  std::sort(atlas.sheets.begin(), atlas.sheets.end(),
            [](const auto& a, const auto& b) { return a->name < b->name; });
  return atlas;
}

std::shared_ptr<const Sheet> sheet_from_atlas(Loading& loading) {
  Catalog& catalog = loading.catalog();
  const std::string start = catalog.asset_path("");
  const std::string name =
      loading.path().substr(start.size(), loading.path().size() - start.size() - atlas_ending.size());
  const Asset<Atlas> atlas = catalog.get<Atlas>(name);
  loading.depends_on(atlas);
  std::shared_ptr<const Sheet> sheet = atlas->find(loading.name());
  if (!sheet)
    throw Error(FilePosition::whole_file(loading.path()),
                fmt::format("holds no sheet \"{}\" any more", loading.name()), "run `vole atlas` again");
  return sheet;
}

std::string AssetType<Sheet>::find_packed(Catalog& catalog, std::string_view name) {
  return find_in_atlases(catalog, name, [](const Sheet&) { return true; });
}

std::vector<std::string> AssetType<Sheet>::packed_names(Catalog& catalog) {
  return names_in_atlases(catalog, [](const Sheet&) { return true; });
}

std::string AssetType<Font>::find_packed(Catalog& catalog, std::string_view name) {
  return find_in_atlases(catalog, name, [](const Sheet& sheet) { return sheet.font.has_value(); });
}

std::vector<std::string> AssetType<Font>::packed_names(Catalog& catalog) {
  return names_in_atlases(catalog, [](const Sheet& sheet) { return sheet.font.has_value(); });
}

TomlValue AssetType<Atlas>::schema() {
  return schema_of<AtlasText>();
}

}  // namespace vole
