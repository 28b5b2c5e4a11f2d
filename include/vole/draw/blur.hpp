// A blurred picture: each pixel becomes the mean of a square of pixels around it, in whole numbers, so it is the same on every machine.
#pragma once

#include "vole/asset/image.hpp"

namespace vole {

// `pixels` on each side are mixed, at most 255; pixels outside of the box count as the nearest inside of it. `memory` is used again.
// Takes the same time for every width.
void blur(Image& canvas, const IRect& box, int pixels, Image& memory);

}  // namespace vole
