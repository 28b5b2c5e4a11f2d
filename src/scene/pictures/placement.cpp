#include "placement.hpp"

#include "vole/asset/sheet.hpp"
#include "vole/base/trig.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/sprite.hpp"

namespace vole {
namespace {

Vec2 turned(Vec2 by, float degrees) {
  if (degrees == 0) return by;
  const float s = sin_degrees(degrees), c = cos_degrees(degrees);
  return {c * by.x - s * by.y, s * by.x + c * by.y};
}

Placement placement_in_row(const World& world, Entity entity, float share, Tracks tracks,
                           int ticks_per_second, int links);

// How far from its pivot a point of a thing's sprite is shown, when the thing is placed so.
Vec2 way_to_point(const Sprite* sprite, std::string_view name, Vec2 offset, const Placement& of,
                  int ticks_per_second) {
  const int index = sprite ? sprite->frame(ticks_per_second) : -1;
  const SheetPoint* const point = index < 0 ? nullptr : sprite->sheet()->find_point(name);
  Vec2 by = offset;
  if (point) by += Vec2(point->at(index) - sprite->sheet()->posed(index, sprite->playhead().clip()).pivot);
  by = {by.x * of.scale.x * (of.mirrored ? -1.0f : 1.0f),
        by.y * of.scale.y * (of.upside_down ? -1.0f : 1.0f)};
  return turned(by, of.rotation);
}

void place_on_point(const World& world, const Attached& attached, float share, Tracks tracks,
                    int ticks_per_second, int links, Placement& place) {
  const Sprite* sprite = world.entities.find<Sprite>(attached.to);
  if (!sprite || sprite->frame(ticks_per_second) < 0) return;
  const Placement of = placement_in_row(world, attached.to, share, tracks, ticks_per_second, links + 1);
  place.at = of.at + way_to_point(sprite, attached.point, attached.offset, of, ticks_per_second);
  place.rotation += of.rotation;
  place.mirrored = place.mirrored != of.mirrored;
  place.upside_down = place.upside_down != of.upside_down;
}

void turn_by_sprite(const Sprite& sprite, Placement& place) {
  place.scale = sprite.scale;
  place.rotation = sprite.rotation;
  if (const ClipSet::Member* member = sprite.playing_member()) {
    if (sprite.playing_set()->by_direction) place.mirrored = member->mirrored;
    place.rotation += member->rotation;
  }
  place.mirrored = place.mirrored != sprite.mirrored;
  place.upside_down = sprite.upside_down;
}

void add_tracks(const Sprite& sprite, int ticks_per_second, Placement& place) {
  const TrackPose track = sprite.track_pose(ticks_per_second);
  place.at += track.offset * Vec2(place.mirrored ? -1.0f : 1.0f, place.upside_down ? -1.0f : 1.0f);
  place.scale *= track.scale;
  place.rotation += place.mirrored ? -track.rotation : track.rotation;
  place.opacity = sprite.opacity * track.opacity * track.alpha;
  place.tint = track.tinted(sprite.tint);
}

// `links`: how many things are attached below this one, up to the one that is wanted.
Placement placement_in_row(const World& world, Entity entity, float share, Tracks tracks,
                           int ticks_per_second, int links) {
  Placement place;
  if (const Pose* pose = world.entities.find<Pose>(entity)) {
    place.at = pose->shown_at(shown_share(world, entity, share));
    place.mirrored = pose->mirrored;
  }
  const Sprite* const sprite = world.entities.find<Sprite>(entity);
  if (sprite) turn_by_sprite(*sprite, place);
  const Attached* const attached = world.entities.find<Attached>(entity);
  if (attached && links < most_attached_in_a_row)
    place_on_point(world, *attached, share, tracks, ticks_per_second, links, place);
  if (sprite && sprite->sheet() && tracks == Tracks::shown) add_tracks(*sprite, ticks_per_second, place);
  return place;
}

}  // namespace

Placement placement(const World& world, Entity entity, float share, Tracks tracks, int ticks_per_second) {
  return placement_in_row(world, entity, share, tracks, ticks_per_second, 0);
}

Placement placement_of_point(const World& world, Entity of, std::string_view point, Vec2 offset, float share,
                             int ticks_per_second) {
  Placement place = placement(world, of, share, Tracks::shown, ticks_per_second);
  place.at += way_to_point(world.entities.find<Sprite>(of), point, offset, place, ticks_per_second);
  return place;
}

}  // namespace vole
