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
#include "vole/level/level.hpp"

namespace {

using vole::Error;
using vole::FilePosition;

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
    members("clip", "ClipName", id, vole::names_of(sheet.clips));
    members("set", "ClipName", id, vole::names_of(sheet.sets));
    members("point", "PointName", id, vole::names_of(sheet.points));
    members("frame", "FrameName", id, sheet.frame_names);
    out_ += "};\n\n";
    taken_ = outer;
  }

  void members(std::string_view scope, std::string_view type, const std::string& id,
               const std::vector<std::string>& names) {
    if (names.empty()) return;
    begin_scope();
    out_ += fmt::format("  struct {} {{\n", scope);
    for (const std::string& name : names)
      out_ += fmt::format("    static constexpr ::vole::{}<{}> {}{{{{{}}}}};\n", type, id, take(name),
                          in_quotes(name));
    out_ += "  };\n";
  }

  std::map<std::string, std::string> taken_;  // identifiers of this scope and the names they stand for
  std::string out_;
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
  return fmt::format(
      "{}\n#pragma once\n\n#include <vole/asset/names.hpp>\n\nnamespace names {{\n\n{}}}  // namespace "
      "names\n",
      made_by_names, header.text());
}
