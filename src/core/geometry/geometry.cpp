#include "core/geometry/geometry.h"

#include <limits>
#include <polyclipping/clipper.hpp>

namespace orthema {

Affine Affine::after(const Affine& f) const {
    return {a * f.a + c * f.b, b * f.a + d * f.b, a * f.c + c * f.d, b * f.c + d * f.d, a * f.tx + c * f.ty + tx, b * f.tx + d * f.ty + ty};
}

Affine Affine::turn(double degrees) {
    double t = std::fmod(degrees, 360.0);
    if (t < 0) t += 360.0;
    if (t == 0) return {};
    if (t == 90) return {0, 1, -1, 0, 0, 0};
    if (t == 180) return {-1, 0, 0, -1, 0, 0};
    if (t == 270) return {0, -1, 1, 0, 0, 0};
    const double r = t * M_PI / 180.0;
    return {std::cos(r), std::sin(r), -std::sin(r), std::cos(r), 0, 0};
}

Affine inverse(const Affine& m) {
    const double k = 1 / m.determinant();
    return {m.d * k, -m.b * k, -m.c * k, m.a * k, (m.c * m.ty - m.d * m.tx) * k, (m.b * m.tx - m.a * m.ty) * k};
}

double signed_area(const Ring& ring) {
    double twice = 0;
    for (std::size_t i = 0, n = ring.size(); i < n; ++i) twice += cross(ring[i], ring[(i + 1) % n]);
    return twice / 2;
}

double area(const Polygon& polygon) {
    double total = std::abs(signed_area(polygon.outer));
    for (const Ring& hole : polygon.holes) total -= std::abs(signed_area(hole));
    return total;
}

double area(const Region& region) {
    double total = 0;
    for (const Polygon& p : region) total += area(p);
    return total;
}

namespace {

double length_of(const Ring& ring) {
    double total = 0;
    for (std::size_t i = 0, n = ring.size(); i < n; ++i) total += norm(ring[(i + 1) % n] - ring[i]);
    return total;
}

}  // namespace

double perimeter(const Region& region) {
    double total = 0;
    for (const Polygon& p : region) {
        total += length_of(p.outer);
        for (const Ring& hole : p.holes) total += length_of(hole);
    }
    return total;
}

Rect bounds(const Ring& ring) {
    if (ring.empty()) return {};
    Rect box{ring[0].x, ring[0].y, ring[0].x, ring[0].y};
    for (const Point& p : ring) {
        box.x0 = std::min(box.x0, p.x);
        box.x1 = std::max(box.x1, p.x);
        box.y0 = std::min(box.y0, p.y);
        box.y1 = std::max(box.y1, p.y);
    }
    return box;
}

Rect bounds(const Region& region) {
    if (region.empty()) return {};
    Rect box = bounds(region[0].outer);
    for (const Polygon& p : region) box = united(box, bounds(p.outer));
    return box;
}

Ring mapped(const Ring& ring, const Affine& map) {
    Ring out;
    out.reserve(ring.size());
    for (const Point& p : ring) out.push_back(map(p));
    return out;
}

Polygon mapped(const Polygon& polygon, const Affine& map) {
    Polygon out{mapped(polygon.outer, map), {}};
    for (const Ring& hole : polygon.holes) out.holes.push_back(mapped(hole, map));
    return out;
}

Region mapped(const Region& region, const Affine& map) {
    Region out;
    out.reserve(region.size());
    for (const Polygon& p : region) out.push_back(mapped(p, map));
    return out;
}

bool inside(const Ring& ring, Point p) {
    bool in = false;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Point a = ring[i];
        const Point b = ring[j];
        if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x) in = !in;
    }
    return in;
}

bool inside(const Polygon& polygon, Point p) {
    if (!inside(polygon.outer, p)) return false;
    return std::none_of(polygon.holes.begin(), polygon.holes.end(), [&](const Ring& h) { return inside(h, p); });
}

bool inside(const Region& region, Point p) {
    return std::any_of(region.begin(), region.end(), [&](const Polygon& poly) { return inside(poly, p); });
}

Point nearest_on(Point p, Point a, Point b) {
    const Point d = b - a;
    const double len = dot(d, d);
    return a + d * (len > 0 ? std::clamp(dot(p - a, d) / len, 0.0, 1.0) : 0.0);
}

namespace {

double point_segment(Point p, Point a, Point b) { return norm(p - nearest_on(p, a, b)); }

/// The points that were kept.
Ring kept(const Ring& ring, const std::vector<char>& keep) {
    Ring out;
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (keep[i] != 0) out.push_back(ring[i]);
    return out;
}

void keep_far(const Ring& ring, std::size_t first, std::size_t last, double tolerance, std::vector<char>& keep) {
    std::vector<std::pair<std::size_t, std::size_t>> open{{first, last}};
    while (!open.empty()) {
        const auto [from, to] = open.back();
        open.pop_back();
        const std::size_t n = ring.size();
        double worst = tolerance;
        std::size_t at = from;
        for (std::size_t i = from + 1; i < to; ++i) {
            const double d = point_segment(ring[i % n], ring[from % n], ring[to % n]);
            if (d > worst) {
                worst = d;
                at = i;
            }
        }
        if (at == from) continue;
        keep[at % n] = 1;
        open.emplace_back(from, at);
        open.emplace_back(at, to);
    }
}

}  // namespace

Ring simplified(const Ring& ring, double tolerance) {
    if (ring.size() < 4) return ring;
    std::size_t far = 0;
    for (std::size_t i = 1; i < ring.size(); ++i)
        if (norm(ring[i] - ring[0]) > norm(ring[far] - ring[0])) far = i;
    std::vector<char> keep(ring.size(), 0);
    keep[0] = keep[far] = 1;
    keep_far(ring, 0, far, tolerance, keep);
    keep_far(ring, far, ring.size(), tolerance, keep);
    Ring out = kept(ring, keep);
    return out.size() < 3 ? ring : out;
}

Ring simplified_line(const Ring& line, double tolerance) {
    if (line.size() < 3) return line;
    std::vector<char> keep(line.size(), 0);
    keep.front() = keep.back() = 1;
    keep_far(line, 0, line.size() - 1, tolerance, keep);
    return kept(line, keep);
}

namespace {

constexpr double units = 10000.0;  // Clipper counts in whole units of 0.1 µm

ClipperLib::Path to_path(const Ring& ring, bool outer) {
    ClipperLib::Path path;
    path.reserve(ring.size());
    for (const Point& p : ring)
        path.emplace_back(static_cast<ClipperLib::cInt>(std::llround(p.x * units)),
                          static_cast<ClipperLib::cInt>(std::llround(p.y * units)));
    if (ClipperLib::Orientation(path) != outer) ClipperLib::ReversePath(path);
    return path;
}

ClipperLib::Paths to_paths(const Region& region) {
    ClipperLib::Paths paths;
    for (const Polygon& p : region) {
        paths.push_back(to_path(p.outer, true));
        for (const Ring& hole : p.holes) paths.push_back(to_path(hole, false));
    }
    return paths;
}

Ring to_ring(const ClipperLib::Path& path) {
    Ring ring;
    ring.reserve(path.size());
    for (const auto& p : path) ring.push_back({static_cast<double>(p.X) / units, static_cast<double>(p.Y) / units});
    return ring;
}

Region to_region(const ClipperLib::PolyTree& tree) {
    Region region;
    for (const ClipperLib::PolyNode* node = tree.GetFirst(); node != nullptr; node = node->GetNext()) {
        if (node->IsHole() || node->Contour.size() < 3) continue;
        Polygon polygon{to_ring(node->Contour), {}};
        for (const ClipperLib::PolyNode* child : node->Childs)
            if (child->Contour.size() >= 3) polygon.holes.push_back(to_ring(child->Contour));
        region.push_back(std::move(polygon));
    }
    return region;
}

Region clipped(ClipperLib::ClipType type, const Region& a, const Region& b) {
    ClipperLib::Clipper clipper;
    clipper.AddPaths(to_paths(a), ClipperLib::ptSubject, true);
    clipper.AddPaths(to_paths(b), ClipperLib::ptClip, true);
    ClipperLib::PolyTree tree;
    clipper.Execute(type, tree, ClipperLib::pftNonZero, ClipperLib::pftNonZero);
    return to_region(tree);
}

}  // namespace

Region offset(const Region& region, double by, double arc_tolerance, Corner corner) {
    // Clipper inscribes its arcs: the chord's sagitta is added, so that the grown edge is nowhere nearer than `by`. It
    // rounds the count of chords, so one may span half as much again as asked: its sagitta is then 2.25 times as deep.
    const bool round = corner == Corner::round;
    const double extra = by > 0 && round ? arc_tolerance : 0.0;
    ClipperLib::ClipperOffset grow(2.0, arc_tolerance / 2.3 * units);
    grow.AddPaths(to_paths(region), round ? ClipperLib::jtRound : ClipperLib::jtMiter, ClipperLib::etClosedPolygon);
    ClipperLib::PolyTree tree;
    grow.Execute(tree, (by + extra) * units);
    return to_region(tree);
}

Region stroked(const Ring& line, bool closed, double width, Cap cap, PenJoin join, double tolerance) {
    ClipperLib::ClipperOffset pen(10.0, tolerance * units);
    ClipperLib::Path path;
    path.reserve(line.size());
    for (const Point& p : line) path.emplace_back(std::llround(p.x * units), std::llround(p.y * units));
    const auto end = closed               ? ClipperLib::etClosedLine
                     : cap == Cap::round  ? ClipperLib::etOpenRound
                     : cap == Cap::square ? ClipperLib::etOpenSquare
                                          : ClipperLib::etOpenButt;
    // the library has no bevel: its square join stands out past one by 0.3 of half the width, never short of it
    const auto corner = join == PenJoin::round ? ClipperLib::jtRound : join == PenJoin::miter ? ClipperLib::jtMiter : ClipperLib::jtSquare;
    pen.AddPath(path, corner, end);
    ClipperLib::PolyTree tree;
    pen.Execute(tree, width / 2 * units);
    return to_region(tree);
}

Region filled(const std::vector<Ring>& rings) {
    ClipperLib::Clipper clipper;
    for (const Ring& r : rings) clipper.AddPath(to_path(r, true), ClipperLib::ptSubject, true);
    ClipperLib::PolyTree tree;
    clipper.Execute(ClipperLib::ctUnion, tree, ClipperLib::pftEvenOdd, ClipperLib::pftEvenOdd);
    return to_region(tree);
}

Region unite(const Region& a, const Region& b) { return clipped(ClipperLib::ctUnion, a, b); }
Region intersect(const Region& a, const Region& b) { return clipped(ClipperLib::ctIntersection, a, b); }
Region subtract(const Region& a, const Region& b) { return clipped(ClipperLib::ctDifference, a, b); }

namespace {

bool segments_cross(Point a, Point b, Point c, Point d) {
    const double d1 = cross(b - a, c - a);
    const double d2 = cross(b - a, d - a);
    const double d3 = cross(d - c, a - c);
    const double d4 = cross(d - c, b - c);
    return ((d1 > 0) != (d2 > 0)) && ((d3 > 0) != (d4 > 0)) && d1 != 0 && d2 != 0 && d3 != 0 && d4 != 0;
}

/// Distance of two segments that do not cross.
double apart(Point p, Point q, Point r, Point s) {
    return std::min({point_segment(p, r, s), point_segment(q, r, s), point_segment(r, p, q), point_segment(s, p, q)});
}

double ring_distance(const Ring& a, const Ring& b, double best) {
    for (std::size_t i = 0; i < a.size(); ++i) {
        const Point p = a[i];
        const Point q = a[(i + 1) % a.size()];
        const double px0 = std::min(p.x, q.x), px1 = std::max(p.x, q.x);
        const double py0 = std::min(p.y, q.y), py1 = std::max(p.y, q.y);
        for (std::size_t j = 0; j < b.size(); ++j) {
            const Point r = b[j];
            const Point s = b[(j + 1) % b.size()];
            const double gx = std::max({0.0, std::min(r.x, s.x) - px1, px0 - std::max(r.x, s.x)});
            const double gy = std::max({0.0, std::min(r.y, s.y) - py1, py0 - std::max(r.y, s.y)});
            if (gx * gx + gy * gy >= best * best) continue;
            if (segments_cross(p, q, r, s)) return 0;
            best = std::min(best, apart(p, q, r, s));
        }
    }
    return best;
}

}  // namespace

bool nearer_than(const Polygon& a, const Polygon& b, double limit) {
    if (a.outer.empty() || b.outer.empty()) return false;
    const Rect near = bounds(a.outer).grown(limit);
    const Rect box = bounds(b.outer).grown(limit);
    if (!near.meets(bounds(b.outer))) return false;
    if (inside(a, b.outer[0]) || inside(b, a.outer[0])) return true;
    struct Edge {
        Point p, q;
        Rect box;
    };
    const auto edges = [](const Polygon& poly, const Rect& window) {
        std::vector<Edge> out;
        const auto add = [&](const Ring& ring) {
            for (std::size_t i = 0, n = ring.size(); i < n; ++i) {
                const Point p = ring[i];
                const Point q = ring[(i + 1) % n];
                const Rect r{std::min(p.x, q.x), std::min(p.y, q.y), std::max(p.x, q.x), std::max(p.y, q.y)};
                if (window.meets(r)) out.push_back({p, q, r});
            }
        };
        add(poly.outer);
        for (const Ring& hole : poly.holes) add(hole);
        return out;
    };
    const auto theirs = edges(b, near);
    for (const Edge& e : edges(a, box)) {
        const Rect reach = e.box.grown(limit);
        for (const Edge& f : theirs) {
            if (!reach.meets(f.box)) continue;
            if (segments_cross(e.p, e.q, f.p, f.q) || apart(e.p, e.q, f.p, f.q) < limit) return true;
        }
    }
    return false;
}

double distance(const Polygon& a, const Polygon& b) {
    if (a.outer.empty() || b.outer.empty()) return std::numeric_limits<double>::infinity();
    if (inside(a, b.outer[0]) || inside(b, a.outer[0])) return 0;
    double best = ring_distance(a.outer, b.outer, std::numeric_limits<double>::infinity());
    for (const Ring& hole : a.holes) best = ring_distance(hole, b.outer, best);
    for (const Ring& hole : b.holes) best = ring_distance(a.outer, hole, best);
    for (const Ring& ha : a.holes)
        for (const Ring& hb : b.holes) best = ring_distance(ha, hb, best);
    return best;
}

double distance(const Region& a, const Region& b) {
    double best = std::numeric_limits<double>::infinity();
    for (const Polygon& p : a)
        for (const Polygon& q : b) best = std::min(best, distance(p, q));
    return best;
}

std::pair<Point, Point> nearest_points(const Polygon& a, const Polygon& b) {
    using Pair = std::pair<Point, Point>;
    constexpr double same = 1e-6;
    Pair best{a.outer.at(0), b.outer.at(0)}, first = best, last = best;
    double least = norm(best.first - best.second);
    const auto from_to = [&](const Ring& from, const Ring& to, bool swap) {
        for (const Point& p : from)
            for (std::size_t i = 0; i < to.size(); ++i) {
                const Point at = nearest_on(p, to[i], to[(i + 1) % to.size()]);
                const double far = norm(p - at);
                if (far > least + same) continue;
                const Pair pair = swap ? Pair{at, p} : Pair{p, at};
                if (far < least - same) first = pair;
                last = pair;
                least = std::min(least, far);
                best = first;
            }
    };
    from_to(a.outer, b.outer, false);
    from_to(b.outer, a.outer, true);
    // two edges that face each other are as near along their length: then in its middle
    const Pair middle{(first.first + last.first) * 0.5, (first.second + last.second) * 0.5};
    const auto on_ring = [&](Point p, const Ring& ring) {
        for (std::size_t i = 0; i < ring.size(); ++i)
            if (point_segment(p, ring[i], ring[(i + 1) % ring.size()]) < same) return true;
        return false;
    };
    if (norm(middle.first - middle.second) < least + same && on_ring(middle.first, a.outer) && on_ring(middle.second, b.outer))
        return middle;
    return best;
}

void curve_to(Ring& ring, Point p1, Point p2, Point p3, int steps) {
    const Point p0 = ring.back();
    for (int i = 1; i <= steps; ++i) {
        const double t = static_cast<double>(i) / steps;
        const double u = 1 - t;
        ring.push_back(p0 * (u * u * u) + p1 * (3 * u * u * t) + p2 * (3 * u * t * t) + p3 * (t * t * t));
    }
}

Region box_region(const Rect& r) { return {Polygon{{{r.x0, r.y0}, {r.x1, r.y0}, {r.x1, r.y1}, {r.x0, r.y1}}, {}}}; }

Ring convex_hull(const Region& region) {
    std::vector<Point> points;
    for (const Polygon& p : region) points.insert(points.end(), p.outer.begin(), p.outer.end());
    std::sort(points.begin(), points.end(), [](Point a, Point b) { return a.x != b.x ? a.x < b.x : a.y < b.y; });
    points.erase(std::unique(points.begin(), points.end()), points.end());
    if (points.size() < 3) return points;
    Ring hull;
    for (int pass = 0; pass < 2; ++pass) {
        const std::size_t start = hull.size();
        for (const Point p : points) {
            while (hull.size() >= start + 2 && cross(hull.back() - hull[hull.size() - 2], p - hull.back()) <= 0) hull.pop_back();
            hull.push_back(p);
        }
        hull.pop_back();
        std::reverse(points.begin(), points.end());
    }
    return hull;
}

}  // namespace orthema
