// A level from pictures in which each colour stands for a tile or a thing, or from CSV of numbers, as a table says.
#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <map>

#include "command.hpp"
#include "commands.hpp"
#include "game_files.hpp"
#include "level_text.hpp"
#include "vole/asset/image.hpp"
#include "vole/base/csv.hpp"
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
using vole::Report;
using vole::TomlValue;

// "turf", { kind = "bulb" } or { kind = "bulb", tile = "turf" }: what a colour or a number stands for.
struct Meaning {
  Located<std::string> tile, kind;
};
void read_field(const TomlValue& toml, Meaning& meaning, const vole::FieldRule&, Report& report) {
  if (toml.type == TomlValue::Type::text)
    return vole::read_value(toml, meaning.tile, vole::may_be_empty(), report);
  if (!vole::detail::expect(toml, TomlValue::Type::table, "a tile's name, or { kind = \"...\" }", report))
    return;
  vole::Reader reader(toml, report);
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

// What stood for nothing: where it was first, in words too where that is no line of a text, and how often.
struct Unplaced {
  FilePosition first;
  std::string spot;
  std::int64_t times = 0;
};

struct ImportOptions {
  std::string work;                // "import", the one there is
  std::vector<std::string> files;  // PNG and CSV: each becomes a layer
  std::string table;
  std::string output;
};

class Import {
 public:
  explicit Import(const ImportOptions& options) : options_(options) {}

  int run() {
    find_game();
    read_table();
    for (const std::string& file : options_.files) read_layer(file);
    write_level(level_, options_.output);
    print_unplaced();
    fmt::print("{}\n", options_.output);
    return unplaced_.empty() ? 0 : 1;
  }

 private:
  // As many as a person reads; of a photograph every pixel may be one.
  void print_unplaced() const {
    constexpr std::size_t most = 40;
    std::size_t printed = 0;
    for (const auto& [what, unplaced] : unplaced_) {
      if (++printed > most) break;
      const std::string text =
          fmt::format("\"{}\"{} stands for nothing in the table; its cells are empty", what, unplaced.spot);
      fmt::print(stderr, "{}\n",
                 to_text(vole::Problem{unplaced.first, vole::Severity::warning, text, {}, unplaced.times}));
    }
    if (unplaced_.size() > most)
      fmt::print(stderr, "and {} more stand for nothing in the table\n", unplaced_.size() - most);
  }

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
  }

  void read_table() {
    Report report;
    TableText table;
    TomlValue toml = vole::read_toml(options_.table);
    // One tileset may stand without brackets.
    if (TomlValue* const one = toml.find("tileset"); one && one->type == TomlValue::Type::text) {
      TomlValue list;
      list.type = TomlValue::Type::array;
      list.where = one->where;
      list.items.push_back(*one);
      *one = list;
    }
    vole::read(toml, table, report);
    report.throw_if_errors();
    vole::Catalog catalog(root_);
    for (const auto& name : table.tileset) {
      level_.tilesets.push_back(name.value);
      report.gather(
          [&] { tiles_.add(catalog.get<vole::Tileset>(name.value, name.where).shared(), name.where); });
    }
    report.throw_if_errors();
    kinds_ = vole::read_kinds(root_, vole::Categories{});
    meanings_.push_back({});  // nothing
    level_.tiles.push_back({});
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
    level_.tiles.push_back(meaning.tile.value);
    return static_cast<std::uint32_t>(meanings_.size() - 1);
  }

  void read_layer(const std::string& file) {
    LevelText::Layer layer;
    layer.name = std::filesystem::path(file).stem().string();
    if (file.ends_with(".png"))
      read_picture(file, layer);
    else if (file.ends_with(".csv"))
      read_numbers(file, layer);
    else
      throw Error(FilePosition::whole_file(file), "is neither a PNG nor CSV",
                  "its name ends in .png or .csv");
    const auto same_name = [&](const LevelText::Layer& other) { return other.name == layer.name; };
    if (std::any_of(level_.layers.begin(), level_.layers.end(), same_name))
      throw Error(FilePosition::whole_file(file),
                  fmt::format("two files would make the layer \"{}\"", layer.name));
    if (!level_.layers.empty() && level_.layers[0].cells != layer.cells)
      throw Error(FilePosition::whole_file(file),
                  fmt::format("has {} x {} cells, and \"{}\" {} x {}", layer.cells.x, layer.cells.y,
                              level_.layers[0].name, level_.layers[0].cells.x, level_.layers[0].cells.y));
    const IVec2 tile = tiles_.tile_size();
    if (layer.cells.x > vole::longest_level / tile.x || layer.cells.y > vole::longest_level / tile.y)
      throw Error(FilePosition::whole_file(file),
                  fmt::format("makes a level of {} x {} pixels", std::int64_t{layer.cells.x} * tile.x,
                              std::int64_t{layer.cells.y} * tile.y),
                  "at most 65,536 each way");
    level_.layers.push_back(std::move(layer));
  }

  void read_picture(const std::string& file, LevelText::Layer& layer) {
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

  void read_numbers(const std::string& file, LevelText::Layer& layer) {
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
  void add(LevelText::Layer& layer, IVec2 cell, const std::string& value, const First& first) {
    const auto known = by_text_.find(value);
    const std::uint32_t meaning = known == by_text_.end() ? 0 : known->second;
    layer.values.push_back(meaning);
    if (known == by_text_.end() && !value.empty()) {
      const auto [its, is_new] = unplaced_.try_emplace(value);
      if (is_new) its->second = first();
      ++its->second.times;
    }
    if (!meanings_[meaning].kind.value.empty())
      level_.places.push_back({meanings_[meaning].kind.value, cell});
  }

  const ImportOptions& options_;
  std::string root_;
  LevelText level_;
  vole::TileTable tiles_;
  vole::Kinds kinds_;
  std::vector<Meaning> meanings_;
  std::map<std::string, std::uint32_t> by_text_;
  std::map<std::string, Unplaced> unplaced_;
};

}  // namespace

void add_level(CommandLine& line) {
  const auto options = std::make_shared<ImportOptions>();
  Command command = line.add(
      "level", "Make a level of pictures, or of CSV with numbers, that were drawn elsewhere",
      "  vole level import ground.png --table garden.toml -o my-game/levels/garden.level.toml\n"
      "  vole level import back.csv front.csv --table garden.toml -o my-game/levels/garden.level.toml\n\n"
      "The table says what each colour or number stands for:\n\n"
      "  tileset = \"garden\"\n"
      "  [colours]\n"
      "  \"#3f5a36\" = \"turf\"\n"
      "  \"#b3485a\" = { kind = \"berry\" }\n"
      "  [numbers]\n"
      "  0 = \"\"\n"
      "  17 = \"rise, mirrored\"",
      [options] { return Import(*options).run(); });
  command.word("WORK", options->work, "What to do").one_of({"import"}).needed();
  command.word("FILE", options->files, "A PNG or CSV: each becomes a layer of its name").needed();
  command.word("--table", options->table, "The table, as TOML").value_name("FILE").needed();
  command.word("-o,--output", options->output, "The level to write: levels/NAME.level.toml of a game")
      .value_name("FILE")
      .needed();
}
