// One picture becomes another: what is between them, at a share from 0 (the one before) to 1 (the one after). All are of one size.
#pragma once

#include "vole/asset/picture.hpp"
#include "vole/base/direction.hpp"

namespace vole {

// Through a colour: the one before is gone at a half.
void mix_by_fade(const Image& before, const Image& after, float share, Colour through, Image& into);
// The one after comes in over the one before, in one of the four straight directions.
void mix_by_wipe(const Image& before, const Image& after, float share, Direction direction, Image& into);
// A circle closes on a point until a half, and opens again from another; around it is the colour.
void mix_by_iris(const Image& before, const Image& after, float share, Vec2 closes_on, Vec2 opens_from, Colour around,
                 Image& into);
// Where a picture is darker than the share, the one after shows; the picture is repeated.
void mix_by_picture(const Image& before, const Image& after, float share, const Picture& grey, Image& into);

}  // namespace vole
