#include "core/transfers/layers.h"

namespace orthema {

namespace {

constexpr double layer_tolerance = 0.03;

double larger_side(const Ring& ring) {
    const Rect box = bounds(ring);
    return std::max(box.width(), box.height());
}
double smaller_side(const Ring& ring) {
    const Rect box = bounds(ring);
    return std::min(box.width(), box.height());
}

}  // namespace

Region bridged(const Region& region, double width) {
    if (region.size() < 2) return region;
    // Prim's: the joined islands, and for each other one its nearest point of them.
    struct Way {
        std::pair<Point, Point> ends;
        double length = 0;
    };
    const auto way = [&](std::size_t a, std::size_t b) {
        Way w{nearest_points(region[a], region[b]), 0};
        w.length = norm(w.ends.first - w.ends.second);
        return w;
    };
    std::vector<Way> nearest(region.size());
    std::vector<char> joined(region.size(), 0);
    joined[0] = 1;
    for (std::size_t i = 1; i < region.size(); ++i) nearest[i] = way(0, i);
    Region out = region;
    for (std::size_t round = 1; round < region.size(); ++round) {
        std::size_t next = 0;
        for (std::size_t i = 1; i < region.size(); ++i)
            if (joined[i] == 0 && (next == 0 || nearest[i].length < nearest[next].length)) next = i;
        joined[next] = 1;
        const auto [a, b] = nearest[next].ends;
        const Point d = b - a;
        const double len = norm(d);
        const Point along = len > 0 ? d * (1 / len) : Point{1, 0};
        const Point aside = Point{-along.y, along.x} * (width / 2);
        const Point reach = along * (width / 2);  // a little into both islands
        out = unite(out, {Polygon{{a - reach - aside, b + reach - aside, b + reach + aside, a - reach + aside}, {}}});
        for (std::size_t i = 1; i < region.size(); ++i) {
            if (joined[i] != 0) continue;
            const Way w = way(next, i);
            if (w.length < nearest[i].length) nearest[i] = w;
        }
    }
    return out;
}

Result<Region> layer_shape(const Region& above, const LayerRule& rule) {
    if (area(above) <= 0) return Error{"There is no shape to grow a layer from."};
    Region out = rule.grow == 0 ? above : offset(above, rule.grow, layer_tolerance, rule.corner);
    if (area(out) < 0.05) return Error{Words{"layer-choked-away", {{"by", Fine{-rule.grow}}}}};
    if (rule.fill_holes > 0)
        for (Polygon& p : out) std::erase_if(p.holes, [&](const Ring& h) { return smaller_side(h) < rule.fill_holes; });
    if (rule.bridges) out = bridged(out, rule.bridge);
    return out;
}

std::vector<WeedFault> weed_faults(const Region& region, double least_stroke, double least_gap, double least_island) {
    std::vector<WeedFault> faults;
    for (const Polygon& p : region)
        if (larger_side(p.outer) < least_island)
            faults.push_back({WeedFault::Kind::island, bounds(p.outer).centre(), larger_side(p.outer)});
    // what is left of a corner or an acute notch is short: only what keeps narrow for a while counts
    const auto worth = [](const Polygon& p, double least) { return area(p) > least * least / 4 && larger_side(p.outer) > 3 * least; };
    if (least_stroke > 0) {
        const Region opened =
            offset(offset(region, -least_stroke / 2, layer_tolerance), least_stroke / 2 + layer_tolerance, layer_tolerance);
        for (const Polygon& p : subtract(region, opened))
            if (worth(p, least_stroke)) faults.push_back({WeedFault::Kind::sliver, p.outer[0], larger_side(p.outer)});
    }
    if (least_gap > 0) {
        const Region closed = offset(offset(region, least_gap / 2, layer_tolerance), -least_gap / 2 - 3 * layer_tolerance, layer_tolerance);
        for (const Polygon& p : subtract(closed, region))
            if (worth(p, least_gap)) faults.push_back({WeedFault::Kind::gap, p.outer[0], larger_side(p.outer)});
    }
    return faults;
}

}  // namespace orthema
