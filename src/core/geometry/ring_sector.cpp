#include "core/geometry/ring_sector.h"

namespace orthema {

Point RingSector::bent(Point w) const {
    if (straight()) return w;
    const double t = w.x / middle_radius();
    if (narrows()) {
        const double r = rim_radius - w.y;
        return {r * std::sin(t), rim_radius - r * std::cos(t)};
    }
    const double r = rim_radius + w.y;
    return {r * std::sin(t), r * std::cos(t) - rim_radius};
}

Point RingSector::unbent(Point f) const {
    if (straight()) return f;
    const double up = narrows() ? rim_radius - f.y : f.y + rim_radius;
    const double r = std::hypot(f.x, up);
    return {std::atan2(f.x, up) * middle_radius(), narrows() ? rim_radius - r : r - rim_radius};
}

Ring RingSector::bent(const Ring& wall, double tolerance) const {
    if (straight()) return wall;
    // a chord over the angle a on the radius r lies r (1 − cos a/2) inside its arc
    const double most = 2 * std::acos(1 - std::min(1.0, tolerance / std::max(rim_radius, base_radius))) * middle_radius();
    Ring out;
    for (std::size_t i = 0; i < wall.size(); ++i) {
        const Point a = wall[i], b = wall[(i + 1) % wall.size()];
        const int steps = std::max(1, static_cast<int>(std::ceil(std::abs(b.x - a.x) / most)));
        for (int k = 0; k < steps; ++k) out.push_back(bent(a + (b - a) * (static_cast<double>(k) / steps)));
    }
    return out;
}

Region RingSector::bent(const Region& wall, double tolerance) const {
    Region out;
    for (const Polygon& p : wall) {
        Polygon q{bent(p.outer, tolerance), {}};
        for (const Ring& hole : p.holes) q.holes.push_back(bent(hole, tolerance));
        out.push_back(std::move(q));
    }
    return out;
}

Result<RingSector> unrolled(const CupWall& w) {
    if (!(w.top_diameter > 0) || !(w.bottom_diameter > 0))
        return Error{"A diameter of the wall is zero: measure both across the outside, at the rim and at the base."};
    if (!(w.height > 0)) return Error{"The wall has no height: measure from the rim straight down to the base."};
    RingSector s;
    s.slant = w.slant();
    const double taper = std::abs(w.top_diameter - w.bottom_diameter);
    if (taper < 0.05) return s;
    const double rim = s.slant * w.top_diameter / taper;
    s.rim_radius = rim;
    s.base_radius = w.top_diameter > w.bottom_diameter ? rim - s.slant : rim + s.slant;
    return s;
}

namespace {

double diameter_at(const CupWall& w, double v) { return w.top_diameter + (w.bottom_diameter - w.top_diameter) * v / w.slant(); }

}  // namespace

Point3 rolled(const CupWall& w, Point p) {
    const double turn = p.x * 2 * M_PI / w.middle_circumference();
    const double r = diameter_at(w, p.y) / 2;
    return {r * std::sin(turn), p.y * w.height / w.slant(), r * std::cos(turn)};
}

Point off_wall(const CupWall& w, const Point3& at) {
    return {std::atan2(at.x, at.z) * w.middle_circumference() / (2 * M_PI), at.y * w.slant() / w.height};
}

}  // namespace orthema
