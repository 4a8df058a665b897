// Points, rings, polygons with holes and affine maps in millimetres (y down, as a sheet or a garment lies before
// the viewer), and the few operations the stages need, as a thin layer over Clipper.
#pragma once

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

namespace orthema {

struct Point {
    double x = 0, y = 0;
    friend Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
    friend Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
    friend Point operator*(Point a, double k) { return {a.x * k, a.y * k}; }
    bool operator==(const Point&) const = default;
};

inline double dot(Point a, Point b) { return a.x * b.x + a.y * b.y; }
inline double cross(Point a, Point b) { return a.x * b.y - a.y * b.x; }
inline double norm(Point a) { return std::hypot(a.x, a.y); }

using Ring = std::vector<Point>;  ///< closed by its first point, which is not repeated

struct Polygon {
    Ring outer;
    std::vector<Ring> holes;
    bool operator==(const Polygon&) const = default;
};

using Region = std::vector<Polygon>;

struct Rect {
    double x0 = 0, y0 = 0, x1 = 0, y1 = 0;
    [[nodiscard]] double width() const { return x1 - x0; }
    [[nodiscard]] double height() const { return y1 - y0; }
    [[nodiscard]] Point centre() const { return {(x0 + x1) / 2, (y0 + y1) / 2}; }
    [[nodiscard]] bool contains(Point p) const { return p.x >= x0 && p.x <= x1 && p.y >= y0 && p.y <= y1; }
    [[nodiscard]] bool meets(const Rect& o) const { return x0 <= o.x1 && o.x0 <= x1 && y0 <= o.y1 && o.y0 <= y1; }
    [[nodiscard]] Rect grown(double by) const { return {x0 - by, y0 - by, x1 + by, y1 + by}; }
    bool operator==(const Rect&) const = default;
};

/// Square of the distance of a point from a box; 0 within it.
inline double distance2(const Rect& box, Point p) {
    const double dx = std::max({box.x0 - p.x, p.x - box.x1, 0.0}), dy = std::max({box.y0 - p.y, p.y - box.y1, 0.0});
    return dx * dx + dy * dy;
}
inline Rect united(const Rect& a, const Rect& b) {
    return {std::min(a.x0, b.x0), std::min(a.y0, b.y0), std::max(a.x1, b.x1), std::max(a.y1, b.y1)};
}

/// x' = a x + c y + tx, y' = b x + d y + ty.
struct Affine {
    double a = 1, b = 0, c = 0, d = 1, tx = 0, ty = 0;
    [[nodiscard]] Point operator()(Point p) const { return {a * p.x + c * p.y + tx, b * p.x + d * p.y + ty}; }
    /// First `before`, then this.
    [[nodiscard]] Affine after(const Affine& before) const;
    [[nodiscard]] double determinant() const { return a * d - b * c; }
    static Affine shift(double x, double y) { return {1, 0, 0, 1, x, y}; }
    static Affine scale(double x, double y) { return {x, 0, 0, y, 0, 0}; }
    /// Anticlockwise in a y-up frame, clockwise as seen in a y-down one. Quarter turns are exact.
    static Affine turn(double degrees);
};

/// Pre: the determinant is not 0.
Affine inverse(const Affine& map);

double signed_area(const Ring& ring);  ///< mm²; positive anticlockwise in a y-up frame
double area(const Polygon& polygon);   ///< mm², holes taken off
double area(const Region& region);
double perimeter(const Region& region);  ///< mm, holes included
Rect bounds(const Ring& ring);
Rect bounds(const Region& region);  ///< a zero Rect for an empty region
Ring mapped(const Ring& ring, const Affine& map);
Polygon mapped(const Polygon& polygon, const Affine& map);
Region mapped(const Region& region, const Affine& map);

/// Even-odd containment; a point on the edge may fall either way.
bool inside(const Ring& ring, Point p);
bool inside(const Polygon& polygon, Point p);
bool inside(const Region& region, Point p);

/// The point of a segment that is nearest.
Point nearest_on(Point p, Point a, Point b);

/// Each vertex is kept at most `tolerance` mm from the simplified ring (Douglas-Peucker on the closed ring); a ring
/// that would fall below a triangle is returned as it is.
Ring simplified(const Ring& ring, double tolerance);

/// The same for an open line: its ends stay.
Ring simplified_line(const Ring& line, double tolerance);

enum class Corner { round, square };
/// Region grown (or shrunk) by `by` mm. Round joins: the arcs are circumscribed, so that growing never falls short of
/// `by`; their excess is at most `arc_tolerance`. Square joins keep a corner's angle, cut off at twice `by`. Pieces
/// come back as polygons with their own holes.
Region offset(const Region& region, double by, double arc_tolerance = 0.02, Corner corner = Corner::round);
enum class Cap { butt, round, square };
enum class PenJoin { round, miter, bevel };
/// The area that a pen `width` wide covers along a line; `closed`: it comes back to its start.
Region stroked(const Ring& line, bool closed, double width, Cap cap, PenJoin join, double tolerance = 0.02);
/// The area that rings enclose an odd number of times.
Region filled(const std::vector<Ring>& rings);
Region unite(const Region& a, const Region& b);
Region intersect(const Region& a, const Region& b);
Region subtract(const Region& a, const Region& b);

/// Least distance in mm between two polygons as filled areas: 0 where they overlap or touch.
double distance(const Polygon& a, const Polygon& b);
double distance(const Region& a, const Region& b);
/// distance(a, b) < limit, without finding the distance: only edges within reach are looked at.
bool nearer_than(const Polygon& a, const Polygon& b, double limit);

/// Points of a cubic Bézier from p0 to p3, p0 left out, `steps` segments.
void curve_to(Ring& ring, Point p1, Point p2, Point p3, int steps = 14);

Region box_region(const Rect& rect);

/// The two points at which two polygons come nearest, the first on `a`; in the middle where two edges face each other.
std::pair<Point, Point> nearest_points(const Polygon& a, const Polygon& b);

/// The convex hull of a region, anticlockwise in a y-up frame. Andrew's monotone chain.
Ring convex_hull(const Region& region);

}  // namespace orthema
