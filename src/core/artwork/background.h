// Taking a flat background out of a picture: what cover the subject has at its rim, and which colour it has there.
#pragma once

#include "core/base/result.h"
#include "core/artwork/pixel_image.h"

namespace orthema {

/// Makes the background clear, from the edge of the picture inwards; with `counters` closed places of its colour too. `tolerance` says what
/// is so near to the background that it is of it; 1 is from black to white. Fails with a sentence where the picture's edge is of no one
/// colour.
///
/// Method. The background's colour over the picture is a surface of second degree, found by least squares from the edge and then from
/// what is joined to it, twice. A pixel C at the rim is C = a·F + (1 − a)·B with the background B known at that place; its own colour F is
/// that of the neighbour, no farther than the rim is wide, that lies farthest from B in the same direction; a is then the share of the way
/// from B to F. How wide the rim is, is measured: how far inwards colours go on changing, in the middle of all rims.
Result<Done> take_background_out(PixelImage& picture, double tolerance, bool counters);

}  // namespace orthema
