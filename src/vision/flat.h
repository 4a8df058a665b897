// A stretch of a blank as it would be seen from straight above, so many mm a cell, its panel's frame upright.
#pragma once

#include <opencv2/core.hpp>

#include "vision/camera.h"

namespace orthema::vision {

struct Flat {
    Rect area;        ///< mm in the panel's frame
    double cell = 1;  ///< mm
    cv::Mat rgb;      ///< three floats a cell, 0 to 255
    cv::Mat cloth;    ///< bytes: not nought where the cell lies on the blank, so many mm within its outline, and in the picture
    [[nodiscard]] Point at(double x, double y) const { return {area.x0 + (x + 0.5) * cell, area.y0 + (y + 0.5) * cell}; }
};

/// Where a point of the panel is seen, and which point is seen there.
Point pixel_of(const TableSeen& table, const BlankSeen& blank, Point on_panel, double thickness);
Point panel_of(const TableSeen& table, const BlankSeen& blank, Point pixel, double thickness);

Flat flattened(const Photo& photo, const TableSeen& table, const BlankSeen& blank, const Rect& area, double cell, double thickness,
               double within);

/// What differs from the cloth: its colour is a plane of light over what most cells beside `ink` show. Nought beside the cloth.
/// `cloth`: the colour in the middle; `noise`: one standard deviation of the cells that show cloth.
cv::Mat unlike_cloth(const Flat& flat, const Rect& ink, cv::Vec3f& cloth, double& noise);

}  // namespace orthema::vision
