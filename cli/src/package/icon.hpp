// Icons for Windows.
#pragma once

#include "vole/asset/image.hpp"

// A picture in a square of so many pixels, centred: its pixels at the largest whole multiple that fits, or averaged when
// the picture is larger.
vole::Image in_square(const vole::Image& picture, int side);

// The picture in the sizes that Windows asks for, as the bytes of an .ico file.
vole::Bytes icon_file(const vole::Image& picture);
