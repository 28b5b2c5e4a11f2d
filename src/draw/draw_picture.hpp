// One picture onto the canvas: upright, scaled, or turned as well.
#pragma once

#include <vector>

#include "vole/draw/raster.hpp"

namespace vole {

// Changes nothing outside `clip`. `scratch` is kept between calls, so that none allocates.
void draw_picture(const PictureItem& item, const IRect& clip, Image& canvas, std::vector<Colour>& scratch);

}  // namespace vole
