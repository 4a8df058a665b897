// Markers in a picture, their corners to a tenth of a pixel.
#pragma once

#include <array>
#include <vector>

#include "core/artwork/photo.h"
#include "core/guides/photo_card.h"

namespace orthema::vision {

struct MarkerSeen {
    MarkOf of;
    std::array<Point, 4> corners;  ///< top left, top right, bottom right, bottom left of its dark square; pixels
};

/// Brightness, rows of bytes.
struct Grey {
    int width = 0, height = 0;
    std::vector<std::uint8_t> rows;
    /// Between pixels; their middles lie at halves.
    [[nodiscard]] double at(double x, double y) const;
};
Grey grey_of(const PixelImage& image);

/// The cards' markers: found by the AprilTag library on a smaller picture, then each edge's line fitted to where brightness falls
/// steepest across it in the picture itself, and the lines met.
std::vector<MarkerSeen> find_markers(const Grey& grey, int threads);

}  // namespace orthema::vision
