#include "vole/asset/ready_tracks.hpp"

#include "vole/asset/track.hpp"

namespace vole::tracks {

const Track& squash() {
  static const Track track{.name = "squash",
                           .scale = {{0, {1.3f, 0.7f}, Ease::quad_out},
                                     {90'000, {0.92f, 1.08f}, Ease::quad_both},
                                     {200'000, {1, 1}, Ease::linear}}};
  return track;
}

const Track& stretch() {
  static const Track track{.name = "stretch",
                           .scale = {{0, {0.75f, 1.25f}, Ease::quad_out},
                                     {110'000, {1.06f, 0.94f}, Ease::quad_both},
                                     {220'000, {1, 1}, Ease::linear}}};
  return track;
}

const Track& blink() {
  static const Track track = [] {
    Track made{.name = "blink"};
    for (int i = 0; i <= 10; ++i)
      made.opacity.push_back({i * 100'000, i % 2 == 1 && i < 10 ? 0.15f : 1.0f, Ease::stepped});
    return made;
  }();
  return track;
}

const Track* find(std::string_view name) {
  for (const Track* track : {&squash(), &stretch(), &blink()})
    if (track->name == name) return track;
  return nullptr;
}

}  // namespace vole::tracks
