#include "core/fitting/clear_area.h"

#include <algorithm>
#include <cmath>

#include "core/fitting/escape.h"

namespace orthema {

namespace {

/// Rises with the angle from 0 to 4 without a transcendental function.
double turn_of(Point d) {
    const double s = std::abs(d.x) + std::abs(d.y);
    if (s == 0) return 0;
    const double t = d.x / s;
    return d.y >= 0 ? 1 - t : 3 + t;
}

/// Distance along `direction` (not normalised) in units of its length to the line through a and b; the ray is known to
/// pass between them.
double along(Point direction, Point a, Point b) {
    const Point edge = b - a;
    const double bottom = cross(direction, edge);
    if (std::abs(bottom) < 1e-14) return std::max(dot(a, direction), dot(b, direction)) / dot(direction, direction);
    return cross(a, edge) / bottom;
}

}  // namespace

StarHull::StarHull(const Region& outline, Point about) {
    struct Edge {
        Point a, b;       // a before b in turning order
        double from, to;  // turns; `to` may pass 4
    };
    std::vector<Edge> edges;
    std::vector<double> turns;
    for (const Polygon& p : outline)
        for (std::size_t i = 0, n = p.outer.size(); i < n; ++i) {
            Point a = p.outer[i] - about, b = p.outer[(i + 1) % n] - about;
            reach_ = std::max(reach_, norm(a));
            if (cross(a, b) < 0) std::swap(a, b);
            double from = turn_of(a), to = turn_of(b);
            turns.push_back(from);
            turns.push_back(to);
            if (to < from) to += 4;
            if (to - from > 2) continue;  // passes through the point itself: no width of its own
            edges.push_back({a, b, from, to});
        }
    std::sort(turns.begin(), turns.end());
    turns.erase(std::unique(turns.begin(), turns.end(), [](double x, double y) { return y - x < 1e-12; }), turns.end());
    if (turns.size() < 2) return;
    // Edges by sector, so that each interval asks only those that can face it.
    constexpr int sectors = 256;
    std::vector<std::vector<std::size_t>> by_sector(sectors);
    for (std::size_t e = 0; e < edges.size(); ++e)
        for (int s = static_cast<int>(edges[e].from * sectors / 4); s <= static_cast<int>(edges[e].to * sectors / 4); ++s)
            by_sector[static_cast<std::size_t>(s % sectors)].push_back(e);
    const auto direction = [](double t) {
        t = std::fmod(t, 4.0);
        return t <= 2 ? Point{1 - t, t <= 1 ? t : 2 - t} : Point{t - 3, t <= 3 ? 2 - t : t - 4};
    };
    const std::size_t n = turns.size();
    rays_.resize(n);
    for (std::size_t i = 0; i < n; ++i) rays_[i].turn = turns[i];
    for (std::size_t i = 0; i < n; ++i) {
        // the furthest edge over the interval that begins here: edges do not cross, so its middle tells
        const double from = turns[i], to = i + 1 < n ? turns[i + 1] : turns[0] + 4;
        const double middle = (from + to) / 2;
        const Point d = direction(middle);
        double best = 0;
        const Edge* outermost = nullptr;
        for (const std::size_t e : by_sector[static_cast<std::size_t>(static_cast<int>(middle * sectors / 4) % sectors)]) {
            const Edge& edge = edges[e];
            const bool spans = (middle > edge.from && middle < edge.to) || (middle + 4 > edge.from && middle + 4 < edge.to);
            if (!spans) continue;
            const double r = along(d, edge.a, edge.b);
            if (r > best) {
                best = r;
                outermost = &edge;
            }
        }
        if (outermost == nullptr) continue;  // nothing faces this way: the hull is bare here
        const Point d0 = direction(from), d1 = direction(to);
        rays_[i].out = d0 * along(d0, outermost->a, outermost->b);
        rays_[(i + 1) % n].in = d1 * along(d1, outermost->a, outermost->b);
    }
    // Rays where the edge goes straight on say nothing new.
    std::vector<Ray> kept;
    for (std::size_t i = 0; i < n; ++i) {
        const Ray& r = rays_[i];
        const Ray& before = kept.empty() ? rays_[(i + n - 1) % n] : kept.back();
        const Ray& next = rays_[(i + 1) % n];
        const bool one = norm(r.in - r.out) < 1e-9 && norm(r.in) > 0;
        const Point u = r.in - before.out, v = next.in - r.out;
        if (one && i > 0 && i + 1 < n && std::abs(cross(u, v)) < 1e-5 * norm(u) * norm(v) && dot(u, v) > 0) continue;
        kept.push_back(r);
    }
    rays_ = std::move(kept);
    for (Ray& r : rays_) r.far = dot(r.in, r.in) > dot(r.out, r.out) ? r.in : r.out;
    // How far the hull reaches in each sector of turns, so that most edges of an obstacle need no closer look.
    sector_reach_.fill(0);
    const auto widen = [&](int sector, double reach) {
        double& at = sector_reach_[static_cast<std::size_t>(sector % reach_sectors)];
        at = std::max(at, reach);
    };
    for (std::size_t i = 0; i < rays_.size(); ++i) {
        const Ray &r = rays_[i], &next = rays_[(i + 1) % rays_.size()];
        widen(sector_of(r.turn), norm(r.far));
        const double most = std::max(norm(r.out), norm(next.in));  // 0 where nothing faces this way
        const double to = next.turn > r.turn ? next.turn : next.turn + 4;
        for (int s = sector_of(r.turn); most > 0 && s <= static_cast<int>(to * reach_sectors / 4); ++s) widen(s, most);
    }
    for (std::size_t s = 0; s < reach_sectors; ++s) {
        double& at = quadrant_reach_[s * 4 / reach_sectors];
        at = std::max(at, sector_reach_[s]);
    }
}

double StarHull::reach_towards(const Rect& box, Point anchor) const {
    const bool right = box.x1 >= anchor.x, left = box.x0 <= anchor.x, down = box.y1 >= anchor.y, up = box.y0 <= anchor.y;
    double most = 0;
    if (right && down) most = std::max(most, quadrant_reach_[0]);
    if (left && down) most = std::max(most, quadrant_reach_[1]);
    if (left && up) most = std::max(most, quadrant_reach_[2]);
    if (right && up) most = std::max(most, quadrant_reach_[3]);
    return most;
}

int StarHull::sector_of(double turn) { return std::min(reach_sectors - 1, static_cast<int>(turn * reach_sectors / 4)); }

double StarHull::reach_between(double from, double span) const {
    double most = 0;
    for (int s = sector_of(from), last = static_cast<int>((from + span) * reach_sectors / 4); s <= last; ++s)
        most = std::max(most, sector_reach_[static_cast<std::size_t>(s % reach_sectors)]);
    return most;
}

std::size_t StarHull::after(double turn) const {
    const auto at = std::upper_bound(rays_.begin(), rays_.end(), turn, [](double t, const Ray& r) { return t < r.turn; });
    return static_cast<std::size_t>(at - rays_.begin());
}

double StarHull::extent_along(Point direction, double turn) const {
    const std::size_t n = rays_.size();
    const std::size_t next = after(turn);
    const Ray& from = rays_[(next + n - 1) % n];
    const Ray& to = rays_[next % n];
    double best = 0;
    if (from.out.x != 0 || from.out.y != 0 || to.in.x != 0 || to.in.y != 0) best = along(direction, from.out, to.in);
    // on a ray itself either side counts
    if (std::abs(from.turn - turn) < 1e-12) best = std::max(best, norm(from.far) / norm(direction));
    return best;
}

void StarHull::narrow(const Ring& ring, std::size_t first, std::size_t last, Point anchor, double& best) const {
    const std::size_t n = rays_.size();
    double most2 = best * reach_ * best * reach_;
    Point a = ring[(first == 0 ? ring.size() : first) - 1] - anchor;
    for (std::size_t i = first; i < last; ++i) {
        const Point b = ring[i] - anchor, p = a;
        a = b;
        // no nearer than its line or its ends allow: far edges cannot bind
        const Point edge = b - p;
        const double along_p = -dot(p, edge), long2 = dot(edge, edge);
        double near2 = dot(p, p);
        if (along_p >= long2)
            near2 = dot(b, b);
        else if (along_p > 0)
            near2 -= along_p * along_p / long2;
        if (near2 >= most2) continue;
        const bool back = cross(p, b) < 0;
        const Point begin = back ? b : p, end = back ? p : b;
        const double turn_b = turn_of(b), from = back ? turn_b : turn_of(p);
        double span = (back ? turn_of(p) : turn_b) - from;
        if (span < 0) span += 4;
        const double reach = best * reach_between(from, span);
        if (near2 >= reach * reach) continue;
        const double extent = extent_along(b, turn_b);
        if (extent * best > 1) best = 1 / extent;
        // the hull's own vertices against this edge
        for (std::size_t k = after(from), seen = 0; seen < n; ++k, ++seen) {
            const Ray& r = rays_[k >= n ? k - n : k];
            double off = r.turn - from;
            if (off < 0) off += 4;
            if (off > span) break;
            if (r.far.x == 0 && r.far.y == 0) continue;
            const double w = along(r.far, begin, end);
            if (w > 0 && w < best) best = w;
        }
        most2 = best * reach_ * best * reach_;
    }
}

void Obstacle::find_boxes() {
    boxes.clear();
    stretches.clear();
    for (const Ring& r : grown) {
        boxes.push_back(bounds(r));
        std::vector<Rect>& all = stretches.emplace_back();
        for (std::size_t i = 0; i < r.size(); i += stretch) {
            const Point before = r[(i == 0 ? r.size() : i) - 1];
            Rect box{before.x, before.y, before.x, before.y};
            for (std::size_t k = i; k < std::min(i + stretch, r.size()); ++k)
                box = {std::min(box.x0, r[k].x), std::min(box.y0, r[k].y), std::max(box.x1, r[k].x), std::max(box.y1, r[k].y)};
            all.push_back(box);
        }
    }
}

namespace {

/// The ring without its detail beyond the window: a corner goes where it and both its neighbours lie beyond one side.
Ring plain_beyond(const Ring& ring, const Rect& window) {
    const auto sides = [&](Point p) {
        return (p.x < window.x0 ? 1 : 0) | (p.x > window.x1 ? 2 : 0) | (p.y < window.y0 ? 4 : 0) | (p.y > window.y1 ? 8 : 0);
    };
    Ring out;
    for (std::size_t i = 0, n = ring.size(); i < n; ++i)
        // the first and last stay: what they would be judged by is not settled yet
        if (i == 0 || i + 1 == n || (sides(out.back()) & sides(ring[i]) & sides(ring[i + 1])) == 0) out.push_back(ring[i]);
    return out.size() >= 3 ? out : ring;
}

/// As obstacle_of, plain beyond the window.
Obstacle obstacle_within(const Rect& window, const std::string& name, const Region& place, double clearance) {
    Obstacle o;
    o.name = name;
    o.clearance = clearance;
    o.place = place;
    const Region grown = clearance > 0 ? offset(place, clearance, 0.05) : place;  // never short of it, at most that much over
    for (const Polygon& p : grown) {
        o.grown.push_back(plain_beyond(p.outer, window));
        for (const Ring& hole : p.holes) o.grown.push_back(plain_beyond(hole, window));
    }
    o.find_boxes();
    return o;
}

}  // namespace

Obstacle obstacle_of(const std::string& name, const Region& place, double clearance) {
    constexpr double all = 1e18;
    return obstacle_within({-all, -all, all, all}, name, place, clearance);
}

ClearArea clear_area(Location location, const Panel& panel) {
    ClearArea area;
    const Rect window = bounds(panel.outline).grown(50);
    for (const Feature& f : keepouts(location, panel)) {
        Obstacle o = obstacle_within(window, f.name, f.place, f.clearance_mm);
        o.height = f.height_mm;
        o.edge = f.kind == Feature::Kind::edge;
        area.push_back(std::move(o));
    }
    return area;
}

namespace {

/// widest_clear for one obstacle. An obstacle with a hole in it (the area round a tag) is met from within.
double widest_of(const StarHull& hull, const Obstacle& o, Point anchor, double at_most) {
    if (hull.empty()) return at_most;
    int around = 0;
    for (std::size_t i = 0; i < o.grown.size(); ++i)
        if (o.boxes[i].contains(anchor) && inside(o.grown[i], anchor)) ++around;
    if (around % 2 == 1) return 0;
    double best = at_most;
    // Within a ring of an obstacle that has holes the ring is met all the same, as the ray passes outwards.
    const auto in_reach = [&](const Rect& box) {
        const double reach = best * hull.reach_towards(box, anchor);
        return distance2(box, anchor) < reach * reach;
    };
    for (std::size_t i = 0; i < o.grown.size(); ++i) {
        const Ring& ring = o.grown[i];
        if (ring.size() < 3 || !in_reach(o.boxes[i])) continue;
        for (std::size_t k = 0; k < o.stretches[i].size(); ++k)
            if (in_reach(o.stretches[i][k]))
                hull.narrow(ring, k * Obstacle::stretch, std::min((k + 1) * Obstacle::stretch, ring.size()), anchor, best);
    }
    return best;
}

}  // namespace

ClearLimit widest_clear(const StarHull& hull, const ClearArea& area, Point anchor, double at_most) {
    ClearLimit limit;
    limit.width = at_most;
    // Nearest first: the sooner something binds, the less of the others needs a look.
    std::vector<std::pair<double, const Obstacle*>> near;
    near.reserve(area.size());
    for (const Obstacle& o : area) {
        double least = 1e18;
        for (const Rect& box : o.boxes) least = std::min(least, distance2(box, anchor));
        near.emplace_back(least, &o);
    }
    std::stable_sort(near.begin(), near.end(), [](const auto& x, const auto& y) { return x.first < y.first; });
    for (const auto& [apart, obstacle] : near) {
        const Obstacle& o = *obstacle;
        const double w = widest_of(hull, o, anchor, limit.width);
        if (w < 1)
            limit.anyway.push_back(o.name);
        else if (w < limit.width) {
            limit.width = w;
            limit.by = o.name;
        }
    }
    return limit;
}

namespace {

double to_ring(Point p, const Ring& ring) {
    double best = 1e18;
    for (std::size_t i = 0, n = ring.size(); i < n; ++i) {
        const Point a = ring[i], d = ring[(i + 1) % n] - a;
        const double t = std::clamp(dot(p - a, d) / std::max(1e-18, dot(d, d)), 0.0, 1.0);
        best = std::min(best, norm(p - (a + d * t)));
    }
    return best;
}

double to_edges(Point p, const Region& region) {
    double best = 1e18;
    for (const Polygon& poly : region) {
        best = std::min(best, to_ring(p, poly.outer));
        for (const Ring& hole : poly.holes) best = std::min(best, to_ring(p, hole));
    }
    return best;
}

/// How far the vertices of `of` lie within `within`, at most.
double depth(const Region& of, const Region& within) {
    double most = 0;
    for (const Polygon& p : of)
        for (const Point v : p.outer)
            if (inside(within, v)) most = std::max(most, to_edges(v, within));
    return most;
}

constexpr double farthest_move = 400;  ///< mm: nobody moves a design farther to part it from something

/// What the ink must not reach into.
Region kept_clear(const Obstacle& o) { return o.clearance > 0 ? offset(o.place, o.clearance, 0.05, Corner::round) : o.place; }

}  // namespace

std::vector<Clash> clashes(const ClearArea& area, const Region& ink, double slack) {
    std::vector<Clash> out;
    const Rect box = bounds(ink);
    for (const Obstacle& o : area) {
        bool near = false;
        for (const Polygon& p : o.place) near = near || bounds(p.outer).grown(o.clearance).meets(box);
        if (!near) continue;
        const double apart = distance(o.place, ink);
        if (apart >= o.clearance - slack && !(apart == 0 && o.clearance <= slack)) continue;
        const double deep = apart > 0 ? -apart : std::max(depth(ink, o.place), depth(o.place, ink));
        if (deep + o.clearance <= slack) continue;  // they touch where nothing need be kept
        out.push_back({o.name, deep + o.clearance, deep > slack, escape(ink, kept_clear(o), farthest_move)});
    }
    return out;
}

}  // namespace orthema
