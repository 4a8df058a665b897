// The thinnest stroke and the narrowest gap of a picture, as a film or a knife must hold them.
#pragma once

#include "core/artwork/art_facts.h"

namespace orthema {

struct StrokeWidths {
    double stroke_px = 0;  ///< in pixels of the picture; 0 where nothing is thin enough to matter
    double gap_px = 0;
};

/// Looks at the solid ink within `box` (pixels). Method: exact Euclidean distance transform (Felzenszwalb and
/// Huttenlocher) of the ink and of the clear ground between it; along the ridges of the distance the width is twice the
/// distance. A ridge counts where the shape keeps that width for a while: corners and tapering points do not.
StrokeWidths stroke_widths(const PixelView& pixels, const Rect& box);

enum class ThinOf { strokes, gaps };
/// A stroke or gap that is narrower than it should be: where its middle runs, pixel by pixel of the grid it was found on, in no order.
struct ThinPart {
    double width_px = 0;
    std::vector<Point> ridge;
};
/// All that `stroke_widths` would complain of under `least_px` pixels.
std::vector<ThinPart> thin_parts(const PixelView& pixels, const Rect& box, ThinOf of, double least_px);

}  // namespace orthema
