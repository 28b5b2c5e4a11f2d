// A level from pictures in which each colour stands for a tile or a thing, or from CSV of numbers, as a table says.
#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <optional>

#include "commands.hpp"
#include "game_files.hpp"
#include "vole/asset/image.hpp"
#include "vole/base/csv.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/files.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/utf8.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"

namespace {

using vole::Colour;
using vole::Error;
using vole::FilePosition;
using vole::IVec2;
using vole::Located;
using vole::Node;
using vole::Report;

// "turf", { kind = "bulb" } or { kind = "bulb", tile = "turf" }: what a colour or a number stands for.
struct Meaning {
  Located<std::string> tile, kind;
};
void read_field(const Node& node, Meaning& meaning, const vole::FieldRule&, Report& report) {
  if (node.type == Node::Type::text) return vole::read_value(node, meaning.tile, {}, report);
  if (!vole::detail::expect(node, Node::Type::table, "a tile's name, or { kind = \"...\" }", report)) return;
  vole::Reader reader(node, report);
  reader("kind", meaning.kind, vole::needed());
  reader("tile", meaning.tile);
  reader.finish();
}

struct TableText {
  std::vector<Located<std::string>> tileset;
  vole::Named<Meaning> colours, numbers;
};
template <class V>
void describe(V& v, TableText& table) {
  v("tileset", table.tileset, vole::needed().items(64));
  v("colours", table.colours);
  v("numbers", table.numbers);
}

struct Layer {
  std::string name;
  IVec2 cells{0, 0};
  std::vector<std::uint32_t> values;  // row by row, indices into meanings
};

struct Place {
  std::string kind;
  IVec2 cell{0, 0};
};

// What stood for nothing: where it was first, in words too where that is no line of a text, and how often.
struct Unplaced {
  FilePosition first;
  std::string spot;
  std::int64_t times = 0;
};

std::string in_quotes(std::string_view text) {
  Node node;
  node.type = Node::Type::text;
  node.text = text;
  return vole::to_toml(node);
}

class Import {
 public:
  explicit Import(const ImportOptions& options) : options_(options) {}

  int run() {
    find_game();
    read_table();
    for (const std::string& file : options_.files) read_layer(file);
    write();
    for (const auto& [what, unplaced] : unplaced_)
      fmt::print(
          stderr, "{}\n",
          to_text(vole::Problem{unplaced.first,
                                vole::Severity::warning,
                                fmt::format("\"{}\"{} stands for nothing in the table; its cells are empty",
                                            what, unplaced.spot),
                                {},
                                unplaced.times}));
    fmt::print("{}\n", options_.output);
    return unplaced_.empty() ? 0 : 1;
  }

 private:
  void find_game() {
    constexpr std::string_view ending = ".level.toml";
    root_ = game_around(vole::folder_of(std::filesystem::absolute(options_.output).generic_string()));
    const std::string below = root_.empty() ? std::string()
                                            : std::filesystem::absolute(options_.output)
                                                  .lexically_normal()
                                                  .lexically_relative(std::filesystem::path(root_) / "levels")
                                                  .generic_string();
    if (!options_.output.ends_with(ending) || below.empty() || below.starts_with(".."))
      throw Error(FilePosition::whole_file(options_.output), "is no place for a level",
                  "a game has its levels in levels/NAME.level.toml");
    if (vole::file_exists(options_.output))
      throw Error(FilePosition::whole_file(options_.output), "is there already, and is not replaced",
                  "remove it first, or write to another name");
    stem_ = options_.output.substr(0, options_.output.size() - ending.size());
  }

  void read_table() {
    Report report;
    TableText table;
    Node node = vole::read_toml(options_.table);
    // One tileset may stand without brackets.
    if (Node* const one = node.find("tileset"); one && one->type == Node::Type::text) {
      Node list;
      list.type = Node::Type::array;
      list.where = one->where;
      list.items.push_back(*one);
      *one = list;
    }
    vole::read(node, table, report);
    report.throw_if_errors();
    vole::Catalog catalog(root_);
    for (const auto& name : table.tileset) {
      tilesets_.push_back(name.value);
      report.gather(
          [&] { tiles_.add(catalog.get<vole::Tileset>(name.value, name.where).shared(), name.where); });
    }
    report.throw_if_errors();
    kinds_ = vole::read_kinds(root_, vole::Categories{});
    meanings_.push_back({});  // nothing
    for (const auto& item : table.colours) {
      const auto colour = vole::parse_colour(item.name);
      if (!colour)
        report.error(item.where, fmt::format("\"{}\" is no colour", item.name), "write it like \"#3f5a36\"");
      else
        by_text_[to_text(*colour)] = add_meaning(item.value, report);
    }
    for (const auto& item : table.numbers) by_text_[item.name] = add_meaning(item.value, report);
    report.throw_if_errors();
  }

  std::uint32_t add_meaning(const Meaning& meaning, Report& report) {
    report.gather([&] {
      tiles_.paint(meaning.tile.value, meaning.tile.where);
      if (!meaning.kind.value.empty()) kinds_.kind(meaning.kind.value, meaning.kind.where);
    });
    meanings_.push_back(meaning);
    return static_cast<std::uint32_t>(meanings_.size() - 1);
  }

  void read_layer(const std::string& file) {
    Layer layer;
    layer.name = std::filesystem::path(file).stem().string();
    if (file.ends_with(".png"))
      read_picture(file, layer);
    else if (file.ends_with(".csv"))
      read_numbers(file, layer);
    else
      throw Error(FilePosition::whole_file(file), "is neither a PNG nor CSV",
                  "its name ends in .png or .csv");
    const auto same_name = [&](const Layer& other) { return other.name == layer.name; };
    if (std::any_of(layers_.begin(), layers_.end(), same_name))
      throw Error(FilePosition::whole_file(file),
                  fmt::format("two files would make the layer \"{}\"", layer.name));
    if (!layers_.empty() && layers_[0].cells != layer.cells)
      throw Error(FilePosition::whole_file(file),
                  fmt::format("has {} x {} cells, and \"{}\" {} x {}", layer.cells.x, layer.cells.y,
                              layers_[0].name, layers_[0].cells.x, layers_[0].cells.y));
    const IVec2 tile = tiles_.tile_size();
    if (layer.cells.x > vole::longest_level / tile.x || layer.cells.y > vole::longest_level / tile.y)
      throw Error(FilePosition::whole_file(file),
                  fmt::format("makes a level of {} x {} pixels", std::int64_t{layer.cells.x} * tile.x,
                              std::int64_t{layer.cells.y} * tile.y),
                  "at most 65,536 each way");
    layers_.push_back(std::move(layer));
  }

  void read_picture(const std::string& file, Layer& layer) {
    const vole::Image image = vole::read_png(file);
    layer.cells = image.size();
    for (int y = 0; y < layer.cells.y; ++y)
      for (int x = 0; x < layer.cells.x; ++x) {
        const Colour pixel = image.at(x, y);
        if (pixel.a == 0)
          layer.values.push_back(0);
        else
          add(layer, {x, y}, to_text(pixel), [&] {
            return Unplaced{FilePosition::whole_file(file), fmt::format(" (first at pixel {}, {})", x, y)};
          });
      }
  }

  void read_numbers(const std::string& file, Layer& layer) {
    const std::string text = vole::read_text(file, std::size_t{512} << 20);
    vole::CsvReader csv(text, file);
    while (csv.next_row()) {
      int x = 0;
      for (; csv.next_field(); ++x) {
        std::string field(csv.field());
        field.erase(0, std::min(field.find_first_not_of(' '), field.size()));
        field.erase(field.find_last_not_of(' ') + 1);
        add(layer, {x, layer.cells.y}, field, [&] { return Unplaced{csv.where(), {}}; });
      }
      if (layer.cells.y == 0) layer.cells.x = x;
      if (x != layer.cells.x)
        throw Error(csv.where(),
                    fmt::format("this row has {} fields, but the first has {}", x, layer.cells.x));
      ++layer.cells.y;
    }
    if (layer.cells.y == 0) throw Error(FilePosition::whole_file(file), "has no rows");
  }

  // `first` says where it is, for what stands for nothing.
  template <class First>
  void add(Layer& layer, IVec2 cell, const std::string& value, const First& first) {
    const auto known = by_text_.find(value);
    const std::uint32_t meaning = known == by_text_.end() ? 0 : known->second;
    layer.values.push_back(meaning);
    if (known == by_text_.end() && !value.empty()) {
      const auto [its, is_new] = unplaced_.try_emplace(value);
      if (is_new) its->second = first();
      ++its->second.times;
    }
    if (!meanings_[meaning].kind.value.empty()) places_.push_back({meanings_[meaning].kind.value, cell});
  }

  // A letter for each tile that is used: its own first letter where that is free.
  std::optional<std::map<std::string, char>> letters() const {
    std::map<std::string, char> letters;
    std::string taken = ".";
    for (const Layer& layer : layers_)
      for (const std::uint32_t value : layer.values) {
        const std::string& tile = meanings_[value].tile.value;
        if (tile.empty() || letters.count(tile) != 0) continue;
        std::string wanted = tile;
        wanted += "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789#+*=~^%&@!/|-_<>";
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

  void write() {
    constexpr int widest_rows = 400;
    const auto table = letters();
    const bool as_csv = !table || layers_[0].cells.x > widest_rows;
    std::string text = fmt::format("tileset = {}\n", tileset_text());
    if (!as_csv) {
      text += "\n[letters]\n\".\" = \"\"\n";
      for (const auto& [tile, letter] : *table)
        text += fmt::format("{} = {}\n", in_quotes(std::string(1, letter)), in_quotes(tile));
    }
    vole::FileSet files;
    for (const Layer& layer : layers_) {
      text += fmt::format("\n[[layers]]\nname = {}\n", in_quotes(layer.name));
      if (as_csv) {
        const std::string csv = fmt::format("{}-{}.csv", stem_, layer.name);
        if (vole::file_exists(csv))
          throw Error(FilePosition::whole_file(csv), "is there already, and is not replaced",
                      "remove it first");
        text += fmt::format("csv = {}\n", in_quotes(std::filesystem::path(csv).filename().string()));
        files.add(csv, csv_of(layer));
      } else {
        text += rows_of(layer, *table);
      }
    }
    const auto is_things = [](const Layer& layer) { return layer.name == "things"; };
    if (std::none_of(layers_.begin(), layers_.end(), is_things)) text += "\n[[layers]]\nname = \"things\"\n";
    for (const Place& place : places_)
      text += fmt::format("\n[[places]]\nkind = {}\ncell = [{}, {}]\n", in_quotes(place.kind), place.cell.x,
                          place.cell.y);
    files.add(options_.output, text);
    files.put_in_place();
  }

  std::string tileset_text() const {
    if (tilesets_.size() == 1) return in_quotes(tilesets_[0]);
    std::string text;
    for (const std::string& name : tilesets_)
      text += fmt::format("{}{}", text.empty() ? "[" : ", ", in_quotes(name));
    text += ']';
    return text;
  }

  std::string rows_of(const Layer& layer, const std::map<std::string, char>& letters) const {
    std::string text = "rows = [\n";
    for (int y = 0; y < layer.cells.y; ++y) {
      text += "  \"";
      for (int x = 0; x < layer.cells.x; ++x) {
        const std::string& tile = tile_at(layer, {x, y});
        text += tile.empty() ? '.' : letters.at(tile);
      }
      text += "\",\n";
    }
    text += "]\n";
    return text;
  }

  std::string csv_of(const Layer& layer) const {
    std::string text;
    for (int y = 0; y < layer.cells.y; ++y) {
      for (int x = 0; x < layer.cells.x; ++x) {
        const std::string& tile = tile_at(layer, {x, y});
        if (x > 0) text += ',';
        if (tile.find_first_of(",\"") == std::string::npos) {
          text += tile;
          continue;
        }
        text += '"';
        for (const char c : tile) text.append(c == '"' ? 2 : 1, c);
        text += '"';
      }
      text += '\n';
    }
    return text;
  }

  const std::string& tile_at(const Layer& layer, IVec2 cell) const {
    const auto place = static_cast<std::size_t>(cell.y) * static_cast<std::size_t>(layer.cells.x) +
                       static_cast<std::size_t>(cell.x);
    return meanings_[layer.values[place]].tile.value;
  }

  const ImportOptions& options_;
  std::string root_, stem_;
  std::vector<std::string> tilesets_;
  vole::TileTable tiles_;
  vole::Kinds kinds_;
  std::vector<Meaning> meanings_;
  std::map<std::string, std::uint32_t> by_text_;
  std::vector<Layer> layers_;
  std::vector<Place> places_;
  std::map<std::string, Unplaced> unplaced_;
};

}  // namespace

int import_level(const ImportOptions& options) {
  return Import(options).run();
}
