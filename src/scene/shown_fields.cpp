// Tracks that change fields of components: only for what is drawn between one tick and the next, so that what
// reckons with a field never sees a track, and nothing of it can be left behind.
#include <algorithm>

#include "vole/scene/stage.hpp"

namespace vole {

void Stage::show_fields() {
  entities.each<Sprite>([this](Entity entity, Sprite& sprite) {
    for (const Sprite::PlayingTrack& playing : sprite.playing_tracks)
      if (playing.track && !playing.track->fields.empty())
        show_fields(entity, *playing.track, playing.ticks, playing.strength);
    const Clip* clip = sprite.animator.clip();
    if (!clip) return;
    for (const std::size_t track : clip->tracks)
      if (track < sprite.sheet->tracks.size() && !sprite.sheet->tracks[track].fields.empty())
        show_fields(entity, sprite.sheet->tracks[track], sprite.animator.ticks(), 1);
  });
}

void Stage::show_fields(Entity entity, const Track& track, std::int64_t ticks, float strength) {
  const std::int64_t time = track.time_at(ticks, setting_.ticks_per_second);
  for (const TrackField& wanted : track.fields) {
    const ComponentTypes::Type* type = setting_.types.find(wanted.component);
    if (!type) continue;
    const std::vector<FieldInfo>& fields = type->fields();
    const auto info = std::find_if(fields.begin(), fields.end(),
                                   [&](const FieldInfo& field) { return field.name == wanted.field; });
    if (info == fields.end() || info->parts != wanted.parts) continue;
    const auto index = static_cast<std::size_t>(info - fields.begin());
    FieldRef field = type->field(entities, entity, index);
    if (!field) continue;
    shown_fields_.push_back({entity, type, index, field.bytes()});
    const Vec4 own = field.value(), keyed = wanted.at(time);
    constexpr int parts_of_colour = 4;
    field.put(wanted.parts == parts_of_colour ? own + (keyed - own) * strength : own + keyed * strength);
  }
}

// In the other order, since two tracks may show one field.
void Stage::put_fields_back() {
  for (; !shown_fields_.empty(); shown_fields_.pop_back()) {
    const ShownField& shown = shown_fields_.back();
    if (!entities.alive(shown.entity)) continue;
    if (FieldRef field = shown.type->field(entities, shown.entity, shown.index)) field.put_back(shown.own);
  }
}

}  // namespace vole
