#include "core/nesting/cast.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

namespace orthema {

namespace {

constexpr int most_discs = 24, of_bulging = 16;  ///< where the outline nearly fills its hull, fewer tell as much
constexpr double enough = 0.92;                  ///< of the area, in discs
constexpr int mesh = 56;                         ///< points across the longer side where discs are looked for

/// Where the lines p→q and r→s meet, when they lean towards each other past q and r.
std::optional<Point> corner_of(Point p, Point q, Point r, Point s) {
    const Point d = q - p, e = r - s;
    const double det = cross(d, e);
    if (std::abs(det) < 1e-12) return std::nullopt;
    const double t = cross(r - q, e) / det, u = cross(r - q, d) / det;
    if (t < 0 || u > 0) return std::nullopt;  // q + t d == r - u e, ahead of both
    return q + d * t;
}

double off_line(Point p, Point a, Point b) { return norm(p - nearest_on(p, a, b)); }

struct Disc {
    Point at;
    double radius = 0;
};

/// Greedily the largest disc inside the outline whose middle lies in none before it. Method: poles of inaccessibility
/// on a mesh.
std::vector<Disc> discs_of(const Polygon& outline) {
    const Rect box = bounds(outline.outer);
    const double step = std::max(box.width(), box.height()) / mesh;
    struct Node {
        Point at;
        double room;
    };
    std::vector<Node> nodes;
    std::vector<std::pair<Point, Point>> edges;
    const auto add = [&](const Ring& r) {
        for (std::size_t i = 0; i < r.size(); ++i) edges.emplace_back(r[i], r[(i + 1) % r.size()]);
    };
    add(outline.outer);
    for (const Ring& hole : outline.holes) add(hole);
    for (double y = box.y0 + step / 2; y < box.y1; y += step)
        for (double x = box.x0 + step / 2; x < box.x1; x += step) {
            const Point p{x, y};
            if (!inside(outline, p)) continue;
            double least = 1e300;
            for (const auto& [a, b] : edges) {
                const Point d = p - nearest_on(p, a, b);
                least = std::min(least, dot(d, d));
            }
            nodes.push_back({p, std::sqrt(least)});
        }
    std::vector<Disc> out;
    const double whole = area(outline);
    double covered = 0;
    const int most = whole > 0.93 * std::abs(signed_area(convex_hull({outline}))) ? of_bulging : most_discs;
    while (static_cast<int>(out.size()) < most && covered < enough * whole && !nodes.empty()) {
        const auto best = std::max_element(nodes.begin(), nodes.end(), [](const Node& a, const Node& b) { return a.room < b.room; });
        if (best->room < step / 4) break;
        out.push_back({best->at, best->room});
        covered += M_PI * best->room * best->room;
        const Disc last = out.back();
        for (Node& n : nodes) n.room = std::min(n.room, norm(n.at - last.at) - last.radius);
        std::erase_if(nodes, [&](const Node& n) { return n.room <= step / 8; });
    }
    if (out.empty()) {  // thinner than the mesh: discs along the longest edge, just inside
        for (const auto& [a, b] : edges) {
            const Point middle = (a + b) * 0.5;
            out.push_back({middle, step / 50});
            if (static_cast<int>(out.size()) == most) break;
        }
    }
    return out;
}

}  // namespace

Ring simplified_outwards(const Ring& ring, double tolerance) {
    Ring r = ring;
    const auto at = [&](std::size_t i) -> Point { return r[i % r.size()]; };
    while (r.size() > 4) {
        const std::size_t n = r.size();
        double least = tolerance;
        std::size_t which = n;
        bool corner = false;
        Point put;
        for (std::size_t i = 0; i < n; ++i) {
            const Point u = at(i + n - 1), v = at(i), w = at(i + 1);
            if (cross(v - u, w - v) <= 0) {
                if (const double off = off_line(v, u, w); off < least) {
                    least = off;
                    which = i;
                    corner = false;
                }
                continue;
            }
            const Point z = at(i + 2);
            if (cross(w - v, z - w) <= 0) continue;
            if (const auto meet = corner_of(u, v, w, z)) {
                if (const double off = off_line(*meet, v, w); off < least) {
                    least = off;
                    which = i;
                    corner = true;
                    put = *meet;
                }
            }
        }
        if (which == n) break;
        if (corner) {
            r[which] = put;
            r.erase(r.begin() + static_cast<std::ptrdiff_t>((which + 1) % n));
        } else {
            r.erase(r.begin() + static_cast<std::ptrdiff_t>(which));
        }
    }
    return r;
}

Polygon search_outline(const Polygon& outline, double by, double tolerance) {
    const Region grown = offset({outline}, by, 0.02, by > 0.1 ? Corner::round : Corner::square);
    if (grown.empty()) return outline;
    Polygon out = *std::max_element(grown.begin(), grown.end(), [](const Polygon& a, const Polygon& b) { return area(a) < area(b); });
    if (signed_area(out.outer) < 0) std::reverse(out.outer.begin(), out.outer.end());
    out.outer = simplified_outwards(out.outer, tolerance);
    for (Ring& hole : out.holes) {
        if (signed_area(hole) > 0) std::reverse(hole.begin(), hole.end());
        hole = simplified_outwards(hole, tolerance);
    }
    std::erase_if(out.holes, [](const Ring& hole) { return std::abs(signed_area(hole)) < 4; });
    return out;
}

std::vector<Cast> casts_of(const Polygon& grown, const std::vector<double>& turns) {
    const std::vector<Disc> discs = discs_of(grown);
    const auto bulk = static_cast<float>(std::pow(std::abs(signed_area(convex_hull({grown}))), 0.25));
    std::vector<Cast> out;
    out.reserve(turns.size());
    for (const double degrees : turns) {
        const Affine turn = Affine::turn(degrees);
        const Polygon turned = mapped(grown, turn);
        const Rect box = bounds(turned.outer);
        Cast c;
        c.turn = degrees;
        c.middle = box.centre();
        c.x0 = static_cast<float>(-box.width() / 2);
        c.x1 = -c.x0;
        c.y0 = static_cast<float>(-box.height() / 2);
        c.y1 = -c.y0;
        c.span = static_cast<float>(std::hypot(box.width(), box.height()));
        c.bulk = bulk;
        const auto add = [&](const Ring& ring) {
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point a = ring[i] - c.middle, b = ring[(i + 1) % ring.size()] - c.middle;
                c.ax.push_back(static_cast<float>(a.x));
                c.ay.push_back(static_cast<float>(a.y));
                c.bx.push_back(static_cast<float>(b.x));
                c.by.push_back(static_cast<float>(b.y));
            }
        };
        add(turned.outer);
        for (const Ring& hole : turned.holes) add(hole);
        for (const Disc& d : discs) {
            const Point p = turn(d.at) - c.middle;
            c.dx.push_back(static_cast<float>(p.x));
            c.dy.push_back(static_cast<float>(p.y));
            c.dr.push_back(static_cast<float>(d.radius));
        }
        c.inner_x = c.dx[0];
        c.inner_y = c.dy[0];
        constexpr float far = 1e9F;  // padding lies where nothing is
        while (c.ax.size() % lane_count != 0) {
            c.ax.push_back(far);
            c.ay.push_back(far);
            c.bx.push_back(far);
            c.by.push_back(far);
        }
        while (c.dx.size() % lane_count != 0) {
            c.dx.push_back(far);
            c.dy.push_back(far);
            c.dr.push_back(0);
        }
        c.edges = static_cast<int>(c.ax.size());
        for (std::size_t g = 0; g < c.ax.size(); g += lane_count) {
            float lx = far, ly = far, hx = -far, hy = -far;
            for (std::size_t k = g; k < g + lane_count; ++k) {
                if (c.ax[k] == far) continue;
                lx = std::min({lx, c.ax[k], c.bx[k]});
                ly = std::min({ly, c.ay[k], c.by[k]});
                hx = std::max({hx, c.ax[k], c.bx[k]});
                hy = std::max({hy, c.ay[k], c.by[k]});
            }
            c.gx0.push_back(lx);
            c.gy0.push_back(ly);
            c.gx1.push_back(hx);
            c.gy1.push_back(hy);
        }
        while (c.gx0.size() % lane_count != 0) {
            c.gx0.push_back(far);
            c.gy0.push_back(far);
            c.gx1.push_back(-far);
            c.gy1.push_back(-far);
        }
        c.discs = static_cast<int>(c.dx.size());
        out.push_back(std::move(c));
    }
    return out;
}

std::vector<Cast> CastStore::of(const Polygon& outline, double by, double tolerance, const std::vector<double>& turns) {
    const std::scoped_lock lock(guard_);
    auto found = std::find_if(made_.begin(), made_.end(),
                              [&](const Made& m) { return m.by == by && m.tolerance == tolerance && m.outline == outline; });
    if (found == made_.end()) {
        made_.push_back({outline, by, tolerance, search_outline(outline, by, tolerance), {}});
        found = made_.end() - 1;
    }
    Made& made = *found;
    const auto at = [&](double turn) {
        return std::find_if(made.casts.begin(), made.casts.end(), [&](const Cast& c) { return c.turn == turn; });
    };
    std::vector<double> missing;
    for (const double turn : turns)
        if (at(turn) == made.casts.end()) missing.push_back(turn);
    if (!missing.empty())
        for (Cast& c : casts_of(made.grown, missing)) made.casts.push_back(std::move(c));
    std::vector<Cast> out;
    out.reserve(turns.size());
    for (const double turn : turns) out.push_back(*at(turn));
    return out;
}

}  // namespace orthema
