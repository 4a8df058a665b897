// A known design found again on a blank: coarsely by how it is like what differs from the cloth, then to a part of a millimetre.
#pragma once

#include "vision/flat.h"

namespace orthema::vision {

/// Where a design lies: its ink box's middle, turn and sizes. mm, radians, in the panel's frame.
struct DesignPlace {
    Point middle;
    double angle = 0, width = 0, height = 0;
    bool mirrored = false;
};

/// Corners of its ink box, as the design is read from its upper left one, clockwise.
Ring corners_of(const DesignPlace& place);

/// Where it lies best by itself, coarsely: shifts within what is flattened, turns up to 15 degrees and the half turn, mirrored too.
/// The best of each way of reading first by likeness, 0 to 1.
struct DesignFound {
    DesignPlace place;
    double alike = 0;
};
std::vector<DesignFound> coarse_places(const cv::Mat& unlike, const Flat& flat, const PixelImage& picture, const cv::Vec3f& cloth,
                                       const DesignPlace& planned, double noise);

/// Least squares over all cells (Gauss and Newton's method with Huber's weights; Lucas and Kanade 1981): place, turn and sizes, and for
/// each colour how strongly it shows. `errors`: two standard deviations of middle (x, y), angle, width and height, with neighbouring cells
/// that err together.
struct DesignFitted {
    DesignPlace place;
    std::array<double, 5> errors{};
    double explained = 0;  ///< share of the squares
    cv::Mat model;         ///< what the design gives, as `unlike`
    cv::Mat ink;           ///< how much of each cell it covers, 0 to 1
};
DesignFitted fine_place(const cv::Mat& unlike, const Flat& flat, const PixelImage& picture, const DesignPlace& from, double noise);

}  // namespace orthema::vision
