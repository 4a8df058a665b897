#include "core/fitting/exactness.h"

#include <algorithm>
#include <cmath>

namespace orthema {

namespace {

/// Way from p along the unit vector d to the segment a b, or `most`.
double way_to(Point p, Point d, Point a, Point b, double most) {
    const Point edge = b - a;
    const double bottom = cross(d, edge);
    if (std::abs(bottom) < 1e-12) return most;
    const Point off = a - p;
    const double t = cross(off, edge) / bottom;  // along d
    const double s = cross(off, d) / bottom;     // along the edge
    return t >= 0 && s >= -1e-9 && s <= 1 + 1e-9 ? std::min(t, most) : most;
}

double way_between(const Ring& ink, const Ring& wall, Point d, double most) {
    for (std::size_t i = 0, n = ink.size(); i < n; ++i)
        for (std::size_t k = 0, m = wall.size(); k < m; ++k) {
            most = way_to(ink[i], d, wall[k], wall[(k + 1) % m], most);
            most = way_to(wall[k], d * -1, ink[i], ink[(i + 1) % n], most);
        }
    return most;
}

}  // namespace

Slack slack_of(const Ground& ground, const DecorationFit& fit, const SizeFit& s) {
    Slack slack;
    if (fit.hull.size() < 3) return slack;
    const Ring ink = mapped(fit.hull, Affine{s.width, 0, 0, s.width, s.ink.x0, s.ink.y0});
    for (const Obstacle& o : ground.area)
        for (std::size_t i = 0; i < o.grown.size(); ++i) {
            if (!o.boxes[i].meets(s.ink.grown(50))) continue;
            const Ring& wall = o.grown[i];
            slack.up = way_between(ink, wall, {0, -1}, slack.up);
            slack.down = way_between(ink, wall, {0, 1}, slack.down);
            slack.left = way_between(ink, wall, {-1, 0}, slack.left);
            slack.right = way_between(ink, wall, {1, 0}, slack.right);
        }
    return slack;
}

Exactness exactness_of(const Slack& s) {
    const auto half = [](double a, double b, double most) { return std::clamp(std::floor(std::min(a, b)) / 2, 1.0, most); };
    return {half(s.up, s.down, 12), half(s.left, s.right, 6)};
}

}  // namespace orthema
