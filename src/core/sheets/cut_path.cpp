#include "core/sheets/cut_path.h"

#include <algorithm>
#include <limits>

namespace orthema {

namespace {

struct Loop {
    Ring ring;
    Rect box;
    std::vector<std::size_t> within;  ///< loops that lie inside this one
    int depth = 0;                    ///< loops that it lies inside
};

std::pair<std::size_t, double> nearest_corner(const Ring& ring, Point from) {
    std::size_t at = 0;
    double least = std::numeric_limits<double>::infinity();
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (const double d = norm(ring[i] - from); d < least) {
            least = d;
            at = i;
        }
    return {at, least};
}

double to_box(const Rect& b, Point p) { return std::sqrt(distance2(b, p)); }

/// Order and the corner at which each begins.
struct Way {
    std::vector<std::size_t> order;
    std::vector<Point> from;  ///< by loop
    double travel = 0;
};

/// Corners chosen one after the other along an order.
Way along(const std::vector<Loop>& loops, std::vector<std::size_t> order, Point start) {
    Way way;
    way.from.resize(loops.size());
    Point at = start;
    for (const std::size_t i : order) {
        const auto [corner, d] = nearest_corner(loops[i].ring, at);
        at = way.from[i] = loops[i].ring[corner];
        way.travel += d;
    }
    way.order = std::move(order);
    return way;
}

}  // namespace

double idle_travel(const std::vector<CutStep>& path, Point start) {
    double sum = 0;
    for (const CutStep& s : path) {
        sum += norm(s.ring[0] - start);
        start = s.open ? s.ring.back() : s.ring[0];
    }
    return sum;
}

std::vector<CutStep> with_snips(std::vector<CutStep> path, const std::vector<Ring>& snips) {
    if (snips.empty()) return path;
    std::vector<std::vector<const Ring*>> before(path.size());
    for (const Ring& snip : snips) {
        // its inner end lies in the piece; of rings in one another the innermost is the piece's
        std::size_t own = path.size();
        for (std::size_t i = 0; i < path.size(); ++i)
            if (inside(path[i].ring, snip.back()) &&
                (own == path.size() || std::abs(signed_area(path[i].ring)) < std::abs(signed_area(path[own].ring))))
                own = i;
        if (own < path.size()) before[own].push_back(&snip);
    }
    std::vector<CutStep> out;
    Point at;
    for (std::size_t i = 0; i < path.size(); ++i) {
        while (!before[i].empty()) {
            const auto next = std::min_element(before[i].begin(), before[i].end(),
                                               [&](const Ring* a, const Ring* b) { return norm(a->front() - at) < norm(b->front() - at); });
            out.push_back({**next, false, true});
            at = (*next)->back();
            before[i].erase(next);
        }
        at = path[i].ring[0];
        out.push_back(std::move(path[i]));
    }
    return out;
}

std::vector<CutStep> cut_path(const std::vector<Polygon>& contours, Point start) {
    std::vector<Loop> loops;
    const auto add = [&](const Ring& r) {
        if (r.size() >= 3) loops.push_back({r, bounds(r), {}, 0});
    };
    for (const Polygon& p : contours) {
        add(p.outer);
        for (const Ring& hole : p.holes) add(hole);
    }
    const std::size_t n = loops.size();
    for (std::size_t i = 0; i < n; ++i)
        for (std::size_t j = 0; j < n; ++j) {
            if (i == j || !(loops[i].box.x0 <= loops[j].box.x0 && loops[i].box.x1 >= loops[j].box.x1 &&
                            loops[i].box.y0 <= loops[j].box.y0 && loops[i].box.y1 >= loops[j].box.y1))
                continue;
            // equal rings would lie in each other: the first is then the outer one
            const bool same = loops[i].box == loops[j].box;
            if (inside(loops[i].ring, loops[j].ring[0]) && !(same && i > j)) {
                loops[i].within.push_back(j);
                ++loops[j].depth;
            }
        }

    std::vector<std::size_t> order;
    std::vector<char> done(n, 0);
    Point at = start;
    while (order.size() < n) {
        std::size_t best = n;
        std::size_t best_corner = 0;
        double least = std::numeric_limits<double>::infinity();
        for (std::size_t i = 0; i < n; ++i) {
            if (done[i] != 0 || to_box(loops[i].box, at) >= least) continue;
            if (std::any_of(loops[i].within.begin(), loops[i].within.end(), [&](std::size_t j) { return done[j] == 0; })) continue;
            const auto [corner, d] = nearest_corner(loops[i].ring, at);
            if (d < least) {
                least = d;
                best = i;
                best_corner = corner;
            }
        }
        if (best == n) {  // only for rings that lie in each other by rounding: any order will do
            best = static_cast<std::size_t>(std::find(done.begin(), done.end(), 0) - done.begin());
            best_corner = 0;
        }
        done[best] = 1;
        order.push_back(best);
        at = loops[best].ring[best_corner];
    }

    // Single rings are moved to where they lengthen the way least, while corners stay; then corners are chosen anew.
    Way best = along(loops, order, start);
    for (int pass = 0; pass < 8 && n > 2; ++pass) {
        std::vector<std::size_t> now = best.order;
        bool moved = false;
        const auto spot = [&](std::size_t k) { return k == 0 ? start : best.from[now[k - 1]]; };  // before place k
        for (std::size_t k = 0; k < n; ++k) {
            const std::size_t loop = now[k];
            const Point p = best.from[loop];
            const bool last = k + 1 == n;
            const double saved = norm(p - spot(k)) + (last ? 0 : norm(best.from[now[k + 1]] - p) - norm(best.from[now[k + 1]] - spot(k)));
            if (saved < 1) continue;
            // it stays behind all that lie inside it and before all that it lies in
            std::size_t low = 0, high = n - 1;
            for (std::size_t q = 0; q < n; ++q) {
                const auto& in = loops[now[q]].within;
                if (std::find(loops[loop].within.begin(), loops[loop].within.end(), now[q]) != loops[loop].within.end())
                    low = std::max(low, q + (q < k ? 1 : 0));
                if (q > k && std::find(in.begin(), in.end(), loop) != in.end()) high = std::min(high, q - 1);
            }
            std::vector<std::size_t> rest = now;
            rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(k));
            double gain = 1e-6;
            std::size_t to = n;
            for (std::size_t q = low; q <= high; ++q) {
                const Point a = q == 0 ? start : best.from[rest[q - 1]];
                const double added = norm(p - a) + (q < rest.size() ? norm(best.from[rest[q]] - p) - norm(best.from[rest[q]] - a) : 0);
                if (saved - added > gain) {
                    gain = saved - added;
                    to = q;
                }
            }
            if (to == n) continue;
            rest.insert(rest.begin() + static_cast<std::ptrdiff_t>(to), loop);
            now = std::move(rest);
            moved = true;
        }
        if (!moved) break;
        Way next = along(loops, now, start);
        if (next.travel >= best.travel) break;
        best = std::move(next);
    }

    std::vector<CutStep> out;
    for (const std::size_t i : best.order) {
        Ring ring = loops[i].ring;
        std::rotate(ring.begin(), std::find(ring.begin(), ring.end(), best.from[i]), ring.end());
        out.push_back({std::move(ring), loops[i].depth > 0});
    }
    return out;
}

}  // namespace orthema
