// Materials of tiles, as a tileset's file describes them.
#include <fmt/core.h>

#include <algorithm>

#include "tileset_file.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"
#include "weighted_name.hpp"

namespace vole {
namespace {

class MaterialMaker {
 public:
  MaterialMaker(const NamedItem<MaterialText>& item, const TileCells* cells, Tileset& tileset, Report& report)
      : name_(item.name),
        where_(item.where),
        text_(item.value),
        cells_(cells),
        tileset_(tileset),
        report_(report) {}

  void make() {
    material_.name = name_;
    material_.neighbours = text_.neighbours;
    material_.seed = static_cast<std::uint64_t>(text_.seed);
    if (text_.first.has_value() == !text_.cases.empty())
      return report_.error(
          where_,
          fmt::format("material \"{}\" has either \"first\", where its cases begin in the picture, or "
                      "\"cases\"",
                      name_));
    if (text_.first)
      cut_cases();
    else
      take_cases();
    if (material_.cases.empty())
      return report_.error(where_, fmt::format("material \"{}\" has no case with a tile", name_));
    std::sort(material_.cases.begin(), material_.cases.end(),
              [](const auto& a, const auto& b) { return a.neighbours < b.neighbours; });
    material_.find_nearest_cases();
    tileset_.materials.push_back(std::move(material_));
  }

 private:
  const std::vector<Neighbours>& all_cases() const { return cases_of(text_.neighbours); }

  // Whether it is the number of a case; reports otherwise.
  bool expect_case(const Located<int>& number) {
    const auto count = static_cast<int>(all_cases().size());
    if (number.value < count) return true;
    report_.error(number.where, fmt::format("no case {}: there are {}", number.value, count),
                  "they are counted from 0");
    return false;
  }

  // A block of the picture, case by case.
  void cut_cases() {
    if (!cells_)
      return report_.error(text_.first->where, "a tileset without a picture has materials with \"cases\"");
    for (const Located<int>& number : text_.missing) expect_case(number);
    const int columns = text_.columns ? text_.columns->value : 4;
    for (int number = 0; number < static_cast<int>(all_cases().size()); ++number) {
      const auto is_it = [number](const Located<int>& missing) { return missing.value == number; };
      if (std::any_of(text_.missing.begin(), text_.missing.end(), is_it)) continue;
      const IVec2 cell = text_.first->value + IVec2{number % columns, number / columns};
      if (!add_case(number, cell)) return;
    }
    for (const VariantText& variant : text_.variants) add_variants(variant);
  }

  bool add_case(int number, IVec2 cell) {
    try {
      const Frame frame =
          cells_->frame(cell, fmt::format("case {} of material \"{}\"", number, name_), text_.first->where);
      const int tile =
          add_tile(fmt::format("{} {}", name_, number), where_, text_.nature, {frame}, tileset_, report_);
      material_.cases.push_back({all_cases()[static_cast<std::size_t>(number)], {{tile, 1}}});
      return true;
    } catch (const Error& error) {
      report_.add(error);
      return false;
    }
  }

  void add_variants(const VariantText& variant) {
    if (!expect_case(variant.number)) return;
    const Neighbours neighbours = all_cases()[static_cast<std::size_t>(variant.number.value)];
    const auto its = std::find_if(material_.cases.begin(), material_.cases.end(),
                                  [&](const auto& each) { return each.neighbours == neighbours; });
    if (its == material_.cases.end())
      return report_.error(variant.number.where,
                           fmt::format("case {} has variants, and is missing", variant.number.value));
    for (const Located<IVec2>& cell : variant.cells) {
      const Frame frame =
          cells_->frame(cell.value, fmt::format("a variant of material \"{}\"", name_), cell.where);
      const int tile =
          add_tile(fmt::format("{} {} variant {}", name_, variant.number.value, its->choices.size()), where_,
                   text_.nature, {frame}, tileset_, report_);
      its->choices.push_back({tile, variant.weight});
    }
  }

  // Tiles of the tileset, case by case.
  void take_cases() {
    if (!text_.variants.empty() || !text_.missing.empty() || text_.columns)
      report_.error(
          where_,
          fmt::format("material \"{}\" has \"cases\", and so no \"columns\", \"missing\" and \"variants\"",
                      name_));
    const TileNature& nature = text_.nature;
    if (nature.solid || nature.shape || nature.corners || !nature.tags.empty() || !nature.values.empty())
      report_.error(where_, fmt::format("what is solid about material \"{}\" is said of its tiles", name_),
                    "its cases take tiles from [tiles]");
    for (const auto& item : text_.cases) {
      const std::optional<Neighbours> neighbours = read_case(item.name, item.where);
      if (!neighbours) continue;
      TileMaterial::Case its{*neighbours, {}};
      double total = 0;
      for (const ChoiceText& choice : item.value.all) {
        total += choice.weight;
        if (const int tile = find_tile(choice.tile); tile >= 0) its.choices.push_back({tile, choice.weight});
      }
      if (item.value.all.empty() || !(total > 0))
        report_.error(item.where, fmt::format("this case of material \"{}\" has no tile to choose", name_));
      else if (!its.choices.empty())
        material_.cases.push_back(std::move(its));
    }
  }

  int find_tile(const Located<std::string>& name) {
    const int tile = tileset_.find(name.value);
    if (tile < 0)
      report_.error(name.where, fmt::format("no tile \"{}\" in tileset \"{}\"", name.value, tileset_.name),
                    did_you_mean(name.value, names_of(tileset_.tiles)));
    return tile;
  }

  std::optional<Neighbours> read_case(const std::string& written, const FilePosition& where) {
    const Neighbours all = that_matter(0xff, text_.neighbours);
    std::optional<Neighbours> neighbours = written == "none"  ? Neighbours{0}
                                           : written == "all" ? all
                                                              : read_names(written, where);
    if (!neighbours) return neighbours;
    if (std::find(all_cases().begin(), all_cases().end(), *neighbours) == all_cases().end()) {
      report_.error(where,
                    fmt::format("\"{}\" is no case of \"{}\"", written,
                                enum_names(NeighbourSet{})[static_cast<std::size_t>(text_.neighbours)]),
                    text_.neighbours == NeighbourSet::eight
                        ? "a corner counts only where both sides beside it do"
                        : "");
      return std::nullopt;
    }
    const auto same = [&](const TileMaterial::Case& each) { return each.neighbours == *neighbours; };
    if (std::any_of(material_.cases.begin(), material_.cases.end(), same)) {
      report_.error(where, fmt::format("the case \"{}\" is there already", written));
      return std::nullopt;
    }
    return neighbours;
  }

  // "left, below"
  std::optional<Neighbours> read_names(std::string_view written, const FilePosition& where) {
    int neighbours = 0;
    for (std::string_view rest = written; !rest.empty();) {
      const std::string_view word = rest.substr(0, rest.find(','));
      rest.remove_prefix(std::min(word.size() + 1, rest.size()));
      rest.remove_prefix(std::min(rest.find_first_not_of(' '), rest.size()));
      const auto found = std::find(neighbour_names.begin(), neighbour_names.end(), word);
      if (found == neighbour_names.end()) {
        const std::vector<std::string> known(neighbour_names.begin(), neighbour_names.end());
        report_.error(where, fmt::format("\"{}\" is no neighbour", word), did_you_mean(word, known));
        return std::nullopt;
      }
      neighbours |= 1 << (found - neighbour_names.begin());
    }
    return static_cast<Neighbours>(neighbours);
  }

  const std::string& name_;
  const FilePosition& where_;
  const MaterialText& text_;
  const TileCells* cells_;
  Tileset& tileset_;
  Report& report_;
  TileMaterial material_;
};

void join(const NamedItem<MaterialText>& item, Tileset& tileset, Report& report) {
  TileMaterial* const material = find_named(tileset.materials, item.name);
  if (!material) return;  // reported
  for (const Located<std::string>& name : item.value.joins) {
    const std::size_t other = index_named(tileset.materials, name.value);
    const int tile = tileset.find(name.value);
    if (other < tileset.materials.size())
      material->joined_materials.push_back(static_cast<int>(other));
    else if (tile >= 0)
      material->joined_tiles.push_back(tile);
    else {
      std::vector<std::string> known = names_of(tileset.tiles);
      for (const TileMaterial& each : tileset.materials) known.push_back(each.name);
      report.error(name.where,
                   fmt::format("no tile or material \"{}\" in tileset \"{}\"", name.value, tileset.name),
                   did_you_mean(name.value, known));
    }
  }
  std::sort(material->joined_materials.begin(), material->joined_materials.end());
  std::sort(material->joined_tiles.begin(), material->joined_tiles.end());
}

}  // namespace

void read_field(const TomlValue& toml, ChoiceText& choice, const FieldRule&, Report& report) {
  read_weighted_name(toml, "tile", "tile", choice.tile, choice.weight, report);
}

TomlValue schema_field(const ChoiceText&, const FieldRule&) {
  return weighted_name_schema("tile");
}

void read_field(const TomlValue& toml, ChoicesText& choices, const FieldRule&, Report& report) {
  if (toml.type == TomlValue::Type::array) return read_value(toml, choices.all, items(100), report);
  choices.all.resize(1);
  read_value(toml, choices.all[0], {}, report);
}

TomlValue schema_field(const ChoicesText&, const FieldRule&) {
  return detail::either_schema({schema_of<ChoiceText>(), schema_of<std::vector<ChoiceText>>(items(100))});
}

void add_materials(const TilesetText& text, const TileCells* cells, Tileset& tileset, Report& report) {
  for (const auto& item : text.materials) {
    report.gather([&] { MaterialMaker(item, cells, tileset, report).make(); });
  }
  for (const auto& item : text.materials) join(item, tileset, report);
}

}  // namespace vole
