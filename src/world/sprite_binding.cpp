// What a sprite's names mean: its sheet, and all that it shows of it; its layer.
#include <fmt/core.h>

#include <algorithm>
#include <utility>

#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/world/binding.hpp"
#include "vole/world/component_hooks.hpp"
#include "vole/world/level_now.hpp"
#include "vole/world/playing.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

// Facts keep their values by name; those of a state that was just read are in the order of the sheet.
void bind_facts(Sprite& sprite, const Sheet* before) {
  const std::vector<std::string>& names = sprite.links.sheet->rules.facts();
  std::vector<float> kept(names.size(), 0.0f);
  if (!before && sprite.playing.facts.size() == names.size()) kept = sprite.playing.facts;
  if (before)
    for (std::size_t i = 0; i < names.size(); ++i)
      if (const int known = before->rules.find_fact(names[i]); known >= 0)
        kept[i] = sprite.playing.facts[static_cast<std::size_t>(known)];
  sprite.playing.facts = std::move(kept);
  sprite.links.fact_sources.clear();
  for (const std::string& name : names) sprite.links.fact_sources.push_back(fact_source(name));
}

void bind_clip(Sprite& sprite) {
  const Sheet& sheet = *sprite.links.sheet;
  Playing& playing = sprite.playing;
  sprite.links.still = std::max(sheet.find_frame(sprite.frame_name.value), 0);
  const ClipSet* const set = playing.set.empty() ? nullptr : sheet.find_set(playing.set);
  sprite.links.set = set ? static_cast<int>(set - sheet.sets.data()) : -1;
  sprite.links.member = !set                ? 0
                        : set->by_direction ? set->nearest(unit_of(playing.facing), playing.facing)
                                            : std::max(set->find(playing.key), 0);
  const Clip* const clip = set ? &sheet.clips[sprite.playing_member()->clip] : sheet.find_clip(playing.clip);
  playing.playhead.replace(clip);
  if (!set) playing.set.clear();
  playing.clip = clip ? clip->name : std::string();
}

void bind_tracks(Sprite& sprite, const std::vector<const Track*>& own) {
  for (PlayingTrack& playing : sprite.playing.tracks) {
    if (playing.name.empty()) continue;
    // The game's own and the library's are not the sheet's to change.
    const auto found =
        std::find_if(own.begin(), own.end(), [&](const Track* track) { return track->name == playing.name; });
    playing.track = found != own.end() ? *found : tracks::find(playing.name);
    if (const Track* of_sheet = sprite.links.sheet->find_track(playing.name)) playing.track = of_sheet;
    if (!playing.track) playing = {};
  }
}

void expect_tracks(const Sheet& sheet, const Binding& binding) {
  if (sheet.missing) return;
  Report report;
  check_tracks(sheet, binding.types, binding.unknown, report);
  report.throw_if_errors();
}

// Finds the file of the sheet. Throws Error for a name that is not there.
void find_sheet(Sprite& sprite, const Binding& binding) {
  sprite.links.asset = binding.catalog.get<Sheet>(sprite.sheet_name.value, sprite.sheet_name.where);
}

// Takes its newest version: what is played goes on, by its names. Throws Error for a clip that it has not.
void take_sheet(Sprite& sprite, const Binding& binding) {
  const std::shared_ptr<const Sheet> before = std::exchange(sprite.links.sheet, sprite.links.asset.shared());
  sprite.links.own_tracks = &binding.own_tracks;
  bind_facts(sprite, before.get());
  bind_clip(sprite);
  bind_tracks(sprite, binding.own_tracks);
  // The rules may be others now, and a state that was read may be broken.
  if (before || sprite.playing.rule >= static_cast<int>(sprite.links.sheet->rules.rules().size()))
    sprite.playing.rule = -1;
  // One that code has added begins as one of a kind does.
  if (sprite.playing.playhead.starts() == 0 && !sprite.first_clip.value.empty() &&
      !sprite.links.sheet->missing) {
    sprite.links.sheet->expect_played(sprite.first_clip.value, sprite.first_clip.where);
    sprite.play(sprite.first_clip.value);
  }
}

bool is_up_to_date(const Sprite& sprite) {
  const SpriteLinks& links = sprite.links;
  if (!links.asset || links.asset.name() != sprite.sheet_name.value) return false;
  const Sheet* const newest = &*links.asset;
  return newest == links.sheet.get() || newest == links.refused.get();
}

}  // namespace

void need(Sprite& sprite, const OfKind& kind) {
  if (sprite.sheet_name.value.empty()) return;
  kind.report().gather([&] {
    find_sheet(sprite, kind.binding());
    take_sheet(sprite, kind.binding());
  });
  const Sheet* const sheet = sprite.sheet();
  if (!sheet || sheet->missing) return;
  kind.report().gather([&] { expect_tracks(*sheet, kind.binding()); });
  if (sprite.frame_name.value.empty()) return;
  kind.report().gather([&] { sheet->frame(sprite.frame_name.value, sprite.frame_name.where); });
}

void expect(const Sprite& sprite, const InLevel& in) {
  in.expect_layer(sprite.layer_name);
}

void bind(Sprite& sprite, const OnThing& on) {
  if (!sprite.links.has_layer) on.world.find_layer(sprite);
  if (is_up_to_date(sprite) || sprite.sheet_name.value.empty()) return;
  // Whole or not at all: with one bad track the sprite goes on with what it has, and that is reported once.
  find_sheet(sprite, on.binding);
  sprite.links.refused = sprite.links.asset.shared();
  expect_tracks(*sprite.links.refused, on.binding);
  sprite.links.refused.reset();
  take_sheet(sprite, on.binding);
}

}  // namespace vole
