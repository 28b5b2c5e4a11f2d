// Calls the cues for things that meet tiles of the level, also on their way through the tick.
#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "scene/bodies/possible_meeting.hpp"
#include "scene/cue_call.hpp"
#include "scene/selected_things.hpp"
#include "vole/base/hash.hpp"
#include "vole/level/level.hpp"
#include "vole/world/motion.hpp"

namespace vole {
namespace {

using When = Cues::TileCue::When;

std::uint64_t checksum_of(const TileSelector& tiles) {
  Hash hash;
  hash.add(static_cast<std::uint64_t>(tiles.what));
  hash.add(tiles.name);
  return hash.value();
}

bool is_meant(const LevelNow& level, IVec2 cell, const TileSelector& tiles) {
  if (tiles.what == TileSelector::What::all) return true;
  if (!IRect{{0, 0}, level.cells()}.contains(cell)) return false;
  const auto layer_has = [&](const LevelLayer& layer) {
    if (!layer.blocks()) return false;
    if (tiles.what == TileSelector::What::tag) return level.has_tag(layer.name, cell, tiles.name);
    return level.tile(layer.name, cell) == tiles.name || level.material(layer.name, cell) == tiles.name;
  };
  return std::any_of(level.file().layers.begin(), level.file().layers.end(), layer_has);
}

// Not where two meet at a corner alone.
bool touches_side(const Rect& a, const Rect& b) {
  return std::min(a.right(), b.right()) > std::max(a.left(), b.left()) ||
         std::min(a.bottom(), b.bottom()) > std::max(a.top(), b.top());
}

// One thing, and how it comes to tiles.
class TileContact {
 public:
  TileContact(const Tick& tick, Entity thing)
      : grid_(tick.world.level.solid()),
        body_(tick.stage.solids().body(thing)),
        touching_(std::as_const(tick.world.entities).find<Touching>(thing)) {
    const Pose& pose = tick.stage.get<Pose>(thing);
    motion_ = tick.motion_of(thing, pose);
    came_with_ = touching_ ? touching_->came_with : motion_ / tick.stage.seconds_per_tick();
    const Categories& categories = tick.stage.categories();
    asked_.categories = categories.notices(body_.category);
    asked_.bodies = false;
    blocks_ = categories.blocks(body_.category);
    // What bounced off has been somewhere between.
    if (was_held()) reach_ = std::abs(motion_.x) + std::abs(motion_.y);
    box_ = swept(body_.bounds(), motion_, touching_distance + reach_);
  }

  const Rect& box() const { return box_; }
  const QueryFilter& asked() const { return asked_; }

  // Keeps the first that it came to, of all and of those that are meant.
  void look_at(IVec2 cell, const CellForm& form, std::uint8_t category, bool meant) {
    const Vec2 corner(cell * grid_.cell());
    const bool holds_it = (blocks_ >> category & 1u) != 0;
    body_.visit_shapes([&](const Shape& shape, std::uint32_t place) {
      const bool held = holds_it && body_.use_of(place) == BodyUse::solid;
      const bool one_way = form.one_way != OneWay::no;
      // Through a one-way tile it goes, where that does not hold it.
      if (one_way && !held) return;
      if (!one_way) {
        const ShapeHit hit = sweep_shape(shape, body_.at - motion_, motion_, form.shape(), corner);
        if (hit.hit) return keep(hit.when, meant, {cell, hit.normal, hit.point, 0});
      }
      const ShapeGap gap = gap_between(shape, body_.at, form.shape(), corner);
      const TileMeeting meeting{cell, gap.normal, gap.point, 0};
      if (!touches_side(shape.bounds().moved_by(body_.at), form.shape().bounds().moved_by(corner))) return;
      if (gap.distance < (held ? static_cast<double>(touching_distance) : 0)) {
        if (is_on_side(form, gap)) keep(1 - depth(gap), meant, meeting);
      } else if (held && gap.distance < static_cast<double>(reach_)) {
        keep(after_all + gap.distance, meant, meeting);
      }
    });
  }

  // Where it bounced off something, that is what was nearest to it.
  bool meets() const { return when_meant_ < never && (when_meant_ < after_all || when_meant_ == when_any_); }
  TileMeeting meeting() const {
    TileMeeting meeting = first_;
    meeting.speed = -(came_with_.x * meeting.normal.x + came_with_.y * meeting.normal.y);
    return meeting;
  }

 private:
  // By tiles, as its mover says.
  bool was_held() const {
    if (!touching_) return false;
    const bool by_wall = touching_->wall() && touching_->wall_thing == Entity{};
    const bool by_ground = touching_->ground && touching_->ground_thing == Entity{};
    return by_wall || by_ground || touching_->ceiling;
  }
  // Of a one-way tile: on it, and not on the way out of it.
  bool is_on_side(const CellForm& form, const ShapeGap& gap) const {
    if (form.one_way == OneWay::no) return true;
    const auto rounded = [](float part) { return static_cast<std::int64_t>(std::lround(part)); };
    const float away = motion_.x * gap.normal.x + motion_.y * gap.normal.y;
    return gap.distance > -static_cast<double>(touching_distance) && away <= touching_distance &&
           holds(form.one_way, rounded(gap.normal.x), rounded(gap.normal.y));
  }
  // Of those that it touches at the end the one that it is the deepest in comes first.
  static double depth(const ShapeGap& gap) { return std::clamp(-gap.distance, 0.0, 1000.0) / 1e6; }

  void keep(double when, bool meant, const TileMeeting& meeting) {
    when_any_ = std::min(when_any_, when);
    if (!meant || when >= when_meant_) return;
    when_meant_ = when;
    first_ = meeting;
  }

  static constexpr double after_all = 2, never = 1e9;  // shares of the tick's motion
  const SolidGrid& grid_;
  const CollisionBody& body_;
  const Touching* touching_;
  Vec2 motion_, came_with_;
  float reach_ = 0;  // beyond its body, in pixels
  Rect box_;
  QueryFilter asked_;
  CategoryMask blocks_ = 0;
  double when_any_ = never, when_meant_ = never;
  TileMeeting first_;
};

std::optional<TileMeeting> met_tile(Tick& tick, Entity thing, const TileSelector& tiles) {
  const SolidThings& solids = tick.stage.solids();
  TileContact contact(tick, thing);
  std::vector<BodyOrCell>& found = tick.memory.found;
  found.clear();
  solids.world().find(contact.box(), contact.asked(), found);
  const std::span<const std::uint8_t> categories = solids.tile_categories();
  for (const BodyOrCell& each : found)
    if (const CellForm* const form = tick.world.level.solid().form(each.cell.x, each.cell.y))
      contact.look_at(each.cell, *form,
                      form->category < categories.size() ? categories[form->category] : form->category,
                      is_meant(tick.world.level, each.cell, tiles));
  return contact.meets() ? std::optional(contact.meeting()) : std::nullopt;
}

bool comes_before(const MetTiles& a, const MetTiles& b) {
  return a.thing.index != b.thing.index ? a.thing.index < b.thing.index : a.tiles < b.tiles;
}

void tell(Tick& tick, const Cues::TileCue& cue, Entity thing, const TileMeeting& meeting) {
  const auto when = [&] {
    return fmt::format("when {} met the tile at {}, {}", described_thing(tick.stage, thing), meeting.cell.x,
                       meeting.cell.y);
  };
  call_cue(tick, when, [&] { cue.handler(tick.stage, thing, meeting); });
}

}  // namespace

void find_tile_meetings(Tick& tick) {
  std::vector<FoundTileMeeting>& found = tick.memory.tile_meetings;
  found.clear();
  if (!tick.world.level) return;
  const std::vector<Cues::TileCue>& cues = tick.cues.tile_meetings();
  const SolidThings& solids = tick.stage.solids();
  for (std::size_t i = 0; i < cues.size(); ++i)
    for (BodyId id = 0; id < solids.world().end(); ++id) {
      if (!solids.world().has(id) || solids.world().body(id).use == BodyUse::off) continue;
      const Entity thing = solids.thing(id);
      if (tick.stage.removed(thing) || !fits(tick.stage, thing, cues[i].which)) continue;
      if (const auto meeting = met_tile(tick, thing, cues[i].tiles))
        found.push_back({i, {thing, checksum_of(cues[i].tiles)}, *meeting});
    }
}

void tell_tile_meetings(Tick& tick) {
  const std::vector<Cues::TileCue>& cues = tick.cues.tile_meetings();
  std::vector<MetTiles>& met = tick.memory.met_tiles;
  met.clear();
  for (const FoundTileMeeting& found : tick.memory.tile_meetings) met.push_back(found.met);
  std::sort(met.begin(), met.end(), comes_before);
  met.erase(std::unique(met.begin(), met.end()), met.end());
  met.swap(tick.world.met_tiles);
  for (const FoundTileMeeting& found : tick.memory.tile_meetings) {
    const Cues::TileCue& cue = cues[found.cue];
    const bool is_new = !std::binary_search(met.begin(), met.end(), found.met, comes_before);
    if ((cue.when == When::lasts || is_new) && !tick.stage.removed(found.met.thing))
      tell(tick, cue, found.met.thing, found.meeting);
  }
}

}  // namespace vole
