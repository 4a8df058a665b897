// How sharp a picture really is, whatever its pixels say: out of focus, or made larger before, its edges take many pixels.
#pragma once

#include "core/artwork/art_facts.h"

namespace orthema {

/// Width of a picture's sharpest edges, in pixels: of the tenth part that is sharpest, the widest. 0 where there are too few to tell.
/// An edge is as wide as its contrast divided by its steepest step, along rows and columns; those under a quarter of black to white are
/// passed over, and so is the picture's own outline.
double sharpest_edges(const PixelView& picture);

}  // namespace orthema
