#include "core/nesting/exact.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

__extension__ using Wide = __int128;

Wide turn(GridPoint a, GridPoint b, GridPoint c) {
    return static_cast<Wide>(b.x - a.x) * (c.y - a.y) - static_cast<Wide>(b.y - a.y) * (c.x - a.x);
}
int side(Wide v) { return v > 0 ? 1 : v < 0 ? -1 : 0; }
Wide square(GridPoint d) { return static_cast<Wide>(d.x) * d.x + static_cast<Wide>(d.y) * d.y; }
Wide along(GridPoint a, GridPoint b, GridPoint p) {
    return static_cast<Wide>(b.x - a.x) * (p.x - a.x) + static_cast<Wide>(b.y - a.y) * (p.y - a.y);
}

struct Segment {
    GridPoint a, b;
    [[nodiscard]] std::int64_t x0() const { return std::min(a.x, b.x); }
    [[nodiscard]] std::int64_t x1() const { return std::max(a.x, b.x); }
    [[nodiscard]] std::int64_t y0() const { return std::min(a.y, b.y); }
    [[nodiscard]] std::int64_t y1() const { return std::max(a.y, b.y); }
};

bool boxes_within(const Segment& s, const Segment& t, std::int64_t by) {
    return s.x0() <= t.x1() + by && t.x0() <= s.x1() + by && s.y0() <= t.y1() + by && t.y0() <= s.y1() + by;
}

/// Edges that come within `by` of a box; edges without length are none.
std::vector<Segment> edges_near(const GridShape& s, GridPoint low, GridPoint high, std::int64_t by) {
    std::vector<Segment> out;
    const Segment box{low, high};
    for (const auto& ring : s.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Segment e{ring[i], ring[(i + 1) % ring.size()]};
            if (e.a != e.b && boxes_within(e, box, by)) out.push_back(e);
        }
    return out;
}

enum class Where { outside, on_edge, within };

/// Where a point lies that is given in half units, so that middles of edges are exact.
Where where(const GridShape& s, GridPoint twice) {
    bool in = false;
    for (const auto& ring : s.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const GridPoint a{ring[i].x * 2, ring[i].y * 2};
            const GridPoint b{ring[(i + 1) % ring.size()].x * 2, ring[(i + 1) % ring.size()].y * 2};
            if (std::max(a.y, b.y) < twice.y || std::min(a.y, b.y) > twice.y) continue;
            const int t = side(turn(a, b, twice));
            if (t == 0 && std::min(a.x, b.x) <= twice.x && twice.x <= std::max(a.x, b.x)) return Where::on_edge;
            if ((a.y > twice.y) != (b.y > twice.y) && (t > 0) == (b.y > a.y)) in = !in;
        }
    return in ? Where::within : Where::outside;
}

bool nearer(GridPoint p, const Segment& s, std::int64_t gap) {
    const Wide length = square({s.b.x - s.a.x, s.b.y - s.a.y}), at = along(s.a, s.b, p), limit = static_cast<Wide>(gap) * gap;
    if (at <= 0) return square({p.x - s.a.x, p.y - s.a.y}) < limit;
    if (at >= length) return square({p.x - s.b.x, p.y - s.b.y}) < limit;
    const Wide off = turn(s.a, s.b, p);
    return off * off < limit * length;
}

/// A quick proof for most pairs: one lies wholly beyond the gap on one side of the other's line. Coordinates and
/// products here are whole numbers below 2^53 for edges up to 3 m, and the margin is far wider than what rounding could do.
bool surely_apart(const Segment& s, const Segment& t, std::int64_t gap) {
    const auto beyond = [gap](const Segment& line, const Segment& other) {
        const auto ux = static_cast<double>(line.b.x - line.a.x), uy = static_cast<double>(line.b.y - line.a.y);
        const double length = std::sqrt(ux * ux + uy * uy), limit = (static_cast<double>(gap) * 1.000001 + 1) * length;
        const double p = ux * static_cast<double>(other.a.y - line.a.y) - uy * static_cast<double>(other.a.x - line.a.x);
        const double q = ux * static_cast<double>(other.b.y - line.a.y) - uy * static_cast<double>(other.b.x - line.a.x);
        return (p > limit && q > limit) || (p < -limit && q < -limit);
    };
    return beyond(s, t) || beyond(t, s);
}

/// Whether they share a point.
bool meet(const Segment& s, const Segment& t) {
    const int a = side(turn(s.a, s.b, t.a)), b = side(turn(s.a, s.b, t.b)), c = side(turn(t.a, t.b, s.a)), d = side(turn(t.a, t.b, s.b));
    if (a * b > 0 || c * d > 0) return false;
    return boxes_within(s, t, 0);
}

bool apart_by(const GridShape& a, const GridShape& b, std::int64_t gap) {
    const auto ea = edges_near(a, b.low, b.high, gap), eb = edges_near(b, a.low, a.high, gap);
    for (const Segment& s : ea)
        for (const Segment& t : eb) {
            if (!boxes_within(s, t, gap) || surely_apart(s, t, gap)) continue;
            if (meet(s, t) || nearer(s.a, t, gap) || nearer(s.b, t, gap) || nearer(t.a, s, gap) || nearer(t.b, s, gap)) return false;
        }
    // No edges near each other: one may still lie wholly within the other.
    const auto holds = [](const GridShape& outer, const GridShape& inner) {
        if (inner.low.x < outer.low.x || inner.high.x > outer.high.x || inner.low.y < outer.low.y || inner.high.y > outer.high.y)
            return false;
        for (const auto& ring : inner.rings)
            if (!ring.empty()) return where(outer, {ring[0].x * 2, ring[0].y * 2}) == Where::within;
        return false;
    };
    return !holds(a, b) && !holds(b, a);
}

/// Whether some stretch of an edge of `a` runs inside `b`, or along an edge of it with both areas on the same side.
/// Pre: no edge of one properly crosses an edge of the other.
bool runs_inside(const GridShape& a, const GridShape& b) {
    for (const Segment& s : edges_near(a, b.low, b.high, 0)) {
        std::vector<GridPoint> cuts = {s.a, s.b};
        const auto touching = edges_near(b, {s.x0(), s.y0()}, {s.x1(), s.y1()}, 0);
        for (const Segment& t : touching)
            for (const GridPoint p : {t.a, t.b})
                if (turn(s.a, s.b, p) == 0 && s.x0() <= p.x && p.x <= s.x1() && s.y0() <= p.y && p.y <= s.y1()) cuts.push_back(p);
        std::sort(cuts.begin(), cuts.end(), [&](GridPoint p, GridPoint q) { return along(s.a, s.b, p) < along(s.a, s.b, q); });
        for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
            if (cuts[i] == cuts[i + 1]) continue;
            const GridPoint middle{cuts[i].x + cuts[i + 1].x, cuts[i].y + cuts[i + 1].y};
            const Where w = where(b, middle);
            if (w == Where::within) return true;
            if (w == Where::outside) continue;
            // the stretch lies on b's edge: areas are to the left of all edges, so equal ways mean the same side
            for (const Segment& t : touching)
                if (turn(s.a, s.b, t.a) == 0 && turn(s.a, s.b, t.b) == 0 && 2 * t.x0() <= middle.x && middle.x <= 2 * t.x1() &&
                    2 * t.y0() <= middle.y && middle.y <= 2 * t.y1() && along(s.a, s.b, t.b) > along(s.a, s.b, t.a))
                    return true;
        }
    }
    return false;
}

bool interiors_apart(const GridShape& a, const GridShape& b) {
    const auto ea = edges_near(a, b.low, b.high, 0), eb = edges_near(b, a.low, a.high, 0);
    for (const Segment& s : ea)
        for (const Segment& t : eb) {
            if (!boxes_within(s, t, 0)) continue;
            if (side(turn(s.a, s.b, t.a)) * side(turn(s.a, s.b, t.b)) < 0 && side(turn(t.a, t.b, s.a)) * side(turn(t.a, t.b, s.b)) < 0)
                return false;
        }
    return !runs_inside(a, b) && !runs_inside(b, a);
}

}  // namespace

GridShape on_grid(const Polygon& polygon) {
    GridShape s;
    constexpr std::int64_t far = std::int64_t{1} << 60;
    s.low = {far, far};
    s.high = {-far, -far};
    const auto add = [&](const Ring& ring, bool hole) {
        auto& out = s.rings.emplace_back();
        out.reserve(ring.size());
        for (const Point& p : ring) {
            const GridPoint g{std::llround(p.x * grid_per_mm), std::llround(p.y * grid_per_mm)};
            out.push_back(g);
            s.low = {std::min(s.low.x, g.x), std::min(s.low.y, g.y)};
            s.high = {std::max(s.high.x, g.x), std::max(s.high.y, g.y)};
        }
        Wide twice_area = 0;
        for (std::size_t i = 0; i < out.size(); ++i) twice_area += turn(out[0], out[i], out[(i + 1) % out.size()]);
        if ((twice_area > 0) == hole) std::reverse(out.begin(), out.end());
    };
    add(polygon.outer, false);
    for (const Ring& hole : polygon.holes) add(hole, true);
    return s;
}

bool exactly_apart(const GridShape& a, const GridShape& b, std::int64_t gap) {
    if (a.low.x > b.high.x + gap || b.low.x > a.high.x + gap || a.low.y > b.high.y + gap || b.low.y > a.high.y + gap) return true;
    return gap > 0 ? apart_by(a, b, gap) : interiors_apart(a, b);
}

}  // namespace orthema
