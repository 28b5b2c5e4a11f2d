#include "shown_fields.hpp"

#include "vole/world/binding.hpp"
#include "vole/world/playing.hpp"
#include "vole/world/sprite.hpp"

namespace vole {

ShownFields::ShownFields(World& world, const StageSetting& setting)
    : world_(world), setting_(setting), caches_(*setting.caches) {
  caches_.shown_fields.clear();
  // Tracks of sheets that have changed since are among them.
  constexpr std::size_t most_known = 256;
  if (caches_.track_fields.size() > most_known) caches_.track_fields.clear();
  world_.entities.visit<Sprite>([this](Entity entity, Sprite& sprite) {
    for (const PlayingTrack& playing : sprite.playing.tracks)
      if (playing.track && !playing.track->fields.empty())
        show(entity, *playing.track, playing.ticks, playing.strength);
    const Clip* const clip = sprite.playhead().clip();
    if (!clip) return;
    for (const std::size_t track : clip->tracks)
      if (track < sprite.sheet()->tracks.size() && !sprite.sheet()->tracks[track].fields.empty())
        show(entity, sprite.sheet()->tracks[track], sprite.playhead().ticks(), 1);
  });
}

// In the other order, since two tracks may show one field.
ShownFields::~ShownFields() {
  std::vector<ShownField>& shown = caches_.shown_fields;
  for (; !shown.empty(); shown.pop_back())
    if (FieldRef field = shown.back().bound.in(world_.entities, shown.back().entity))
      field.put_back(shown.back().own);
}

namespace {

bool is_of(const BoundField& bound, const TrackField& wanted) {
  return bound.type && bound.type->name == wanted.component &&
         bound.type->fields()[bound.index].name == wanted.field;
}

}  // namespace

// Another track may lie where an older one did, so what is known is looked at again.
const BoundField& ShownFields::find(const Track& track, std::size_t field) {
  std::vector<BoundField>& known = caches_.track_fields[&track];
  known.resize(track.fields.size());
  const TrackField& wanted = track.fields[field];
  if (!is_of(known[field], wanted))
    known[field] = bind_field(setting_.binding().types, wanted.component, wanted.field);
  return known[field];
}

void ShownFields::show(Entity entity, const Track& track, std::int64_t ticks, float strength) {
  const std::int64_t time = track.time_at(ticks, setting_.ticks_per_second);
  for (std::size_t i = 0; i < track.fields.size(); ++i) {
    const BoundField& bound = find(track, i);
    if (!bound.type || bound.parts != track.fields[i].parts) continue;
    FieldRef field = bound.in(world_.entities, entity);
    if (!field) continue;
    caches_.shown_fields.push_back({entity, bound, field.bytes()});
    const Vec4 own = field.value(), keyed = track.fields[i].at(time);
    constexpr int parts_of_colour = 4;
    field.put(bound.parts == parts_of_colour ? own + (keyed - own) * strength : own + keyed * strength);
  }
}

}  // namespace vole
