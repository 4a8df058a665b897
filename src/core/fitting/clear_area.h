// The clear area of a print location, and the largest design of a given outline that keeps within it, by true shape.
//
// A design that grows about a fixed point sweeps its star hull: everything between that point and its outline. The
// largest width at which the star hull first touches an obstacle is found exactly: along any direction in which one
// straight edge of the outline faces one straight edge of an obstacle, the ratio of the two distances is monotone, so
// only the directions of vertices need a look. All smaller widths fit too, which is what bands and rounding rely on.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <vector>

#include "core/blanks/location.h"

namespace orthema {

/// A design as its outline about the point that stays put when it grows. Units are ink widths.
class StarHull {
public:
    StarHull() = default;
    /// `about` in the outline's frame (origin at the ink box's top left, unit its width).
    StarHull(const Region& outline, Point about);
    /// Lowers `best` to the width in mm at which the hull, growing about `anchor` (mm), first touches one of the ring's edges
    /// that end at its points first … last − 1, where that is narrower. The anchor must not lie within the ring's area.
    void narrow(const Ring& obstacle, std::size_t first, std::size_t last, Point anchor, double& best) const;
    [[nodiscard]] bool empty() const { return rays_.empty(); }
    /// How far it reaches towards a box as seen from the anchor, in ink widths: of the quadrants that the box lies in.
    [[nodiscard]] double reach_towards(const Rect& box, Point anchor) const;

private:
    /// Between one ray and the next the hull's edge is the straight line from `out` to the next ray's `in`.
    struct Ray {
        double turn;     ///< pseudo-angle, 0 … 4, ascending
        Point in, out;   ///< where the edge arrives at this ray, and where the next one leaves it
        Point far = {};  ///< the further of the two
    };
    [[nodiscard]] std::size_t after(double turn) const;
    /// The hull's extent along `direction`, in units of its length.
    [[nodiscard]] double extent_along(Point direction, double turn) const;
    static constexpr int reach_sectors = 64;
    static int sector_of(double turn);
    [[nodiscard]] double reach_between(double from, double span) const;
    std::vector<Ray> rays_;
    double reach_ = 0;
    std::array<double, reach_sectors> sector_reach_ = {};
    std::array<double, 4> quadrant_reach_ = {};
};

/// One thing to keep clear of, grown by its clearance.
struct Obstacle {
    std::string name;
    double clearance = 0;
    double height = 0;
    bool edge = false;
    Region place;
    std::vector<Ring> grown;
    std::vector<Rect> boxes;                   ///< of `grown`
    std::vector<std::vector<Rect>> stretches;  ///< boxes of so many edges of each ring, one after the other
    static constexpr std::size_t stretch = 8;
    void find_boxes();  ///< after `grown` is set
};

using ClearArea = std::vector<Obstacle>;

ClearArea clear_area(Location location, const Panel& panel);
/// One obstacle more, of a convex region that is not a panel's: another decoration's ink.
Obstacle obstacle_of(const std::string& name, const Region& place, double clearance);

struct ClearLimit {
    double width = 0;
    std::string by;                   ///< the obstacle that is met first
    std::vector<std::string> anyway;  ///< met at any width: the place is wrong, not the size
};

/// The largest width at which the design keeps clear of every obstacle, growing about `anchor`. At most `at_most`.
ClearLimit widest_clear(const StarHull& hull, const ClearArea& area, Point anchor, double at_most);

/// One thing that the ink comes too close to, or lies over.
struct Clash {
    std::string with;           ///< "side seam", "armhole seam", "collar seam", "hem", "centre line", or a feature's name
    double short_by = 0;        ///< mm by which the clearance is not kept
    bool over = false;          ///< the ink lies on it
    std::optional<Point> move;  ///< the least straight move that keeps the whole clearance; nothing where none is in reach
};

/// Everything that ink of this true outline (mm, on the panel) comes too close to, by more than `slack`.
std::vector<Clash> clashes(const ClearArea& area, const Region& ink, double slack = 0.5);

}  // namespace orthema
