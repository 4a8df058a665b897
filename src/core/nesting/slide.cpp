// Sliding one outline towards others until it is a gap away.
#include <algorithm>
#include <cmath>

#include "core/nesting/nest.h"

namespace orthema {

namespace {

struct Side {
    Point a, b;  ///< in order across the direction of travel
};

/// Free way of one outline towards another along an axis: the least gap between facing edges, seen level. `sign` is the
/// direction of travel; an edge up to `slack` behind counts as touched. Only what lies in `window`, which the moving
/// outline sweeps, is looked at.
double facing_gap(const Ring& moving, const Ring& still, bool along_x, int sign, double slack, const Rect& window, double best) {
    const auto along = [&](Point p) { return sign * (along_x ? p.x : p.y); };
    const auto across = [&](Point p) { return along_x ? p.y : p.x; };
    const auto edges_of = [&](const Ring& ring) {
        std::vector<Side> out;
        for (std::size_t i = 0, n = ring.size(); i < n; ++i) {
            Point p = ring[i];
            Point q = ring[(i + 1) % n];
            if (!window.meets({std::min(p.x, q.x), std::min(p.y, q.y), std::max(p.x, q.x), std::max(p.y, q.y)})) continue;
            if (across(p) > across(q)) std::swap(p, q);
            out.push_back({p, q});
        }
        return out;
    };
    const auto ray = [&](const Ring& points, const std::vector<Side>& edges, double flip) {
        for (const Point& p : points) {
            if (!window.contains(p)) continue;
            const double c = across(p);
            for (const Side& e : edges) {
                if (c < across(e.a) || c > across(e.b)) continue;
                double reach = 0;
                if (across(e.b) - across(e.a) < 1e-12) {
                    reach = flip > 0 ? std::min(along(e.a), along(e.b)) : std::max(along(e.a), along(e.b));
                } else {
                    reach = along(e.a) + (along(e.b) - along(e.a)) * (c - across(e.a)) / (across(e.b) - across(e.a));
                }
                const double gap = flip * (reach - along(p));
                if (gap > -slack && gap < best) best = std::max(0.0, gap);
            }
        }
    };
    ray(moving, edges_of(still), 1);
    ray(still, edges_of(moving), -1);
    return best;
}

}  // namespace

double slide(const Polygon& moving, const std::vector<const Polygon*>& others, double gap, int dx, int dy, double most) {
    if (most <= 0) return 0;
    const bool along_x = dx != 0;
    const int sign = along_x ? dx : dy;
    const Region grown = gap > 0 ? offset({moving}, gap, 0.03) : Region{moving};
    // The grown outline may dip into a neighbour by its arcs' excess: that still is contact, not a way through.
    const double slack = gap > 0 ? 0.1 : 1e-6;
    double free = most;
    Rect way = bounds(grown);
    (along_x ? (sign < 0 ? way.x0 : way.x1) : (sign < 0 ? way.y0 : way.y1)) += sign * most;
    const Rect window = way.grown(slack);
    for (const Polygon* other : others) {
        const Rect box = bounds(other->outer);
        if (!way.meets(box)) continue;
        // of the sweep, only what passes this neighbour
        const Rect near{std::max(window.x0, box.x0 - (along_x ? most : slack)), std::max(window.y0, box.y0 - (along_x ? slack : most)),
                        std::min(window.x1, box.x1 + (along_x ? most : slack)), std::min(window.y1, box.y1 + (along_x ? slack : most))};
        for (const Polygon& g : grown) {
            const auto against = [&](const Ring& still) {
                free = facing_gap(g.outer, still, along_x, sign, slack, near, free);
                for (const Ring& hole : g.holes) free = facing_gap(hole, still, along_x, sign, slack, near, free);
            };
            against(other->outer);
            for (const Ring& hole : other->holes) against(hole);
        }
    }
    return std::max(0.0, free - 1e-4);
}

}  // namespace orthema
