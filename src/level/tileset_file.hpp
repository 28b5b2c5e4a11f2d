// What NAME.tileset.toml says, before it becomes a Tileset.
#pragma once

#include "vole/base/check_notes.hpp"
#include "vole/level/tileset.hpp"

namespace vole {

// What a tile is, whatever it looks like.
struct TileNature {
  bool solid = false;
  std::optional<Located<TileShape>> shape;
  std::optional<Located<std::vector<Vec2>>> corners;
  Located<OneWay> one_way;
  Located<std::string> category;
  float friction = 1;
  std::optional<Located<bool>> shadow;
  std::vector<std::string> tags;
  Named<TomlValue> values;
};
template <class V>
void describe_nature(V& v, TileNature& nature) {
  v("solid", nature.solid);
  v("shape", nature.shape);
  v("corners", nature.corners, items(Shape::most_corners));
  v("one_way", nature.one_way);
  v("category", nature.category);
  v("friction", nature.friction, within(0, 100));
  v("shadow", nature.shadow);
  v("tags", nature.tags, items(32));
  v.rest(nature.values);
}

struct TileText {
  std::optional<Located<IVec2>> cell;
  std::optional<Located<std::array<IVec2, 2>>> cells;
  std::optional<Located<int>> row;
  std::optional<Located<std::vector<Located<IVec2>>>> frames;
  std::optional<Located<double>> fps;
  std::optional<Located<std::vector<double>>> seconds;
  std::optional<Located<Colour>> colour;
  TileNature nature;
};
template <class V>
void describe(V& v, TileText& tile) {
  v("cell", tile.cell, within(0, 65535));
  v("cells", tile.cells, within(0, 65535));
  v("row", tile.row, within(0, 65535));
  v("frames", tile.frames, within(0, 65535).items(1000));
  v("fps", tile.fps, within(0.01, 1000));
  v("seconds", tile.seconds, within(0.001, 3600).items(1000));
  v("colour", tile.colour);
  describe_nature(v, tile.nature);
}

// "stones", or { tile = "stones", weight = 0.1 }.
struct ChoiceText {
  Located<std::string> tile;
  double weight = 1;
};
void read_field(const TomlValue& toml, ChoiceText& choice, const FieldRule& rule, Report& report);
TomlValue schema_field(const ChoiceText& choice, const FieldRule& rule);

// One choice, or a list of them.
struct ChoicesText {
  std::vector<ChoiceText> all;
};
void read_field(const TomlValue& toml, ChoicesText& choices, const FieldRule& rule, Report& report);
TomlValue schema_field(const ChoicesText& choices, const FieldRule& rule);

struct VariantText {
  Located<int> number;
  std::vector<Located<IVec2>> cells;
  double weight = 1;
};
template <class V>
void describe(V& v, VariantText& variant) {
  v("case", variant.number, needed().within(0, 46));
  v("cells", variant.cells, needed().within(0, 65535).items(100));
  v("weight", variant.weight, within(0, 1e6));
}

struct MaterialText {
  NeighbourSet neighbours = NeighbourSet::four;
  std::int64_t seed = 0;
  std::optional<Located<IVec2>> first;
  std::optional<Located<int>> columns;
  std::vector<Located<int>> missing;
  std::vector<VariantText> variants;
  Named<ChoicesText> cases;
  std::vector<Located<std::string>> joins;
  TileNature nature;
};
template <class V>
void describe(V& v, MaterialText& material) {
  v("neighbours", material.neighbours);
  v("seed", material.seed);
  v("first", material.first, within(0, 65535));
  v("columns", material.columns, within(1, 47));
  v("missing", material.missing, within(0, 46).items(47));
  v("variants", material.variants, items(200));
  v("cases", material.cases, items(47));
  v("joins", material.joins, items(1000));
  describe_nature(v, material.nature);
}

// 16, or [16, 8].
struct TileSize {
  IVec2 pixels{16, 16};
};
void read_field(const TomlValue& toml, TileSize& size, const FieldRule& rule, Report& report);
TomlValue schema_field(const TileSize& size, const FieldRule& rule);

struct TilesetText {
  Located<std::string> picture;
  std::optional<Located<FrameCut>> frame;
  std::optional<Located<TileSize>> size;  // of tiles of one colour, until there is a picture
  Named<TileText> tiles;
  Named<MaterialText> materials;
  CheckNotes check;
};
template <class V>
void describe(V& v, TilesetText& tileset) {
  v("picture", tileset.picture);
  v("frame", tileset.frame);
  v("size", tileset.size);
  v("tiles", tileset.tiles, items(most_tiles));
  v("materials", tileset.materials, items(most_materials));
  v("check", tileset.check);
}

// The picture that tiles are cut from: a file of its own, or packed onto a page, where it may have lost clear borders.
struct TilePicture {
  std::shared_ptr<const Picture> page;
  IVec2 size{0, 0};    // of the whole picture
  IRect area;          // of it on the page
  IVec2 offset{0, 0};  // of that within the picture

  // The part of it that is there.
  Frame frame(const IRect& part) const;
};
// Throws Error at `written` or else at `otherwise`.
TilePicture tile_picture(Loading& loading, const Located<std::string>& written,
                         const FilePosition& otherwise);

// The tiles' picture cut into cells, as the file counts them.
class TileCells {
 public:
  TileCells(const TilePicture& picture, const std::vector<IRect>& areas, int columns)
      : picture_(picture), areas_(areas), columns_(columns) {}

  IVec2 count() const { return {columns_, static_cast<int>(areas_.size()) / columns_}; }
  // Throws Error at `asked`, about `whose`, for a cell that the picture has not.
  Frame frame(IVec2 cell, std::string_view whose, const FilePosition& asked) const;

 private:
  const TilePicture& picture_;
  const std::vector<IRect>& areas_;
  int columns_;
};

// Adds a tile of this nature; what is wrong with that goes to the report.
int add_tile(std::string name, const FilePosition& where, const TileNature& nature, std::vector<Frame> frames,
             Tileset& tileset, Report& report);

// Adds the tileset's materials, and the tiles that they have of their own. `cells`: none where tiles are of one colour.
void add_materials(const TilesetText& text, const TileCells* cells, Tileset& tileset, Report& report);

}  // namespace vole
