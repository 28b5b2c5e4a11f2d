// starts-inside, large-body, tight-gap, low-ceiling, uneven-ground, idle-category and nobody-steers: what is solid otherwise
// than was probably meant.
#include <algorithm>
#include <optional>

#include "game_under_check.hpp"
#include "vole/world/body.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/sprite.hpp"

namespace {

using vole::CellForm;
using vole::IVec2;
using vole::Level;
using vole::OneWay;
using vole::Rect;

// What a thing is, as far as these rules ask.
struct Traits {
  std::optional<vole::Body> body;
  vole::Vec2 size{0, 0};  // of all of the body
  bool has_shapes = false, moves = false, steered = false;
  bool on_lanes = false;  // on which it passes whatever is as wide as itself
  IVec2 picture{0, 0};    // size of what it shows first
};

class Solids {
 public:
  explicit Solids(GameUnderCheck& game) : game_(game), kinds_(game.kinds) {}

  void look() {
    for (const auto& kind : kinds_.all) look_at_kind(kind);
    look_at_categories();
    for (const std::string& name : game_.catalog.names<Level>()) {
      try {
        look_at_level(*game_.catalog.get<Level>(name));
      } catch (const vole::Error&) {
        // Reported where it is read.
      }
    }
  }

 private:
  Traits traits_of(const std::string& name, const vole::TomlValue& components) const {
    const auto kind = game_.kinds_alone.compile(name, components);
    Traits traits;
    if (const auto* const body = kind->find<vole::Body>()) traits.body = *body;
    if (const auto* const shapes = kind->find<vole::Shapes>()) {
      traits.has_shapes = true;
      traits.size = size_of(*shapes);
    }
    for (const vole::CompiledKind::Part& part : kind->parts) {
      traits.moves = traits.moves || part.type->mover;
      traits.steered = traits.steered || part.type->pilot;
      traits.on_lanes = traits.on_lanes || part.type->name == "grid_mover";
    }
    if (traits.body && !traits.has_shapes) traits.size = traits.body->size;
    if (kind->sprite && kind->sprite->sheet() && !kind->sprite->sheet()->missing &&
        !kind->sprite->sheet()->frames.empty())
      traits.picture = kind->sprite->sheet()->frames[0].size;
    return traits;
  }

  // What cannot be made is reported already.
  vole::Vec2 size_of(const vole::Shapes& shapes) const {
    try {
      Rect all;
      for (const vole::Shape& shape : vole::shapes_of(shapes, game_.catalog))
        all = all.empty() ? shape.bounds() : all.joined_with(shape.bounds());
      return all.size;
    } catch (const vole::Error&) {
      return {0, 0};
    }
  }

  void look_at_kind(const vole::NamedItem<vole::TomlValue>& kind) {
    const Traits traits = traits_of(kind.name, kind.value);
    if (traits.steered) steered_kinds_.push_back(kind.name);
    if (traits.body) categories_seen_.insert(traits.body->category.value);
    if (!traits.body || traits.picture.x == 0) return;
    const vole::Vec2 size = traits.size, picture(traits.picture);
    if (size.x > picture.x * 1.5f || size.y > picture.y * 1.5f)
      game_.add("large-body", game_.relative(*kind.where.file),
                fmt::format("the body of \"{}\", {} x {}, is larger by half than its picture, {} x {}",
                            kind.name, size.x, size.y, traits.picture.x, traits.picture.y),
                "it will be held and met where nothing is to be seen", kind.where);
  }

  void look_at_categories() {
    for (const std::string& name : game_.catalog.names<vole::Tileset>()) {
      try {
        for (const auto& category : game_.catalog.get<vole::Tileset>(name)->categories)
          categories_seen_.insert(category.value);
      } catch (const vole::Error&) {
      }
    }
    for (const auto& item : game_.project.written_categories) {
      if (categories_seen_.count(item.name) == 0 && item.name != "ground" && item.name != "plain")
        game_.add(
            "idle-category", "game.toml",
            fmt::format("no kind and no tile is of the category \"{}\", so it meets nothing", item.name), "",
            item.where);
      const vole::Categories& categories = game_.project.categories;
      const std::optional<std::uint8_t> number = categories.find(item.name);
      if (number && categories.blocks(*number) == 0 && categories.notices(*number) == 0)
        game_.add(
            "idle-category", "game.toml",
            fmt::format("the category \"{}\" neither blocks nor notices any, so it meets nothing", item.name),
            "leave out its \"notices\": then it notices all", item.where);
    }
  }

  void look_at_level(const Level& level) {
    const std::string file = "levels/" + level.name + ".level.toml";
    bool steered = false;
    float lowest = 0;  // of bodies that are steered
    for (const vole::LevelPlace& place : level.places) {
      if (!kinds_.has(place.kind)) continue;
      vole::TomlValue thing = kinds_.kind(place.kind);
      thing.merge(place.overrides);
      const Traits traits = traits_of(place.kind, thing);
      steered = steered || traits.steered;
      if (!traits.body || traits.has_shapes || !traits.moves) continue;
      if (traits.steered) lowest = lowest == 0 ? traits.body->size.y : std::min(lowest, traits.body->size.y);
      look_for_start_inside(level, file, place, traits.body->box(place.at));
      if (!traits.on_lanes) look_for_tight_gap(level, file, place, traits.body->size);
    }
    if (lowest > 0) look_for_low_ceilings(level, file, lowest);
    look_for_uneven_ground(level, file);
    if (!steered && is_played(level))
      game_.add("nobody-steers", file,
                "nothing in this level has a \"player\" that steers it, and no code brings one",
                "give one of its kinds player = {}, or spawn it");
  }

  bool is_played(const Level& level) const {
    const auto in_code = [this](const std::string& kind) { return game_.sources.quote(kind); };
    return level.cells.x > 0 && !steered_kinds_.empty() &&
           std::none_of(steered_kinds_.begin(), steered_kinds_.end(), in_code);
  }

  static bool blocks(const Level& level, IVec2 cell) {
    const CellForm* const form = level.solid.form(cell.x, cell.y);
    return form && form->one_way == OneWay::no;
  }

  void look_for_start_inside(const Level& level, const std::string& file, const vole::LevelPlace& place,
                             const Rect& box) {
    vole::CollisionWorld world;
    world.set_tiles(&level.solid);
    std::vector<vole::BodyOrCell> found;
    world.find(box, {}, found);
    for (const vole::BodyOrCell& tile : found)
      if (blocks(level, tile.cell))
        return game_.add("starts-inside", file,
                         fmt::format("the body of this \"{}\" begins inside what is solid in cell {}, {}",
                                     place.kind, tile.cell.x, tile.cell.y),
                         "nothing holds it there, and it may fall through", place.where);
  }

  // A gap that is just as wide as the body lets it in only where it stands to the pixel.
  void look_for_tight_gap(const Level& level, const std::string& file, const vole::LevelPlace& place,
                          vole::Vec2 size) {
    for (const bool across : {true, false}) {
      const int cell = across ? level.tile_size().x : level.tile_size().y;
      const float extent = across ? size.x : size.y;
      const int length = static_cast<int>(extent) / cell;
      if (length == 0 || static_cast<float>(length * cell) != extent) continue;
      if (const auto at = find_gap(level, length, across))
        return game_.add("tight-gap", file,
                         fmt::format("this \"{}\" is as {} as the gap at cell {}, {}: {} pixels", place.kind,
                                     across ? "wide" : "high", at->x, at->y, length * cell),
                         "make its body a little smaller", place.where);
    }
  }

  // So many open cells between two that block, two rows of them deep.
  static std::optional<IVec2> find_gap(const Level& level, int length, bool across) {
    const auto at = [across](int along, int row) { return across ? IVec2{along, row} : IVec2{row, along}; };
    const int rows = across ? level.cells.y : level.cells.x, along = across ? level.cells.x : level.cells.y;
    const auto is_gap = [&](int start, int row) {
      if (!blocks(level, at(start - 1, row)) || !blocks(level, at(start + length, row))) return false;
      for (int i = 0; i < length; ++i)
        if (level.solid.form(at(start + i, row).x, at(start + i, row).y)) return false;
      return true;
    };
    for (int row = 0; row + 1 < rows; ++row)
      for (int start = 1; start + length < along; ++start)
        if (is_gap(start, row) && is_gap(start, row + 1)) return at(start, row);
    return std::nullopt;
  }

  void look_for_low_ceilings(const Level& level, const std::string& file, float height) {
    const int cell = level.tile_size().y;
    for (int y = 0; y < level.cells.y; ++y)
      for (int x = 0; x < level.cells.x; ++x) {
        const CellForm* const form = level.solid.form(x, y);
        if (!form || form->one_way != OneWay::up) continue;
        const float top = static_cast<float>(y * cell) + form->shape().bounds().top();
        for (int above = y - 1; above >= 0 && static_cast<float>((above + 1) * cell) > top - height; --above)
          if (blocks(level, {x, above}))
            return game_.add(
                "low-ceiling", file,
                fmt::format("the one-way tile in cell {}, {} has only {} pixels above it, and who is steered "
                            "is {} high",
                            x, y, static_cast<int>(top) - (above + 1) * cell, height));
      }
  }

  void look_for_uneven_ground(const Level& level, const std::string& file) {
    const CellForm half(vole::TileShape::lower_half, level.tile_size());
    const auto is_full = [&](int x, int y) {
      const CellForm* const form = level.solid.form(x, y);
      return form && form->is_full() && form->one_way == OneWay::no;
    };
    for (int y = 0; y < level.cells.y; ++y)
      for (int x = 1; x + 1 < level.cells.x; ++x)
        if (const CellForm* const form = level.solid.form(x, y);
            form && form->shape() == half.shape() && is_full(x - 1, y) && is_full(x + 1, y))
          return game_.add(
              "uneven-ground", file,
              fmt::format("the tile in cell {}, {} is half as high as those on both sides", x, y),
              "one falls in, and has to jump out");
  }

  GameUnderCheck& game_;
  const vole::Kinds& kinds_;
  std::vector<std::string> steered_kinds_;
  std::set<std::string> categories_seen_;
};

}  // namespace

void find_odd_solids(GameUnderCheck& game) {
  Solids(game).look();
}
