#include "names_header.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "game_files.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/names.hpp"
#include "vole/base/writing.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"

namespace {

using vole::Error;
using vole::FilePosition;
using vole::TomlValue;

// Words that C++ keeps for itself.
const std::set<std::string_view> reserved{
    "alignas", "alignof", "and",      "asm",     "auto",     "bool",      "break",     "case",     "catch",
    "char",    "class",   "concept",  "const",   "continue", "default",   "delete",    "do",       "double",
    "else",    "enum",    "explicit", "export",  "extern",   "false",     "float",     "for",      "friend",
    "goto",    "if",      "inline",   "int",     "long",     "mutable",   "namespace", "new",      "noexcept",
    "not",     "nullptr", "operator", "or",      "private",  "protected", "public",    "register", "requires",
    "return",  "short",   "signed",   "sizeof",  "static",   "struct",    "switch",    "template", "this",
    "throw",   "true",    "try",      "typedef", "typeid",   "typename",  "union",     "unsigned", "using",
    "virtual", "void",    "volatile", "while",   "xor",      "name",      "clip",      "set",      "point",
    "frame"};

std::string in_quotes(std::string_view text) {
  return vole::in_quotes(text);  // TOML and C++ write such a text alike
}

class HeaderWriter {
 public:
  void sheets(const GameNames& names) {
    if (names.sheets.empty()) return;
    out_ += "namespace sheet {\n\n";
    begin_scope();
    for (const auto& each : names.sheets) sheet(*each);
    out_ += "}  // namespace sheet\n\n";
  }

  void plain(std::string_view scope, std::string_view type, const std::vector<std::string>& names) {
    if (names.empty()) return;
    out_ += fmt::format("namespace {} {{\n", scope);
    begin_scope();
    for (const std::string& name : names)
      out_ += fmt::format("inline constexpr ::vole::{} {}{{{{{}}}}};\n", type, take(name), in_quotes(name));
    out_ += fmt::format("}}  // namespace {}\n\n", scope);
  }

  std::string text() const { return out_; }

 private:
  void begin_scope() { taken_.clear(); }

  std::string take(const std::string& name) {
    const std::string id = cpp_identifier(name);
    const auto [found, is_new] = taken_.emplace(id, name);
    if (!is_new)
      throw Error(FilePosition{},
                  fmt::format("\"{}\" and \"{}\" would both be \"{}\" in C++", found->second, name, id),
                  "rename one of them");
    return id;
  }

  void sheet(const vole::Sheet& sheet) {
    const std::string id = take(sheet.name);
    out_ += fmt::format("struct {} {{\n  static constexpr ::vole::SheetName name{{{{{}}}}};\n", id,
                        in_quotes(sheet.name));
    const std::map<std::string, std::string> outer = taken_;
    // With its scopes, since a clip may have the sheet's own name.
    const std::string own = "::names::sheet::" + id;
    members("clip", "ClipName", own, vole::names_of(sheet.clips));
    members("set", "ClipName", own, vole::names_of(sheet.sets));
    members("point", "PointName", own, vole::names_of(sheet.points));
    members("frame", "FrameName", own, sheet.frame_names);
    out_ += "};\n\n";
    taken_ = outer;
  }

  void members(std::string_view scope, std::string_view type, const std::string& sheet,
               const std::vector<std::string>& names) {
    if (names.empty()) return;
    begin_scope();
    out_ += fmt::format("  struct {} {{\n", scope);
    for (const std::string& name : names)
      out_ += fmt::format("    static constexpr ::vole::{}<{}> {}{{{{{}}}}};\n", type, sheet, take(name),
                          in_quotes(name));
    out_ += "  };\n";
  }

  std::map<std::string, std::string> taken_;  // identifiers of this scope and the names they stand for
  std::string out_;
};

// What files say by name, once each and sorted. The files are read as TOML alone: whether they are right is said elsewhere.
class FileNames {
 public:
  FileNames(const std::string& root, GameNames& names) : root_(root), names_(names) {}

  void read() {
    project();
    kinds();
    for (const std::string& level : names_.levels) this->level(level);
    for (const auto& sheet : names_.sheets)
      for (const std::string& fact : sheet->rules.facts()) names_.facts.push_back(fact);
    for (std::vector<std::string>* const list :
         {&names_.kinds, &names_.tags, &names_.categories, &names_.scenes, &names_.facts, &names_.cues,
          &names_.places, &names_.zones, &names_.paths, &names_.pieces}) {
      std::sort(list->begin(), list->end());
      list->erase(std::unique(list->begin(), list->end()), list->end());
    }
  }

 private:
  static void add_text(const TomlValue* text, std::vector<std::string>& list) {
    if (text && text->type == TomlValue::Type::text && !text->text.empty()) list.push_back(text->text);
  }
  static void add_keys(const TomlValue* table, std::vector<std::string>& list) {
    if (table)
      for (const TomlValue::Entry& entry : table->entries) list.push_back(entry.key);
  }

  void project() {
    const std::string file = vole::join_path(root_, "game.toml");
    if (!vole::file_exists(file)) return;
    const TomlValue game = vole::read_toml(file);
    add_text(game.find("first_scene"), names_.scenes);
    add_keys(game.find("scenes"), names_.scenes);
    add_keys(game.find("categories"), names_.categories);
    names_.categories.insert(names_.categories.end(), {"ground", "plain"});
  }

  void kinds() {
    const vole::Kinds kinds = vole::read_kinds(root_);
    names_.kinds = vole::names_of(kinds.all);
    names_.tags = kinds.tags();
    for (const auto& kind : kinds.all)
      if (const TomlValue* const edge = kind.value.find("level_edge"))
        add_text(edge->find("tells"), names_.cues);
  }

  void level(const std::string& name) {
    const TomlValue level = vole::read_toml(vole::join_path(root_, "levels/" + name + ".level.toml"));
    add_keys(level.find("pieces"), names_.pieces);
    const std::pair<const char*, std::vector<std::string>*> lists[] = {
        {"places", &names_.places}, {"zones", &names_.zones}, {"paths", &names_.paths}};
    for (const auto& [key, list] : lists)
      if (const TomlValue* const items = level.find(key))
        for (const TomlValue& item : items->items) add_text(item.find("name"), *list);
  }

  const std::string& root_;
  GameNames& names_;
};

bool has_ending(std::string_view file, std::initializer_list<std::string_view> endings) {
  return std::any_of(endings.begin(), endings.end(),
                     [file](std::string_view e) { return file.ends_with(e); });
}

}  // namespace

std::string cpp_identifier(std::string_view name) {
  std::string id;
  for (const char c : name) {
    const bool plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9');
    if (plain)
      id += c;
    else if (!id.empty() && id.back() != '_')
      id += '_';
  }
  while (!id.empty() && id.back() == '_') id.pop_back();
  if (id.empty() || (id[0] >= '0' && id[0] <= '9')) id = fmt::format("n{}{}", id.empty() ? "" : "_", id);
  return reserved.count(id) != 0 ? id + "_" : id;
}

GameNames names_of_game(vole::Catalog& catalog) {
  GameNames names;
  vole::Report report;
  std::vector<std::string> sheet_names = sheets_of_game(catalog);
  for (const std::string& packed : vole::AssetType<vole::Sheet>::packed_names(catalog))
    sheet_names.push_back(packed);
  std::sort(sheet_names.begin(), sheet_names.end());
  sheet_names.erase(std::unique(sheet_names.begin(), sheet_names.end()), sheet_names.end());
  for (const std::string& name : sheet_names) {
    report.gather([&] {
      names.sheets.push_back(catalog.get<vole::Sheet>(name).shared());
      if (names.sheets.back()->font) names.fonts.push_back(name);
    });
  }
  report.throw_if_errors();
  names.tilesets = catalog.loose_names<vole::Tileset>();
  names.levels = catalog.loose_names<vole::Level>();
  if (const std::string assets = catalog.asset_path(""); vole::folder_exists(assets))
    for (const std::string& file : vole::list_files(assets)) {
      if (file.ends_with(".font.toml")) names.fonts.push_back(file.substr(0, file.size() - 10));
      if (has_ending(file, {".wav", ".ogg"})) names.sounds.push_back(file.substr(0, file.size() - 4));
    }
  std::sort(names.fonts.begin(), names.fonts.end());
  if (const std::string file = vole::join_path(catalog.root(), "controls.toml"); vole::file_exists(file)) {
    const vole::Controls controls = vole::read_controls(file);
    names.actions = vole::names_of(controls.actions);
    names.axes = vole::names_of(controls.axes);
  }
  FileNames(catalog.root(), names).read();
  return names;
}

std::string names_header(const GameNames& names) {
  HeaderWriter header;
  header.sheets(names);
  header.plain("tileset", "TilesetName", names.tilesets);
  header.plain("font", "FontName", names.fonts);
  header.plain("level", "LevelName", names.levels);
  header.plain("sound", "SoundName", names.sounds);
  header.plain("action", "ActionName", names.actions);
  header.plain("axis", "AxisName", names.axes);
  header.plain("kind", "KindName", names.kinds);
  header.plain("tag", "TagName", names.tags);
  header.plain("category", "CategoryName", names.categories);
  header.plain("scene", "SceneName", names.scenes);
  header.plain("fact", "FactName", names.facts);
  header.plain("cue", "CueName", names.cues);
  header.plain("place", "PlaceName", names.places);
  header.plain("zone", "ZoneName", names.zones);
  header.plain("path", "PathName", names.paths);
  header.plain("pieces", "PiecesName", names.pieces);
  return fmt::format(
      "{}\n#pragma once\n\n#include <vole/asset/names.hpp>\n\nnamespace names {{\n\n{}}}  // namespace "
      "names\n",
      made_by_names, header.text());
}
