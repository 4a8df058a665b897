// A tapered wall unrolls to a ring sector: slant s = √(h² + ((D − d)/2)²), outer radius R = s·D/(D − d), inner radius
// R − s, angle π·D/R. The wall's own frame is (u, v): u along the wall at half its slant, 0 at the centre line and to the
// viewer's right; v down the slant from the rim. Millimetres.
#pragma once

#include "core/base/result.h"
#include "core/geometry/geometry.h"

namespace orthema {

/// A cup's wall between two circles, outside; `height` is upright, not along the slant.
struct CupWall {
    double top_diameter = 0, bottom_diameter = 0, height = 0;
    [[nodiscard]] double slant() const { return std::hypot(height, (top_diameter - bottom_diameter) / 2); }
    [[nodiscard]] double middle_circumference() const { return M_PI * (top_diameter + bottom_diameter) / 2; }
    bool operator==(const CupWall&) const = default;
};

struct RingSector {
    double rim_radius = 0;  ///< of the rim's arc, unrolled; 0: a cylinder, whose wall unrolls to a rectangle
    double base_radius = 0;
    double slant = 0;
    bool operator==(const RingSector&) const = default;

    [[nodiscard]] bool straight() const { return rim_radius == 0; }
    [[nodiscard]] bool narrows() const { return rim_radius > base_radius; }
    [[nodiscard]] double middle_radius() const { return (rim_radius + base_radius) / 2; }
    /// From the wall to the flat sector: the rim's middle at (0, 0), y down.
    [[nodiscard]] Point bent(Point wall) const;
    /// Back again.
    [[nodiscard]] Point unbent(Point flat) const;
    /// A ring with as many points between its own as keep every chord within `tolerance` of its arc.
    [[nodiscard]] Ring bent(const Ring& wall, double tolerance = 0.01) const;
    [[nodiscard]] Region bent(const Region& wall, double tolerance = 0.01) const;
};

/// Fails with a sentence on diameters or heights that are none. A taper of less than 0.05 mm is a cylinder.
Result<RingSector> unrolled(const CupWall& wall);

/// Where a point of the wall is in space: x to the viewer's right, y down from the rim, z towards the viewer; the
/// centre line faces the viewer.
struct Point3 {
    double x = 0, y = 0, z = 0;
};
Point3 rolled(const CupWall& wall, Point on_wall);
/// The point of the wall nearest above a point in space, by its angle and height.
Point off_wall(const CupWall& wall, const Point3& at);

}  // namespace orthema
