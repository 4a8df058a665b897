#include "core/artwork/clip_fit.h"

#include <optional>

namespace orthema {

namespace {

/// A point of the region, as near to `wish` as its parts allow; nothing where it is empty.
std::optional<Point> point_in(const Region& region, Point wish) {
    if (region.empty()) return std::nullopt;
    if (inside(region, wish)) return wish;
    const Polygon* largest = &region[0];
    for (const Polygon& p : region)
        if (area(p) > area(*largest)) largest = &p;
    // shrink until little is left: what stays is well inside
    Region core{*largest};
    for (double by = std::sqrt(area(*largest)) / 8; by > 1e-4; by /= 2)
        for (Region next = offset(core, -by, by / 4); !next.empty() && area(next) > 1e-9; next = offset(core, -by, by / 4)) core = next;
    Point sum;
    for (const Point& p : core[0].outer) sum = sum + p;
    const Point middle = sum * (1.0 / static_cast<double>(core[0].outer.size()));
    return inside(region, middle) ? middle : core[0].outer[0];
}

}  // namespace

Result<ClipFit> clip_fit(const Region& shape, double aspect, const std::vector<Point>& subject, double rim, bool as_small) {
    const Rect box = bounds(shape);
    if (!(box.width() > 0) || !(box.height() > 0) || !(aspect > 0)) return Error{"There is no shape to clip to."};
    // Clipper counts in 0.1 µm: the shape is worked on at a size where that is fine enough.
    const double k = 1000 / std::max(box.width(), box.height());
    const Region work = mapped(shape, Affine::scale(k, k));
    const Rect whole = bounds(work);
    const Region keep = rim > 0 ? offset(work, -rim * k, 0.5) : work;  // where the subject may lie
    if (keep.empty()) return Error{"The shape is narrower than twice the rim: give it a narrower rim."};
    const double least = std::max(whole.width(), whole.height() / aspect);
    const Point middle = whole.centre();

    // where the picture's top left may lie at this scale
    const auto places = [&](double scale) {
        Region at = box_region({whole.x1 - scale - 1e-3, whole.y1 - scale * aspect - 1e-3, whole.x0 + 1e-3, whole.y0 + 1e-3});
        for (const Point& m : subject) {
            at = intersect(at, mapped(keep, Affine::shift(-m.x * scale, -m.y * scale)));
            if (at.empty()) break;
        }
        return at;
    };

    double best = 0;
    if (subject.size() >= 2 && !as_small) {
        double spread = 0;
        for (const Point& a : subject)
            for (const Point& b : subject) spread = std::max(spread, norm(a - b));
        const double most = std::min(64 * least, std::hypot(whole.width(), whole.height()) / std::max(spread, 1e-6));
        constexpr int steps = 160;
        double above = most;
        for (int i = 0; i <= steps && best == 0; ++i) {
            const double scale = most * std::pow(least / most, static_cast<double>(i) / steps);
            if (!places(scale).empty())
                best = scale;
            else
                above = scale;
        }
        if (best > 0)
            for (int i = 0; i < 30; ++i) {
                const double half = (best + above) / 2;
                (places(half).empty() ? above : best) = half;
            }
    } else {
        for (double scale = least; scale <= 8 * least && best == 0; scale *= 1.02)
            if (!places(scale).empty()) best = scale;
    }
    if (best == 0)
        return Error{
            "The picture is too small for the shape: with the subject kept inside it does not reach every edge. Take a picture "
            "with more around the subject, or fewer marks."};
    const Point centred{middle.x - best / 2, middle.y - best * aspect / 2};
    const Point at = point_in(places(best), centred).value_or(centred);
    return ClipFit{best / k, at * (1 / k)};
}

}  // namespace orthema
