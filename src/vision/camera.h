// Where the camera stood: its pose, focal length and distortion from the corners of the cards' markers.
#pragma once

#include <Eigen/Core>
#include <cmath>

#include "vision/markers.h"
#include "vision/vision.h"

namespace orthema::vision {

constexpr int camera_figures = 8;  ///< focal (its logarithm), distortion, turn, move
using CameraVector = Eigen::Matrix<double, camera_figures, 1>;

CameraVector figures_of(const CameraPose& camera);
CameraPose camera_of(const CameraVector& figures, int width, int height);

/// Turned about the frame's origin, radians, clockwise as seen.
inline Point turned(Point p, double angle) {
    const double c = std::cos(angle), s = std::sin(angle);
    return {c * p.x - s * p.y, s * p.x + c * p.y};
}

/// Where a point of the table, or so many mm above it, is seen; pixels.
Point seen_at(const CameraPose& camera, Point on_table, double height = 0);
/// The point that the camera looks from: over which point of the table, and how high.
struct Eye {
    Point over;
    double height = 0;
};
Eye eye_of(const CameraPose& camera);
/// The point at that height that is seen there.
Point on_table(const CameraPose& camera, Point pixel, double height = 0);

/// The camera and the cards' places to each other: robust least squares over all corners (Levenberg and Marquardt with Huber's weights),
/// with what is usual of lenses as a weak rule. The first card's middle is the table's origin. Source: Zhang 2000, for one plane.
Result<TableSeen> table_of(const std::vector<MarkerSeen>& markers, int width, int height, std::optional<double> focal_px);

}  // namespace orthema::vision
