// The shapes over a scene's picture, and what their colours mean.
#pragma once

#include <bitset>

#include "vole/draw/draw_list.hpp"
#include "vole/scene/pictures/xray.hpp"

namespace vole {

class RunningScene;

// What was there to be drawn, each in its colour.
using XrayRoles = std::bitset<16>;

// In a layer of its own, in the view that is open.
XrayRoles draw_xray(DrawList& list, const RunningScene& scene, XrayParts parts, float share);
// In rows along the lower edge of the canvas, unless that would hide most of what there is to see.
void draw_xray_legend(DrawList& list, XrayRoles roles);

}  // namespace vole
