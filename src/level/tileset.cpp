#include "vole/level/tileset.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "tileset_file.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/schema.hpp"

namespace vole {
namespace {

std::optional<CellForm> form_of(const TileNature& nature, IVec2 cell, Report& report) {
  if (nature.shape && nature.corners)
    report.error(nature.corners->where, "a tile has either a \"shape\" or \"corners\" of its own");
  if (nature.corners) {
    try {
      return CellForm(Shape::polygon(nature.corners->value), cell);
    } catch (const Error& error) {
      report.error(nature.corners->where, error.problems()[0].text);
    }
  }
  if (nature.shape) return CellForm(nature.shape->value, cell);
  if (nature.solid) return CellForm::full(cell);
  return std::nullopt;
}

// What is no table is no component, but a slip of the pen.
void expect_components(const Named<TomlValue>& values, const std::vector<std::string>& known,
                       Report& report) {
  for (const auto& item : values)
    if (item.value.type != TomlValue::Type::table)
      report.error(item.where, fmt::format("unknown key \"{}\"", item.name), did_you_mean(item.name, known));
}

std::vector<std::string> keys_of(const TomlValue& schema) {
  std::vector<std::string> keys;
  for (const TomlValue::Entry& entry : schema.find("properties")->entries) keys.push_back(entry.key);
  return keys;
}

void add_clip(const TileText& text, Tile& tile, Report& report) {
  const std::size_t count = tile.frames.size();
  if (text.fps && text.seconds)
    report.error(text.seconds->where, "a tile that moves has either \"fps\" or \"seconds\"");
  for (std::size_t i = 0; i < count; ++i) tile.clip.frames.push_back(static_cast<int>(i));
  tile.clip.loop = true;
  tile.clip.millifps = static_cast<int>((text.fps ? text.fps->value : 6) * 1000 + 0.5);
  if (!text.seconds) return;
  if (text.seconds->value.size() != count)
    return report.error(text.seconds->where, fmt::format("tile \"{}\" has {} frames and {} times for them",
                                                         tile.name, count, text.seconds->value.size()));
  std::int64_t end = 0;
  for (const double seconds : text.seconds->value)
    tile.clip.ends.push_back(end += static_cast<std::int64_t>(seconds * 1e6 + 0.5));
}

// Tiles of one colour each, side by side.
void paint_stand_ins(const TilesetText& text, Tileset& tileset, Report& report) {
  const IVec2 size = tileset.tile_size = text.size->value.pixels;
  const int count = static_cast<int>(text.tiles.size());
  if (count == 0)
    return report.error(text.size->where, "a tileset without a picture needs [tiles] with colours");
  if (std::int64_t{count} * size.x * size.y > Image::most_pixels / 2)
    return report.error(text.size->where,
                        fmt::format("{} tiles of {} x {} pixels are too large", count, size.x, size.y));
  const int columns = static_cast<int>(std::ceil(std::sqrt(count)));
  Image image(IVec2{std::min(count, columns), (count + columns - 1) / columns} * size);
  std::vector<IRect> areas;
  for (const auto& item : text.tiles) {
    const TileText& its = item.value;
    if (!its.colour || its.cell || its.cells || its.row || its.frames)
      report.error(item.where, fmt::format("tile \"{}\" has a \"colour\" here, and no \"cell\"", item.name),
                   "this tileset has a \"size\" and no picture");
    const int index = static_cast<int>(areas.size());
    const IRect area{IVec2{index % columns, index / columns} * size, size};
    const Image tile = stand_in_image(size, its.colour ? its.colour->value : clear);
    for (int y = 0; y < size.y; ++y)
      std::copy_n(tile.row(y), size.x, image.row(area.top() + y) + area.left());
    areas.push_back(area);
  }
  tileset.picture = std::make_shared<const Picture>(image);
  for (std::size_t i = 0; i < areas.size(); ++i)
    add_tile(text.tiles[i].name, text.tiles[i].where, text.tiles[i].value.nature,
             {frame_of(*tileset.picture, areas[i])}, tileset, report);
  add_materials(text, nullptr, tileset, report);
}

// The tiles that one entry of [tiles] stands for.
class TileCutter {
 public:
  TileCutter(const TileCells& cells, Tileset& tileset, Report& report)
      : cells_(cells), tileset_(tileset), report_(report) {}

  void cut(const NamedItem<TileText>& item) {
    const TileText& text = item.value;
    const int ways =
        text.cell.has_value() + text.cells.has_value() + text.row.has_value() + text.frames.has_value();
    if (ways != 1 || text.colour) {
      report_.error(
          item.where,
          ways > 1
              ? fmt::format("tile \"{}\" has one of \"cell\", \"cells\", \"row\" and \"frames\"", item.name)
              : fmt::format("tile \"{}\" has a \"cell\" here, and no \"colour\"", item.name),
          "this tileset is cut from a picture");
      return;
    }
    if ((text.fps || text.seconds) && !text.frames)
      report_.error(item.where, fmt::format("tile \"{}\" has times, and no \"frames\"", item.name));
    try {
      if (text.cell) add(item, item.name, {cells_.frame(text.cell->value, of(item), text.cell->where)});
      if (text.cells) cut_part(item, text.cells->value[0], text.cells->value[1], text.cells->where);
      if (text.row)
        cut_part(item, {0, text.row->value}, {cells_.count().x - 1, text.row->value}, text.row->where);
      if (text.frames) cut_frames(item);
    } catch (const Error& error) {
      report_.add(error);
    }
  }

 private:
  static std::string of(const NamedItem<TileText>& item) { return fmt::format("tile \"{}\"", item.name); }

  int add(const NamedItem<TileText>& item, std::string name, std::vector<Frame> frames) {
    return add_tile(std::move(name), item.where, item.value.nature, std::move(frames), tileset_, report_);
  }

  void cut_part(const NamedItem<TileText>& item, IVec2 from, IVec2 to, const FilePosition& where) {
    if (to.x < from.x || to.y < from.y)
      throw Error(where, fmt::format("the cells of tile \"{}\" end before they begin", item.name),
                  "first the cell at the top left, then the one at the bottom right");
    cells_.frame(to, of(item), where);  // before any tile is made
    int number = 0;
    for (int y = from.y; y <= to.y; ++y)
      for (int x = from.x; x <= to.x; ++x)
        add(item, fmt::format("{} {}", item.name, number++), {cells_.frame({x, y}, of(item), where)});
  }

  void cut_frames(const NamedItem<TileText>& item) {
    const auto& written = *item.value.frames;
    if (written.value.empty())
      throw Error(written.where, fmt::format("tile \"{}\" has no frames", item.name));
    std::vector<Frame> frames;
    for (const Located<IVec2>& cell : written.value)
      frames.push_back(cells_.frame(cell.value, of(item), cell.where));
    const int index = add(item, item.name, std::move(frames));
    add_clip(item.value, tileset_.tiles[static_cast<std::size_t>(index)], report_);
  }

  const TileCells& cells_;
  Tileset& tileset_;
  Report& report_;
};

void cut_tiles(const TilesetText& text, const TomlValue& root, Loading& loading, Tileset& tileset,
               Report& report) {
  const Located<FrameCut>& cut = *text.frame;
  const TilePicture picture = tile_picture(loading, text.picture, root.where);
  tileset.picture = picture.page;
  constexpr int most_pixels = 256;
  if (cut.value.size.x > most_pixels || cut.value.size.y > most_pixels)
    throw Error(cut.where,
                fmt::format("tiles of {} x {} pixels are too large", cut.value.size.x, cut.value.size.y),
                fmt::format("at most {} each way", most_pixels));
  tileset.tile_size = cut.value.size;
  const auto [areas, columns] =
      cut_frames(picture.size, cut.value, cut.where, tileset.name, allows(text.check, "uneven-frames"));
  const TileCells cells(picture, areas, columns);
  TileCutter cutter(cells, tileset, report);
  for (const auto& item : text.tiles) cutter.cut(item);
  add_materials(text, &cells, tileset, report);
}

void expect_names_once(const Tileset& tileset, const FilePosition& where, Report& report) {
  std::vector<std::string> names = names_of(tileset.tiles);
  for (const TileMaterial& material : tileset.materials) names.push_back(material.name);
  std::sort(names.begin(), names.end());
  const auto twice = std::adjacent_find(names.begin(), names.end());
  if (twice != names.end())
    report.error(where, fmt::format("two tiles or materials are named \"{}\"", *twice),
                 "those of a row, a part or a material are numbered after its name");
}

}  // namespace

void read_field(const TomlValue& toml, TileSize& size, const FieldRule&, Report& report) {
  const FieldRule rule = within(1, 256);
  if (toml.type == TomlValue::Type::array) return read_value(toml, size.pixels, rule, report);
  int side = size.pixels.x;
  read_value(toml, side, rule, report);
  size.pixels = {side, side};
}

TomlValue schema_field(const TileSize&, const FieldRule&) {
  const FieldRule rule = within(1, 256);
  return detail::either_schema({schema_of<int>(rule), schema_of<IVec2>(rule)});
}

Frame TilePicture::frame(const IRect& part) const {
  const IRect there = part.shared_with({offset, area.size});
  Frame frame = frame_of(*page, {there.at - offset + area.at, there.size});
  if (there.empty()) frame.area = {};
  frame.size = part.size;
  frame.offset = there.at - part.at;
  return frame;
}

TilePicture tile_picture(Loading& loading, const Located<std::string>& written,
                         const FilePosition& otherwise) {
  const std::string name = picture_name_beside(loading.name(), written.value);
  if (!loading.catalog().has<Picture>(name) && loading.catalog().has<Sheet>(name)) {
    const Asset<Sheet> packed = loading.catalog().get<Sheet>(name);
    if (packed->frames.size() == 1) {
      loading.depends_on(packed);
      const Frame& frame = packed->frames[0];
      for (const std::shared_ptr<const Picture>& page : packed->pictures)
        if (page.get() == frame.picture) return {page, frame.size, frame.area, frame.offset};
    }
  }
  const std::shared_ptr<const Picture> own = picture_beside(loading, written, otherwise).shared();
  return {own, own->size(), own->area(), {0, 0}};
}

Frame TileCells::frame(IVec2 cell, std::string_view whose, const FilePosition& asked) const {
  const IVec2 there = count();
  if (cell.x >= there.x || cell.y >= there.y)
    throw Error(asked,
                fmt::format("{} is at column {}, row {}, but the picture has {} columns and {} rows", whose,
                            cell.x, cell.y, there.x, there.y),
                "they are counted from 0");
  return picture_.frame(areas_[static_cast<std::size_t>(cell.y * columns_ + cell.x)]);
}

int add_tile(std::string name, const FilePosition& where, const TileNature& nature, std::vector<Frame> frames,
             Tileset& tileset, Report& report) {
  if (tileset.tiles.size() >= most_tiles) throw Error(where, fmt::format("more than {} tiles", most_tiles));
  std::optional<CellForm> form = form_of(nature, tileset.tile_size, report);
  if (!form && nature.one_way.where.file)
    report.error(nature.one_way.where, fmt::format("tile \"{}\" is one-way, but not solid", name),
                 "solid = true, or a shape");
  if (!form && nature.category.where.file)
    report.error(nature.category.where, fmt::format("tile \"{}\" has a category, but is not solid", name),
                 "solid = true, or a shape");
  if (!form && nature.shadow)
    report.error(nature.shadow->where, fmt::format("tile \"{}\" is not solid, and casts no shadow", name),
                 "solid = true, or a shape");
  if (form) {
    form->shadow = nature.shadow ? nature.shadow->value : nature.one_way.value == OneWay::no;
    form->one_way = nature.one_way.value;
    form->category = category_among(tileset.categories, nature.category, nature.category.where);
  }
  tileset.tiles.push_back(
      {std::move(name), form, nature.friction, nature.tags, nature.values, std::move(frames), {}});
  return static_cast<int>(tileset.tiles.size()) - 1;
}

Tileset::Tileset() = default;
Tileset::Tileset(const Tileset&) = default;
Tileset::Tileset(Tileset&&) noexcept = default;
Tileset& Tileset::operator=(Tileset&&) noexcept = default;
Tileset::~Tileset() = default;

int Tileset::find(std::string_view tile_name) const {
  const std::size_t index = index_named(tiles, tile_name);
  return index < tiles.size() ? static_cast<int>(index) : -1;
}

std::uint8_t category_among(std::vector<Located<std::string>>& known, const Located<std::string>& its,
                            const FilePosition& asked) {
  if (its.value.empty()) return 0;
  const auto named = [&its](const Located<std::string>& each) { return each.value == its.value; };
  auto found = std::find_if(known.begin(), known.end(), named);
  if (found == known.end()) {
    if (known.size() == most_categories)
      throw Error(asked, fmt::format("tiles of more than {} categories", most_categories));
    found = known.insert(found, its);
  }
  return static_cast<std::uint8_t>(found - known.begin());
}

Tileset AssetType<Tileset>::load(Loading& loading) {
  Report report;
  TilesetText text;
  const TomlValue root = read_toml(loading.path());
  read(root, text, report);
  static const std::vector<std::string> tile_keys = keys_of(schema_of<TileText>()),
                                        material_keys = keys_of(schema_of<MaterialText>());
  for (const auto& item : text.tiles) expect_components(item.value.nature.values, tile_keys, report);
  for (const auto& item : text.materials) expect_components(item.value.nature.values, material_keys, report);
  report.throw_if_errors();

  if (text.frame.has_value() == text.size.has_value())
    throw Error(
        root.where,
        "a tileset has either a \"frame\", which cuts a picture, or the \"size\" of tiles of one colour");
  Tileset tileset;
  tileset.name = loading.name();
  if (text.size)
    paint_stand_ins(text, tileset, report);
  else
    cut_tiles(text, root, loading, tileset, report);
  report.throw_if_errors();
  expect_names_once(tileset, root.where, report);
  if (tileset.tiles.empty()) report.error(root.where, "a tileset has [tiles] or [materials]");
  report.throw_if_errors();
  return tileset;
}

TomlValue AssetType<Tileset>::schema() {
  return schema_of<TilesetText>();
}

}  // namespace vole
