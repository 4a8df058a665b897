#include "core/fitting/escape.h"

#include <algorithm>
#include <cmath>
#include <utility>
#include <vector>

namespace orthema {

namespace {

/// An edge as y over x, from left to right; upright ones bound no stretch.
struct Edge {
    Point a, b;
    [[nodiscard]] double at(double x) const { return a.y + (b.y - a.y) * (x - a.x) / (b.x - a.x); }
};

struct Interval {
    double from, to;
};

/// Edges by their left end, and those that a line at x crosses.
class Sweep {
public:
    Sweep(const Region& region, bool swap) {
        for (const Polygon& p : region) {
            add(p.outer, swap);
            for (const Ring& hole : p.holes) add(hole, swap);
        }
        std::sort(edges_.begin(), edges_.end(), [](const Edge& l, const Edge& r) { return l.a.x < r.a.x; });
    }
    void stops(std::vector<double>& to) const {
        for (const Edge& e : edges_) {
            to.push_back(e.a.x);
            to.push_back(e.b.x);
        }
    }
    /// The edges above one another between x0 and x1, where no edge ends; two and two bound a stretch. x0 never goes back.
    const std::vector<Edge>& between(double x0, double x1) {
        const double middle = (x0 + x1) / 2;
        std::erase_if(active_, [&](const Edge& e) { return e.b.x <= middle; });
        for (; next_ < edges_.size() && edges_[next_].a.x < middle; ++next_)
            if (edges_[next_].b.x > middle) active_.push_back(edges_[next_]);
        std::sort(active_.begin(), active_.end(), [&](const Edge& l, const Edge& r) { return l.at(middle) < r.at(middle); });
        return active_;
    }

private:
    void add(const Ring& ring, bool swap) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            Point a = ring[i], b = ring[(i + 1) % ring.size()];
            if (swap) {
                std::swap(a.x, a.y);
                std::swap(b.x, b.y);
            }
            if (a.x > b.x) std::swap(a, b);
            if (b.x > a.x) edges_.push_back({a, b});
        }
    }
    std::vector<Edge> edges_, active_;
    std::size_t next_ = 0;
};

/// The moves along y (along x, with `swap`) nearest to none that part the two: back, and on.
Interval way_out(const Region& ink, const Region& from, bool swap) {
    Sweep mine(ink, swap), theirs(from, swap);
    std::vector<double> stops, others;
    mine.stops(stops);
    theirs.stops(others);
    if (stops.empty() || others.empty()) return {0, 0};
    const auto [low, high] = std::minmax_element(stops.begin(), stops.end());
    const double left = *low, right = *high;
    for (const double x : others)
        if (x > left && x < right) stops.push_back(x);
    std::sort(stops.begin(), stops.end());
    std::vector<Interval> bad;
    for (std::size_t k = 1; k < stops.size(); ++k) {
        const double x0 = stops[k - 1], x1 = stops[k];
        if (x1 - x0 < 1e-9) continue;
        const std::vector<Edge>&a = mine.between(x0, x1), &b = theirs.between(x0, x1);
        for (std::size_t i = 0; i + 1 < a.size(); i += 2)
            for (std::size_t j = 0; j + 1 < b.size(); j += 2)
                bad.push_back({std::min(b[j].at(x0) - a[i + 1].at(x0), b[j].at(x1) - a[i + 1].at(x1)),
                               std::max(b[j + 1].at(x0) - a[i].at(x0), b[j + 1].at(x1) - a[i].at(x1))});
    }
    std::sort(bad.begin(), bad.end(), [](const Interval& l, const Interval& r) { return l.from < r.from; });
    Interval out{0, 0};
    Interval now{0, -1};
    const auto close = [&] {
        if (now.from < 0 && now.to > 0) out = now;
    };
    for (const Interval& i : bad) {
        if (now.to >= now.from && i.from < now.to) {
            now.to = std::max(now.to, i.to);
        } else {
            close();
            now = i;
        }
    }
    close();
    return out;
}

}  // namespace

std::optional<Point> escape(const Region& ink, const Region& from, double at_most) {
    const Interval down = way_out(ink, from, false), across = way_out(ink, from, true);
    std::optional<Point> best;
    double least = at_most;
    for (const Point p : {Point{0, down.from}, Point{0, down.to}, Point{across.from, 0}, Point{across.to, 0}}) {
        if (norm(p) > least) continue;
        least = norm(p);
        best = p;
    }
    return best;
}

}  // namespace orthema
