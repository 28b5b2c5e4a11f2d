#include "level_text.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <optional>

#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/files.hpp"
#include "vole/base/writing.hpp"

namespace {

using Layer = LevelText::Layer;
using Letters = std::map<std::string, char>;

constexpr int longest_row = 400;

void expect_new(const std::string& file) {
  if (vole::file_exists(file))
    throw vole::Error(vole::FilePosition::whole_file(file), "is there already, and is not replaced",
                      "remove it first, or write to another name");
}

class LevelWriter {
 public:
  LevelWriter(const LevelText& level, const std::string& file) : level_(level), file_(file) {}

  void write() {
    expect_new(file_);
    const std::optional<Letters> letters = letters_for_tiles();
    const bool as_rows = letters && level_.layers[0].cells.x <= longest_row;
    std::string text = fmt::format("tileset = {}\n", tilesets());
    if (as_rows) text += table_of(*letters);
    for (const Layer& layer : level_.layers) {
      text += fmt::format("\n[[layers]]\nname = {}\n", vole::in_quotes(layer.name));
      text += as_rows ? rows_of(layer, *letters) : add_csv(layer);
    }
    const auto is_things = [](const Layer& layer) { return layer.name == "things"; };
    if (std::none_of(level_.layers.begin(), level_.layers.end(), is_things))
      text += "\n[[layers]]\nname = \"things\"\n";
    for (const LevelText::Place& place : level_.places)
      text += fmt::format("\n[[places]]\nkind = {}\ncell = [{}, {}]\n", vole::in_quotes(place.kind),
                          place.cell.x, place.cell.y);
    files_.add(file_, text);
    files_.put_in_place();
  }

 private:
  const std::string& tile_at(const Layer& layer, int x, int y) const {
    const auto place =
        static_cast<std::size_t>(y) * static_cast<std::size_t>(layer.cells.x) + static_cast<std::size_t>(x);
    return level_.tiles[layer.values[place]];
  }

  // A letter for each tile that is used: its own first letter where that is free. None when there are too many.
  std::optional<Letters> letters_for_tiles() const {
    Letters letters;
    std::string taken = ".";
    for (const Layer& layer : level_.layers)
      for (const std::uint32_t value : layer.values) {
        const std::string& tile = level_.tiles[value];
        if (tile.empty() || letters.count(tile) != 0) continue;
        const std::string wanted =
            tile + "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789#+*=~^%&@!/|-_<>";
        const auto is_free = [&](char c) {
          return c > ' ' && c < 127 && c != '"' && c != '\\' && c != ',' &&
                 taken.find(c) == std::string::npos;
        };
        const auto found = std::find_if(wanted.begin(), wanted.end(), is_free);
        if (found == wanted.end()) return std::nullopt;
        taken += letters[tile] = *found;
      }
    return letters;
  }

  static std::string table_of(const Letters& letters) {
    std::string text = "\n[letters]\n\".\" = \"\"\n";
    for (const auto& [tile, letter] : letters)
      text += fmt::format("{} = {}\n", vole::in_quotes(std::string_view(&letter, 1)), vole::in_quotes(tile));
    return text;
  }

  std::string tilesets() const {
    if (level_.tilesets.size() == 1) return vole::in_quotes(level_.tilesets[0]);
    std::string text;
    for (const std::string& name : level_.tilesets)
      text += fmt::format("{}{}", text.empty() ? "[" : ", ", vole::in_quotes(name));
    return text + ']';
  }

  std::string rows_of(const Layer& layer, const Letters& letters) const {
    std::string text = "rows = [\n";
    for (int y = 0; y < layer.cells.y; ++y) {
      text += "  \"";
      for (int x = 0; x < layer.cells.x; ++x) {
        const std::string& tile = tile_at(layer, x, y);
        text += tile.empty() ? '.' : letters.at(tile);
      }
      text += "\",\n";
    }
    return text + "]\n";
  }

  // Puts it beside the level, and returns the line that names it.
  std::string add_csv(const Layer& layer) {
    constexpr std::string_view ending = ".level.toml";
    const std::string csv =
        fmt::format("{}-{}.csv", file_.substr(0, file_.size() - ending.size()), layer.name);
    expect_new(csv);
    files_.add(csv, csv_of(layer));
    return fmt::format("csv = {}\n", vole::in_quotes(std::filesystem::path(csv).filename().string()));
  }

  std::string csv_of(const Layer& layer) const {
    std::string text;
    for (int y = 0; y < layer.cells.y; ++y) {
      for (int x = 0; x < layer.cells.x; ++x) {
        if (x > 0) text += ',';
        add_field(tile_at(layer, x, y), text);
      }
      text += '\n';
    }
    return text;
  }

  static void add_field(const std::string& tile, std::string& text) {
    if (tile.find_first_of(",\"") == std::string::npos) {
      text += tile;
      return;
    }
    text += '"';
    for (const char c : tile) text.append(c == '"' ? 2 : 1, c);
    text += '"';
  }

  const LevelText& level_;
  const std::string& file_;
  vole::FileSet files_;
};

}  // namespace

void write_level(const LevelText& level, const std::string& file) {
  LevelWriter(level, file).write();
}
