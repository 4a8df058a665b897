// A cup before the simulated camera: a round wall, straight or tapered, with or without a handle, met by rays of light. Worked out by
// itself, so that a mistake in measuring cannot cancel against the same one here.
#pragma once

#include <optional>
#include <vector>

#include "core/blanks/panel.h"

namespace orthema {

/// A point or a way in the table's frame: x and y on it (y down as it is seen), z into it. mm.
struct Vec {
    double x = 0, y = 0, z = 0;
    Vec operator+(const Vec& o) const { return {x + o.x, y + o.y, z + o.z}; }
    Vec operator-(const Vec& o) const { return {x - o.x, y - o.y, z - o.z}; }
    Vec operator*(double k) const { return {x * k, y * k, z * k}; }
};
inline double dot(const Vec& a, const Vec& b) { return a.x * b.x + a.y * b.y + a.z * b.z; }
Vec unit(const Vec& v);

struct CupHit {
    double far = 0;       ///< along the ray, in its own lengths
    Vec normal;           ///< of the surface, a unit
    bool inside = false;  ///< seen into the open rim
};

class Cup {
public:
    /// `rim`: the point of the table that its rim comes to lie over, its base `angle` (radians, clockwise as seen) from straight below
    /// that. It lies on its side on the table, or stands before the card's plane, `gap` mm off it. A handle stands out to the viewer's
    /// right.
    Cup(const CupWall& wall, Point rim, double angle, bool standing, double gap, bool handle);
    /// The first surface that a ray meets.
    [[nodiscard]] std::optional<CupHit> hit(const Vec& from, const Vec& way) const;
    /// Whether anything of it lies this near to a point of the table, as seen from above.
    [[nodiscard]] bool near(Point on_table, double by) const;

private:
    Vec rim_, axis_;  ///< middle of the rim, and the way to the base
    double length_, rim_radius_, base_radius_;
    struct Ball {
        Vec at;
        double radius = 0;
    };
    std::vector<Ball> handle_;
    Ball about_handle_;
    Rect seen_from_above_;
};

}  // namespace orthema
