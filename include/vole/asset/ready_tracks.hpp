// Tracks that every game wants:
//
//   sprite.play_track(tracks::squash());
#pragma once

#include <string_view>

namespace vole {

struct Track;

namespace tracks {
const Track& squash();   // flat, and back: on landing
const Track& stretch();  // tall, and back: on a jump
const Track& blink();    // seen and unseen, for a second: after a hit
// One of these; nullptr when none has this name.
const Track* find(std::string_view name);
}  // namespace tracks

}  // namespace vole
