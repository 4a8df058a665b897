#include "core/fitting/coverage.h"

namespace orthema {

namespace {

constexpr double dust = 0.01;  ///< mm²: rounding of the geometry, not a rim

/// Bare parts that a boolean operation did not make up.
Region left_bare(const Region& ink, const Region& blank, double by) {
    Region bare = subtract(by == 0 ? blank : offset(blank, by, 0.005), ink);
    std::erase_if(bare, [](const Polygon& p) { return area(p) < dust; });
    return bare;
}

}  // namespace

Coverage coverage(const Region& ink, const Region& blank, double misplaced) {
    Coverage out{left_bare(ink, blank, misplaced), 0};
    double low = -50, high = 50;
    for (int i = 0; i < 24; ++i) {
        const double middle = (low + high) / 2;
        (left_bare(ink, blank, middle).empty() ? low : high) = middle;
    }
    out.worst = low;
    return out;
}

std::optional<double> covering_scale(const Region& ink, const Region& blank, double reach) {
    const Point from = bounds(ink).centre(), to = bounds(blank).centre();
    const Region wanted = offset(blank, reach, 0.005);
    const auto covers = [&](double k) {
        const Region scaled = mapped(ink, Affine::shift(to.x, to.y).after(Affine::scale(k, k)).after(Affine::shift(-from.x, -from.y)));
        return left_bare(scaled, wanted, 0).empty();
    };
    double high = 1.0 / 64;
    while (high <= 64 && !covers(high)) high *= 2;
    if (high > 64) return std::nullopt;
    double low = high / 2;
    for (int i = 0; i < 30; ++i) {
        const double middle = (low + high) / 2;
        (covers(middle) ? high : low) = middle;
    }
    return high;
}

bool fills_its_sides(const Region& ink) {
    const Rect box = bounds(ink);
    const double strip = box.width() * 0.01;
    const auto filled = [&](double x0) {
        return area(intersect(ink, box_region({x0, box.y0, x0 + strip, box.y1}))) >= 0.5 * strip * box.height();
    };
    return !ink.empty() && filled(box.x0) && filled(box.x1 - strip);
}

}  // namespace orthema
